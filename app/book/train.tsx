import { useMemo, useState } from "react";
import { OUTSIDE, type Element, type Range } from "~core/book";
import { baseOfTrain, behave, ratioText, solveRanges, type Behaviour, type SolvedRange } from "~core/gears";
import { toDecimal, type Rational } from "~core/quantity";
import { TrainDrawing } from "~/look/train-drawing";
import { trainLines } from "~/look/train-lines";
import { useBookView } from "./book";

const speedText = (speed: Rational | null | undefined): string =>
  speed ? toDecimal(speed, 3).figure : "free";

/** What each element does, and the chart that goes with it; touch elements to try what the unit would do. */
export default function TrainPage() {
  const { applied } = useBookView();
  const unit = applied.present;
  const [touched, setTouched] = useState<ReadonlySet<string>>(new Set());
  const base = useMemo(() => baseOfTrain(unit), [unit]);
  const solved = useMemo(() => solveRanges(unit), [unit]);
  const now = useMemo(() => behave(unit, [...touched], base), [unit, touched, base]);
  const tried = unit.elements.filter(({ outside }) => !outside);
  const [shown, setShown] = useState<string | null>(null);
  const picked = solved.find(({ range }) => range.id === shown) ?? null;
  const applies = (range: Range): void => {
    setShown(range.id);
    setTouched(
      new Set(
        range.applied.filter((id) => unit.elements.some((e) => e.id === id && e.kind !== "one-way clutch")),
      ),
    );
  };
  return (
    <div className="grid grid-cols-[minmax(0,7fr)_minmax(0,4fr)] items-start gap-3">
      <div className="grid grid-cols-[minmax(0,1fr)] gap-3">
        <Chart tried={tried} solved={solved} shown={shown} onApply={applies} />
        <section className="plate p-4">
          <h2 className="text-xl font-bold">The train{shown !== null && ` in ${shown}`}</h2>
          <TrainDrawing
            lines={trainLines(unit, ["ranges", unit.ranges.findIndex(({ id }) => id === shown)])}
          />
        </section>
        <Elements />
      </div>
      <div className="grid gap-3">
        <section className="plate p-4">
          <h2 className="mb-2 text-xl font-bold">Try it: touch elements on and off</h2>
          <div className="mb-3 flex flex-wrap gap-2">
            {tried
              .filter(({ kind }) => kind !== "one-way clutch")
              .map((element) => (
                <button
                  key={element.id}
                  type="button"
                  aria-pressed={touched.has(element.id)}
                  className={`btn touch text-lg ${touched.has(element.id) ? "btn-secondary" : ""}`}
                  onClick={() => {
                    setShown(null);
                    setTouched(toggled(touched, element.id));
                  }}
                >
                  {shortName(element)}
                </button>
              ))}
          </div>
          <Outcome behaviour={now} ranges={unit.ranges} touched={touched} elements={unit.elements} />
        </section>
        <Speeds range={picked?.range.id} now={now} />
      </div>
    </div>
  );
}

/** Every range with what it applies, its ratio and the step from the one before. */
function Chart({
  tried,
  solved,
  shown,
  onApply,
}: {
  tried: readonly Element[];
  solved: readonly SolvedRange[];
  shown: string | null;
  onApply: (range: Range) => void;
}) {
  return (
    <section className="plate p-4">
      <h2 className="mb-2 text-xl font-bold">Apply chart</h2>
      <div className="overflow-x-auto">
        <table className="w-full text-center text-lg">
          <thead>
            <tr>
              <th scope="col" className="py-1 text-left">
                Range
              </th>
              {tried.map((element) => (
                <th
                  key={element.id}
                  scope="col"
                  className="px-1"
                  title={element.name ?? element.aka.join(", ")}
                >
                  {shortName(element)}
                </th>
              ))}
              <th scope="col" className="text-right">
                Ratio
              </th>
              <th scope="col" className="pl-4 text-right">
                Step
              </th>
            </tr>
          </thead>
          <tbody>
            {solved.map(({ range, behaviour }, i) => (
              <tr
                key={range.id}
                id={`range-${range.id}`}
                className={`border-base-300 border-t target:outline-2 ${range.id === shown ? "bg-base-200" : ""}`}
              >
                <th scope="row" className="text-left">
                  <button type="button" className="touch text-xl font-bold" onClick={() => onApply(range)}>
                    {range.id}
                  </button>
                </th>
                {tried.map(({ id }) => (
                  <td key={id}>
                    <Applied range={range} id={id} />
                  </td>
                ))}
                <td className="figure text-right">{behaviour.ratio ? ratioText(behaviour.ratio) : "none"}</td>
                <td className="quiet pl-4 text-right">{stepText(solved[i - 1]?.behaviour, behaviour)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="quiet mt-2 text-sm">
        ■ applied &nbsp; ▲ one-way clutch, holds by itself &nbsp; □ under engine braking only. Ratios are
        solved from the tooth counts. Touch a range to try it.
      </p>
    </section>
  );
}

/** What each element joins, and what else it is called. */
function Elements() {
  const { present } = useBookView().applied;
  return (
    <section className="plate p-4">
      <h2 className="mb-2 text-xl font-bold">Elements</h2>
      <ul className="grid grid-cols-2 gap-x-6">
        {present.elements.map((element) => (
          <li key={element.id} className="border-base-300 border-t py-1.5">
            <b>{shortName(element)}</b> {element.name ?? element.kind}
            {element.joins &&
              `: joins ${element.joins.map((member) => member.replaceAll("-", " ")).join(" and ")}`}
            {element.outside && `, outside the ranges: ${OUTSIDE[element.outside]}`}
            {element.servo && `. Servo: ${element.servo}`}
            <span className="quiet block text-sm">
              {[...element.aka, on(present.ranges, element.id)].filter(Boolean).join(" · ")}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** How fast everything turns for one turn of the input, and what is released slips by. */
function Speeds({ range, now }: { range: string | undefined; now: Behaviour }) {
  const { present } = useBookView().applied;
  return (
    <section className="plate p-4">
      <h2 className="mb-2 text-xl font-bold">
        {range === undefined ? "Speeds" : `Speeds in ${range}`}
        <span className="quiet ml-2 text-base font-normal">for one turn of the {present.train.input}</span>
      </h2>
      <div className="grid content-start gap-y-3">
        <table>
          <tbody>
            {present.members.map((member) => (
              <tr key={member} className="border-base-300 border-t">
                <th scope="row" className="py-0.5 text-left font-normal">
                  {member.replaceAll("-", " ")}
                </th>
                <td className="figure text-right">{speedText(now.speeds[member])}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <table>
          <caption className="stamp quiet text-left">Slip of what is released</caption>
          <tbody>
            {present.elements
              .filter(({ id }) => id in now.slips)
              .map((element) => (
                <tr key={element.id} className="border-base-300 border-t">
                  <th scope="row" className="py-0.5 text-left font-normal">
                    {shortName(element)}
                  </th>
                  <td className="figure text-right">{speedText(now.slips[element.id])}</td>
                </tr>
              ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

const on = (ranges: readonly Range[], id: string): string => {
  const used = ranges.filter(({ applied, braking = [] }) => applied.includes(id) || braking.includes(id));
  return used.length > 0 ? `on in ${used.map((range) => range.id).join(", ")}` : "in no range";
};

const shortName = ({ id }: Element): string => (id.length <= 3 ? id.toUpperCase() : id.replaceAll("-", " "));

const toggled = (set: ReadonlySet<string>, id: string): ReadonlySet<string> => {
  const next = new Set(set);
  if (!next.delete(id)) next.add(id);
  return next;
};

function Applied({ range, id }: { range: Range; id: string }) {
  const { applied } = useBookView();
  const oneWay = applied.present.elements.find((element) => element.id === id)?.kind === "one-way clutch";
  if (range.applied.includes(id))
    return (
      <span role="img" aria-label={oneWay ? "holds" : "applied"} className="text-xl">
        {oneWay ? "▲" : "■"}
      </span>
    );
  if (range.braking?.includes(id))
    return (
      <span role="img" aria-label="under engine braking" className="text-xl">
        □
      </span>
    );
  return null;
}

/** How far a ratio lies from the one before: what the engine drops by. */
function stepText(before: Behaviour | undefined, now: Behaviour): string {
  if (!before?.ratio || !now.ratio || before.ratio.n < 0n !== now.ratio.n < 0n) return "";
  const step = { n: before.ratio.n * now.ratio.d, d: before.ratio.d * now.ratio.n };
  return toDecimal(step, 2).figure;
}

const SAYS: Readonly<Record<Behaviour["kind"], string>> = {
  gear: "A gear",
  neutral: "Neutral",
  "tie-up": "Tie-up",
  "output held": "Output held",
};

function Outcome({
  behaviour,
  ranges,
  touched,
  elements,
}: {
  behaviour: Behaviour;
  ranges: readonly Range[];
  touched: ReadonlySet<string>;
  elements: readonly Element[];
}) {
  const working = new Set([...touched, ...behaviour.holding]);
  const range = ranges.find(
    ({ applied, braking = [] }) =>
      applied.every((id) => working.has(id)) &&
      [...touched].every((id) => [...applied, ...braking].includes(id)),
  );
  const name = (id: string): string => {
    const element = elements.find((one) => one.id === id);
    return element ? shortName(element) : id;
  };
  return (
    <div role="status">
      <p className="text-3xl font-bold">
        {SAYS[behaviour.kind]}
        {behaviour.ratio && `: ${ratioText(behaviour.ratio)}`}
        {range && behaviour.kind === "gear" && `, range ${range.id}`}
      </p>
      <p className="text-lg">
        {behaviour.kind === "neutral" && `The output is not driven; ${behaviour.freedom} motions are free.`}
        {behaviour.kind === "tie-up" && "The input cannot turn."}
        {behaviour.kind === "output held" && "The input turns, the output cannot."}
        {behaviour.kind === "gear" && !range && "No listed range has these."}
        {behaviour.holding.length > 0 && ` ${behaviour.holding.map(name).join(" and ")} holds by itself.`}
        {behaviour.fighting.length > 0 &&
          ` ${behaviour.fighting.map(name).join(" and ")} would have to turn the way it cannot.`}
      </p>
    </div>
  );
}
