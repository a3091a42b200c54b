import { Undecided } from "~/choose/undecided";
import { useInSight } from "~/look/use-in-sight";
import { Link } from "react-router";
import type { Build, BuildStep } from "~core/build";

const MARKS: Readonly<Record<BuildStep["at"], { sign: string; words: string; tone: string }>> = {
  done: { sign: "✓", words: "done", tone: "text-success" },
  skipped: { sign: "↷", words: "skipped", tone: "quiet" },
  unproven: { sign: "!", words: "something of it is open", tone: "text-error" },
  next: { sign: "▶", words: "next", tone: "text-primary" },
  waits: { sign: "…", words: "waits", tone: "text-warning" },
  ahead: { sign: "·", words: "to do", tone: "quiet" },
};

/** Every step, under the sub-assembly it belongs to: those of different ones are done in any order, by whoever has a hand free. */
export function BuildList({ build: { steps }, shown }: { build: Build; shown: string }) {
  const list = useInSight<HTMLElement>(shown);
  const subs = steps.reduce<{ name: string; steps: BuildStep[] }[]>((groups, one) => {
    const name = one.step.sub ?? "";
    const known = groups.find((group) => group.name === name);
    if (known) known.steps.push(one);
    else groups.push({ name, steps: [one] });
    return groups;
  }, []);
  return (
    <nav
      ref={list}
      aria-label="Steps"
      className="plate max-h-[calc(100dvh-13rem)] overflow-y-auto"
      tabIndex={0}
    >
      {subs.map(({ name, steps: of }) => (
        <section key={of[0]?.step.id} aria-label={name || "Steps"}>
          {name && (
            <h2 className="stamp bg-base-200 border-base-300 flex border-b px-3 py-1">
              <span className="grow">{name}</span>
              <span className="quiet">
                {of.filter(({ at }) => at === "done" || at === "skipped").length} of {of.length}
              </span>
            </h2>
          )}
          <ol>
            {of.map((one) => (
              <Row key={one.step.id} one={one} isShown={one.step.id === shown} />
            ))}
          </ol>
        </section>
      ))}
    </nav>
  );
}

function Row({ one: { step, at, fact, waits, reopened }, isShown }: { one: BuildStep; isShown: boolean }) {
  const settled = at === "done" || at === "skipped";
  return (
    <li data-step={step.id} data-at={at}>
      <Link
        to={`?step=${step.id}`}
        replace
        preventScrollReset
        aria-current={isShown ? "step" : undefined}
        className={`touch border-base-300 flex items-center gap-2 border-b px-2 leading-tight ${
          isShown ? "bg-base-200 outline-primary -outline-offset-3 outline-3" : ""
        }`}
      >
        <b className={`w-6 shrink-0 text-center text-xl ${MARKS[at].tone}`} aria-hidden="true">
          {MARKS[at].sign}
        </b>
        <span className={`grow ${settled ? "quiet" : "font-semibold"}`}>
          {step.name}
          <Undecided entry={step} />
          <span className="sr-only">, {MARKS[at].words}</span>
          {!settled && (reopened ?? waits.length > 0) && (
            <span className="quiet block text-sm font-normal">
              {reopened ? "opened again" : `waits for ${waits[0]?.name ?? ""}`}
            </span>
          )}
        </span>
        {fact && settled && <span className="quiet text-sm whitespace-nowrap">{fact.by}</span>}
      </Link>
    </li>
  );
}
