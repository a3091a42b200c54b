import { figuresFrom } from "~/look/source";
import { useWhen } from "~/door/when";
import { useInside } from "~/door/inside";
import { useMemo } from "react";
import { useJobView } from "~/view/view";
import { recordOf, type RecordLine } from "~core/build";
import { houseOf, specLines } from "~core/measure";
import { provenRecord } from "~core/prove";
import type { Route } from "./+types/as-built";
import { useBuild } from "./use-build";

export const meta: Route.MetaFunction = ({ params }) => [{ title: `As built ${params.number} · Yard Key` }];

/** What was built, step by step, with who and when: nothing of it can be changed, what was corrected shows that it was. */
export default function AsBuilt() {
  const { job, applied, unit, number } = useJobView();
  const { house } = useInside();
  const build = useBuild();
  const steps = useMemo(
    () => [
      ...recordOf(job, applied, build, specLines(job, applied, houseOf(job, house), unit), unit).steps,
      ...provenRecord(job, applied),
    ],
    [job, applied, build, house, unit],
  );
  const told = steps.filter(({ lines }) => lines.length > 0);
  return (
    <section className="plate p-4" aria-label="As built">
      <div className="flex flex-wrap items-center gap-3">
        <h1 className="grow text-2xl font-bold">
          As built{" "}
          <span className="quiet text-base font-normal">
            {build.done} of {build.steps.length} steps
          </span>
        </h1>
        <a className="btn touch no-print" href={`/jobs/${number}/as-built.pdf`}>
          PDF
        </a>
        <a className="btn touch no-print" href={`/jobs/${number}/as-built.json`}>
          JSON
        </a>
      </div>
      {told.length === 0 && <p className="mt-2 text-lg">Nothing is built yet.</p>}
      {told.map(({ step, name, sub, at, lines }) => (
        <section
          key={step}
          className="border-base-300 mt-3 border-t-2 pt-2"
          aria-label={name}
          data-built={step}
        >
          <h2 className="text-lg font-bold">
            {name} {sub && <span className="stamp quiet ml-2">{sub}</span>}
            {at === "unproven" && <span className="text-error ml-2">something of it is open</span>}
          </h2>
          <table className="w-full table-fixed">
            <tbody>
              {lines.map((line, i) => (
                <Line key={i} line={line} />
              ))}
            </tbody>
          </table>
        </section>
      ))}
      <p className="quiet mt-3 text-sm">
        {figuresFrom(applied.book)}; the maker’s service information comes first.
      </p>
    </section>
  );
}

const TONES: Readonly<Partial<Record<RecordLine["kind"], string>>> = {
  undone: "text-warning font-semibold",
  otherwise: "text-warning font-semibold",
  skipped: "text-warning font-semibold",
};
const WORDS: Readonly<Partial<Record<RecordLine["kind"], string>>> = {
  done: "done",
  skipped: "skipped",
  undone: "taken back",
  otherwise: "otherwise",
  new: "new part",
  soak: "stands",
  torque: "torque",
  check: "seen to",
  air: "air",
  figure: "figure",
  procedure: "run",
  fluid: "fluid",
  learned: "learned",
  driven: "driven",
};

function Line({ line: { kind, what, said, against, by, at } }: { line: RecordLine }) {
  const { short } = useWhen();
  const isTick = kind === "done" || kind === "skipped" || kind === "undone";
  return (
    <tr className={`border-base-300 border-t align-top ${TONES[kind] ?? ""}`} data-line={kind}>
      <td className="stamp quiet w-28 py-1 pr-3">{WORDS[kind]}</td>
      <td className="py-1 pr-3">
        <span className="first-letter:uppercase">{isTick ? said : what}</span>
        {against && <span className="quiet block text-sm">{against}</span>}
      </td>
      <td className="w-80 py-1 pr-3 font-semibold">{isTick ? "" : said}</td>
      <td className="quiet w-44 py-1 text-right text-sm whitespace-nowrap">
        {by}, {short(at)}
      </td>
    </tr>
  );
}
