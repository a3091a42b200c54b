import { Undecided } from "~/choose/undecided";
import { SEVERITIES } from "~core/fact";
import { Check } from "lucide-react";
import { Link, useSearchParams } from "react-router";
import { useJobView } from "~/view/view";
import { workedOut } from "~/view/worked-out";
import { useSay } from "~/say/use-say";
import { useKeys } from "~/look/use-keys";
import { piecesOf } from "~core/pack";
import { wearKind, stationOf } from "~core/book";
import { becomesWord, dispositions, metalEverywhere, unlooked, type PartState } from "~core/inspect";
import { ruleOf } from "~core/measure";
import type { Route } from "./+types/inspect";
import { PartPanel } from "./part-panel";
import { TONES } from "./tones";

export const meta: Route.MetaFunction = ({ params }) => [{ title: `Inspect ${params.number} · Yard Key` }];

const partsIn = workedOut(({ job, applied, house }) => {
  const states = dispositions(job, applied, house, ruleOf(job, house));
  return { states, groups: groupsOf(states, applied.present) };
});

/** Every part by where it sits: good in one touch, worn in two, and what becomes of it with the reason. */
export default function Inspect() {
  const view = useJobView();
  const { job, number } = view;
  const say = useSay();
  const [search, setSearch] = useSearchParams();
  const { states, groups } = partsIn(view);
  const left = unlooked(states).length;
  const first = groups.find(({ parts }) => unlooked(parts).length > 0) ?? groups[0];
  // A part alone says where it sits.
  const wanted =
    search.get("at") ??
    groups.find(({ parts }) => parts.some(({ part }) => part.id === search.get("part")))?.id;
  const group = groups.find(({ id }) => id === wanted) ?? first;
  const chosen = group?.parts.find(({ part }) => part.id === search.get("part")) ?? group?.parts[0];
  const metal = metalEverywhere(job);
  const open = (part: string): void =>
    setSearch({ at: group?.id ?? "", part }, { replace: true, preventScrollReset: true });
  const allGood = (): void => {
    const parts = unlooked(group?.parts ?? []).map(({ part }) => part.id);
    if (parts.length > 0) say({ kind: "good", parts });
  };
  const step = (by: number): void => {
    const list = group?.parts ?? [];
    const next = list[list.findIndex(({ part }) => part.id === chosen?.part.id) + by];
    if (next) open(next.part.id);
  };
  const goodOne = (): void => {
    if (chosen) say({ kind: "good", parts: [chosen.part.id] });
    step(1);
  };
  useKeys(job.closed ? {} : { a: allGood, o: goodOne, j: () => step(1), k: () => step(-1) });
  if (!group || !chosen) return <p className="plate p-5 text-xl">The book names no part at this depth.</p>;
  const todo = unlooked(group.parts).length;
  return (
    <>
      {metal && (
        <p role="alert" className="text-error mb-1 text-lg font-bold" data-metal>
          {metal}: converter, cooler and filters go.{" "}
          <Link to={`/jobs/${number}/cause`} className="underline underline-offset-4">
            Is the unit worth it?
          </Link>
        </p>
      )}
      <div className="grid grid-cols-[9.5rem_minmax(0,5fr)_minmax(0,6fr)] items-start gap-3">
        <nav aria-label="Where parts sit" className="grid gap-0.5">
          <p className="px-3 pb-1 leading-tight" data-left={left}>
            {left === 0 ? (
              <b>Every part is looked at</b>
            ) : (
              <>
                <b className="text-xl">
                  {left} of {states.length}
                </b>
                <span className="block text-sm">still to look at</span>
              </>
            )}
          </p>
          {groups.map(({ id, name, parts }) => {
            const open = unlooked(parts).length;
            return (
              <Link
                key={id}
                to={`?at=${id}`}
                replace
                preventScrollReset
                aria-current={id === group.id ? "true" : undefined}
                className={`touch flex items-center justify-between gap-2 rounded px-3 font-semibold ${id === group.id ? "bg-secondary text-secondary-content" : ""}`}
              >
                {name}{" "}
                {open === 0 ? (
                  <Check size={18} aria-label="all looked at" />
                ) : (
                  <span className="text-sm font-normal">{open}</span>
                )}
              </Link>
            );
          })}
        </nav>
        <section className="plate p-3" aria-label={`Parts: ${group.name}`}>
          {!job.closed && todo > 0 && (
            <button type="button" className="btn btn-primary btn-lg touch mb-1 w-full" onClick={allGood}>
              All {todo} in good order <kbd className="key">a</kbd>
            </button>
          )}
          <ul>
            {group.parts.map((state) => (
              <InspectedPart
                key={state.part.id}
                state={state}
                chosen={state.part.id === chosen.part.id}
                closed={job.closed !== null}
                onOpen={() => open(state.part.id)}
                onGood={() => say({ kind: "good", parts: [state.part.id] })}
              />
            ))}
          </ul>
        </section>
        <PartPanel key={chosen.part.id} state={chosen} />
      </div>
    </>
  );
}

function InspectedPart({
  state: { part, is, decided, good, findings, because },
  chosen,
  closed,
  onOpen,
  onGood,
}: {
  state: PartState;
  chosen: boolean;
  closed: boolean;
  onOpen: () => void;
  onGood: () => void;
}) {
  const { applied } = useJobView();
  const pieces = piecesOf(applied.present.packs, part);
  const worn = findings
    .map(({ body: { wear, severity, sure } }) => {
      const { name } = wearKind(applied.present, wear);
      return sure ? `${name}, ${SEVERITIES.words[severity]}` : `${name}?`;
    })
    .join("; ");
  return (
    <li
      className="border-base-300 flex items-center gap-2 border-t py-1"
      data-inspect={part.id}
      data-is={is ?? ""}
    >
      <button
        type="button"
        aria-pressed={chosen}
        className={`touch grow rounded px-2 text-left leading-tight ${chosen ? "bg-base-200 outline-primary outline-2" : ""}`}
        onClick={onOpen}
      >
        <b>{part.name}</b>
        {pieces > 1 && ` × ${pieces}`}
        <Undecided entry={part} />
        <span className="quiet block text-sm">{worn || because[0]?.words || "not looked at yet"}</span>
      </button>
      {is && (
        <span className={`stamp shrink-0 ${TONES[is]}`}>
          {becomesWord(is, part)}
          {decided && " !"}
        </span>
      )}
      {!closed && (
        <button
          type="button"
          aria-label={`${part.name}: in good order`}
          aria-pressed={good}
          className={`btn touch px-3 ${good ? "btn-primary" : ""}`}
          onClick={onGood}
        >
          <Check size={20} /> good
        </button>
      )}
    </li>
  );
}

interface Group {
  id: string;
  name: string;
  parts: PartState[];
}

/** Parts by station, front first; what sits at none comes last. */
function groupsOf(
  states: readonly PartState[],
  {
    stations,
    parts,
  }: { stations: readonly { id: string; name: string }[]; parts: readonly PartState["part"][] },
): Group[] {
  const at = (id: string | undefined): PartState[] =>
    states.filter(({ part }) => stationOf(parts, part) === id);
  return [
    ...stations.map(({ id, name }) => ({ id, name, parts: at(id) })),
    { id: "elsewhere", name: "the rest", parts: at(undefined) },
  ].filter((group) => group.parts.length > 0);
}
