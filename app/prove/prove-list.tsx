import { useInSight } from "~/look/use-in-sight";
import { Link } from "react-router";
import { useJobView } from "~/view/view";
import { isBehind, lineKey, type Group, type Line } from "./groups";

const MARKS = {
  done: { sign: "✓", words: "done", tone: "text-success" },
  going: { sign: "▶", words: "going on", tone: "text-primary" },
  "not so": { sign: "✕", words: "not so", tone: "text-error" },
  open: { sign: "○", words: "to do", tone: "quiet" },
  signed: { sign: "✎", words: "signed", tone: "text-warning" },
} as const;

/** Everything to be proven, in its order; each a touch away. */
export function ProveList({ groups, shown }: { groups: readonly Group[]; shown: string }) {
  const list = useInSight<HTMLElement>(shown);
  return (
    <nav
      ref={list}
      aria-label="To prove"
      className="plate max-h-[calc(100dvh-10rem)] overflow-y-auto"
      tabIndex={0}
    >
      {groups.map(({ name, lines }) => (
        <section key={name} aria-label={name}>
          <h2 className="stamp bg-base-200 border-base-300 flex border-b px-3 py-1">
            <span className="grow">{name}</span>
            <span className="quiet">
              {lines.filter(isBehind).length} of {lines.length}
            </span>
          </h2>
          <ul>
            {lines.map((line) => (
              <Row key={lineKey(line)} line={line} isShown={lineKey(line) === shown} />
            ))}
          </ul>
        </section>
      ))}
    </nav>
  );
}

function Row({ line, isShown }: { line: Line; isShown: boolean }) {
  const settled = isBehind(line);
  const { job } = useJobView();
  const signed =
    line.kind === "item"
      ? line.item.at === "done"
        ? null
        : line.item.signed
      : settled
        ? null
        : (job.signOffs.get(`build ${line.step.step.id}`) ?? null);
  const at = signed
    ? "signed"
    : settled
      ? "done"
      : line.kind === "item"
        ? line.item.at
        : line.step.at === "unproven"
          ? "not so"
          : "open";
  const name = line.kind === "step" ? line.step.step.name : line.item.name;
  const by = signed?.body.signedBy ?? (line.kind === "step" ? line.step.fact : line.item.fact)?.by;
  const words = line.kind === "item" && (at === "going" || at === "not so") ? line.item.words : "";
  return (
    <li data-line={lineKey(line)} data-at={at}>
      <Link
        to={`?item=${lineKey(line)}`}
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
          <span className="block first-letter:uppercase">{name}</span>
          <span className="sr-only">, {MARKS[at].words}</span>
          {words && <span className="quiet block text-sm font-normal">{words}</span>}
        </span>
        {settled && by && <span className="quiet text-sm whitespace-nowrap">{by}</span>}
      </Link>
    </li>
  );
}
