import { useJobView } from "~/view/view";
import type { Notice } from "~core/steps";

/** What doing it now runs into: said, not forbidden. */
export function Notices({ notices }: { notices: readonly Notice[] }) {
  const { applied } = useJobView();
  if (notices.length === 0) return null;
  const { present, scoped } = applied;
  const name = (id: string): string =>
    [
      ...present.parts,
      ...(present.fasteners ?? []),
      ...(scoped.teardown ?? []),
      ...present.chains,
      ...(present.measurements ?? []),
    ].find((one) => one.id === id)?.name ?? id;
  const words = (notice: Notice): string => {
    switch (notice.kind) {
      case "held":
        return `${name(notice.by)} still in: it holds ${name(notice.part)}.`;
      case "fasteners":
        return `${notice.out} of ${notice.of} ${name(notice.group).toLowerCase()} out.`;
      case "closes":
        return `${name(notice.over)} still out: ${name(notice.part)} goes in over it.`;
      case "dirty":
        return `Not clean yet: ${notice.parts.map(name).join(", ")}.`;
      case "spoils":
        return `Not done yet: ${name(notice.step)}. Once this is off, ${notice.what.map((one) => name(one).toLowerCase()).join(", ")} can no longer be had.`;
    }
  };
  return (
    <div role="alert" className="border-warning mt-3 border-l-4 pl-3" data-notices={notices.length}>
      <ul className="text-lg font-semibold">
        {notices.map((notice) => (
          <li key={JSON.stringify(notice)} className="first-letter:uppercase">
            {words(notice)}
          </li>
        ))}
      </ul>
    </div>
  );
}
