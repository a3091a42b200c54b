import { useWhen } from "~/door/when";
import { useJobView } from "~/view/view";
import { useSay } from "~/say/use-say";
import type { CleaningStep } from "~core/fact";

/** Where metal hides in this unit, and the passages fluid takes: cleaned one by one, and recorded. */
export function Traps() {
  const { applied } = useJobView();
  const { traps = [], lubrication = [], airChecks = [] } = applied.scoped;
  const passages = [
    ...lubrication.map(({ id, from, to, through, closedBy }) => ({
      thing: `passage:${id}`,
      name: `${from} to ${to}`,
      did: "passages-blown" as const,
      how: `${through.join(", ")}; closed unseen by ${closedBy}`,
    })),
    ...airChecks.map(({ element, port }) => ({
      thing: `port:${element}`,
      name: `${element.toUpperCase()} feed`,
      did: "passages-blown" as const,
      how: port,
    })),
  ];
  return (
    <>
      <OneByOne
        name="Where metal hides"
        done="clean"
        list={traps.map(({ id, where, how }) => ({
          thing: `trap:${id}`,
          name: where,
          how,
          did: "flushed" as const,
        }))}
      />
      <OneByOne name="Passages" done="blown" list={passages} />
    </>
  );
}

/** Places that no part stands for, each ticked by itself with who and when; nothing of a list that is empty. */
function OneByOne({
  name,
  done,
  list,
}: {
  name: string;
  done: string;
  list: readonly { thing: string; name: string; how: string; did: CleaningStep }[];
}) {
  const { short } = useWhen();
  const { job } = useJobView();
  const say = useSay();
  const { cleaning } = job;
  if (list.length === 0) return null;
  const left = list.filter(({ thing }) => cleaning.get(thing)?.body.state !== "clean").length;
  return (
    <section className="plate px-4 py-3" aria-label={name}>
      <h2 className="text-xl font-bold">
        {name}{" "}
        <span className="quiet text-base font-normal">{left === 0 ? `all ${done}` : `${left} to go`}</span>
      </h2>
      <ul>
        {list.map(({ thing, name: where, how, did }) => {
          const fact = cleaning.get(thing);
          const clean = fact?.body.state === "clean";
          return (
            <li
              key={thing}
              className="border-base-300 flex items-center gap-3 border-t py-1.5"
              data-place={thing}
            >
              <span className="grow leading-tight">
                <b className="block first-letter:uppercase">{where}</b>
                <span className="quiet block text-sm">
                  {how}
                  {clean && fact && `; ${fact.by}, ${short(fact.at)}`}
                </span>
              </span>
              <button
                type="button"
                disabled={job.closed !== null}
                aria-pressed={clean}
                aria-label={`${where}: ${done}`}
                className={`btn touch ${clean ? "btn-primary" : ""}`}
                onClick={() =>
                  say({
                    kind: "cleaning",
                    things: [thing],
                    state: clean ? "dirty" : "clean",
                    did: clean ? [] : [did],
                  })
                }
              >
                {clean ? `✓ ${done}` : done}
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
