import { useWhen } from "~/door/when";
import { MATCH_MARKS } from "~core/fact";
import { useDraggable, useDroppable } from "@dnd-kit/core";
import type { Book } from "~core/book";
import type { Bolts, Thing } from "~core/steps";
import { useAnchor } from "~/look/use-scripted";

const STATE: Readonly<Record<Thing["state"], string>> = {
  dirty: "",
  masked: "masked",
  clean: "clean",
  bagged: "bagged",
  opened: "",
};

/** A tray with what lies in it, in the order it was laid there; parts are dropped on it. */
export function PlaceCard({
  id,
  title,
  sort,
  things,
  bolts = [],
  picked,
  onPick,
  unit,
  tone,
  quiet = false,
  still = false,
}: {
  id: string;
  title: string;
  sort?: string;
  things: readonly Thing[];
  bolts?: readonly Bolts[];
  picked: readonly string[];
  onPick: (thing: string) => void;
  unit: Book;
  tone?: "bad";
  /** What is still in the unit: folded away. */
  quiet?: boolean;
  /** Nothing can be laid here. */
  still?: boolean;
}) {
  const { setNodeRef, isOver } = useDroppable({ id, disabled: still });
  // A scanned label opened it.
  const asked = useAnchor() === `place-${id}`;
  // What lies with its assembly is named with it: one line for the drum, not ten.
  const here = new Set(things.map(({ part }) => part.id));
  const heads = things.filter(({ part }) => part.of === undefined || !here.has(part.of));
  const within = (head: Thing): Thing[] =>
    things.filter(({ part }) => rootOf(unit, part.id, here) === head.part.id && part.id !== head.part.id);
  const list = (
    <ul className="flex flex-col gap-1">
      {heads.map((thing, i) => (
        <Chip
          key={thing.part.id}
          order={i + 1}
          thing={thing}
          within={within(thing)}
          picked={picked.includes(thing.part.id)}
          onPick={onPick}
        />
      ))}
      {bolts.map(({ group, name, placesOut, count }) => (
        <li key={group} className="quiet px-2">
          {name}: {placesOut.length} of {count}
        </li>
      ))}
    </ul>
  );
  return (
    <section
      ref={setNodeRef}
      aria-label={title}
      data-place={id}
      id={`place-${id}`}
      className={`plate px-3 py-2 ${isOver || asked ? "outline-primary outline-4" : ""} ${tone === "bad" ? "border-error border-2" : ""}`}
    >
      <h2 className="mb-1 flex items-baseline gap-2 text-xl font-bold">
        {title}
        <span className="quiet text-base font-normal">
          {sort && `${sort}, `}
          {heads.length}
        </span>
      </h2>
      {quiet ? (
        <details>
          <summary className="touch quiet flex cursor-pointer items-center underline underline-offset-4">
            Show them
          </summary>
          {list}
        </details>
      ) : heads.length + bolts.length === 0 ? (
        <p className="quiet">Empty.</p>
      ) : (
        list
      )}
    </section>
  );
}

/** The assembly a part lies here with: the uppermost one that is here too. */
function rootOf(unit: Book, id: string, here: ReadonlySet<string>): string {
  const of = unit.parts.find((part) => part.id === id)?.of;
  return of !== undefined && here.has(of) ? rootOf(unit, of, here) : id;
}

function Chip({
  order,
  thing: { part, howItSat, moved, state },
  within,
  picked,
  onPick,
}: {
  /** When it was laid there: 1 came first. */
  order: number;
  thing: Thing;
  within: readonly Thing[];
  picked: boolean;
  onPick: (thing: string) => void;
}) {
  const { short } = useWhen();
  const { attributes, listeners, setNodeRef, isDragging } = useDraggable({ id: part.id });
  return (
    <li>
      <button
        ref={setNodeRef}
        type="button"
        {...attributes}
        {...listeners}
        role="checkbox"
        aria-checked={picked}
        data-thing={part.id}
        className={`touch w-full rounded border-2 px-3 py-1 text-left leading-tight ${
          picked ? "border-primary bg-base-200" : "border-base-300"
        } ${isDragging ? "outline-accent opacity-50 outline-3" : ""}`}
        onClick={() => onPick(part.id)}
      >
        <span className="flex items-baseline gap-2">
          <span className="figure quiet min-w-5 text-right" aria-hidden="true">
            {order}
          </span>
          <b>{part.name}</b>
          {STATE[state] && <span className="text-success text-sm font-bold">✓ {STATE[state]}</span>}
          {state === "opened" && <span className="text-warning text-sm font-bold">opened: dirty again</span>}
        </span>
        <span className="quiet block pl-7 text-sm">
          {[
            howItSat?.body.way ?? "",
            howItSat && howItSat.body.mark !== "needs-none" ? MATCH_MARKS.words[howItSat.body.mark] : "",
            moved ? `${moved.by}, ${short(moved.at)}` : "",
          ]
            .filter(Boolean)
            .join(" · ")}
        </span>
        {within.length > 0 && (
          <span className="quiet block pl-7 text-sm">
            with {within.map(({ part: inner }) => inner.name).join(", ")}
          </span>
        )}
      </button>
    </li>
  );
}
