import { useJobView } from "~/view/view";
import { undecidedBy } from "~core/book";

/** Says of an entry of the book that it may not be in this unit: which version it is, nobody has seen yet. */
export function Undecided({ entry }: { entry: unknown }) {
  const { applied } = useJobView();
  const traits = undecidedBy(entry, applied);
  if (traits.length === 0) return null;
  const { when = {} } = entry as { when?: Readonly<Record<string, readonly string[]>> };
  const words = traits.map(({ id, name, values }) => {
    const only = (when[id] ?? []).map((value) => values[value]?.name ?? value);
    return only.length > 0 ? `${name}: ${only.join(" or ")}` : name;
  });
  return (
    <span className="stamp border-accent mr-2 inline-block border-2 px-1.5" data-undecided>
      only if {words.join(", ")}
    </span>
  );
}
