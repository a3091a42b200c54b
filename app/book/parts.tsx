import { useMemo, useState } from "react";
import { partNameIn, reasonOf, wearKind, type Part } from "~core/book";
import { piecesOf } from "~core/pack";
import { useBookView } from "./book";

/** Assemblies with what belongs to them; what is one-time, always replaced, looks alike, and what another part brings along. */
export default function PartsPage() {
  const { applied } = useBookView();
  const { parts } = applied.present;
  const reached = useMemo(() => new Set(applied.scoped.parts.map(({ id }) => id)), [applied]);
  const [wanted, setWanted] = useState<"all" | "here" | "one-time" | "look-alikes">("here");
  const shows = (part: Part): boolean => {
    if (wanted === "all") return true;
    if (wanted === "here") return reached.has(part.id);
    return wanted === "one-time" ? Boolean(part.oneTime ?? part.always) : Boolean(part.lookAlikes);
  };
  const known = new Set(parts.map(({ id }) => id));
  const tree = wanted === "all" || wanted === "here";
  const roots = parts.filter((part) => shows(part) && (!tree || !part.of || !known.has(part.of)));
  // A look-alike may be of another version.
  const name = (id: string): string => partNameIn(applied.book, id);
  return (
    <section className="plate p-5">
      <div className="no-print mb-3 flex flex-wrap items-center gap-2" role="group" aria-label="Which parts">
        {(
          [
            ["here", "At this depth"],
            ["all", "All of this version"],
            ["one-time", "One-time and always new"],
            ["look-alikes", "Look-alikes"],
          ] as const
        ).map(([value, words]) => (
          <button
            key={value}
            type="button"
            aria-pressed={wanted === value}
            className={`btn touch ${wanted === value ? "btn-secondary" : ""}`}
            onClick={() => setWanted(value)}
          >
            {words}
          </button>
        ))}
        <span className="quiet">
          {parts.filter(shows).length} of {parts.length} parts
        </span>
      </div>
      <ul>
        {roots.map((part) => (
          <li key={part.id}>
            <PartLine part={part} name={name} />
            {tree && (
              <ul className="border-base-300 ml-3 border-l-2 pl-5">
                {parts
                  .filter((child) => child.of === part.id && shows(child))
                  .map((child) => (
                    <li key={child.id}>
                      <PartLine part={child} name={name} />
                    </li>
                  ))}
              </ul>
            )}
          </li>
        ))}
      </ul>
      {roots.length === 0 && <p className="text-lg">None of these in this version.</p>}
    </section>
  );
}

function PartLine({ part, name }: { part: Part; name: (id: string) => string }) {
  const { applied, book } = useBookView();
  const count = piecesOf(applied.present.packs, part);
  const notes = [
    part.always && `always new: ${reasonOf(book, part.always).words}`,
    part.sold && `sold ${part.sold}`,
    part.heldBy && `after ${part.heldBy.map((id) => name(id).replaceAll("-", " ")).join(", ")}`,
    part.good && `good: ${part.good}`,
    part.apart && `stays whole: ${part.apart}`,
    ...(part.then ?? []).map(({ part: other, look }) => `worn: look at ${name(other)}, ${look}`),
    ...Object.entries(part.sets ?? {}).map(([trait, value]) => {
      const of = book.traits.find(({ id }) => id === trait);
      return `fitting it makes the unit: ${of?.values[value]?.name ?? value}`;
    }),
    ...(part.lookAlikes ?? []).map(({ part: other, tell }) => `looks like ${name(other)}; this one: ${tell}`),
    ...(part.instead ?? []).map(({ number, brings }) => `${number} fits instead and brings: ${brings}`),
  ].filter(Boolean);
  return (
    <div
      id={`part-${part.id}`}
      className="border-base-300 grid grid-cols-[minmax(0,5fr)_minmax(0,6fr)_7rem] items-baseline gap-4 border-t py-1.5 target:outline-3"
    >
      <span>
        <span className="text-lg font-semibold first-letter:uppercase">{part.name}</span>
        {count > 1 && <span className="quiet"> × {count}</span>}
        {part.oneTime && <span className="stamp border-accent ml-2 border-2 px-1.5">one-time</span>}
        {part.kit && <span className="quiet block text-sm">in: {part.kit.join(", ")}</span>}
      </span>
      <span>
        {part.wear && (
          <span className="block">{part.wear.map((wear) => wearKind(book, wear).name).join(", ")}</span>
        )}
        {notes.map((note) => (
          <span key={note as string} className="quiet block text-sm">
            {note}
          </span>
        ))}
      </span>
      <span className="figure text-right">{part.number}</span>
    </div>
  );
}
