import { Download } from "lucide-react";
import { useMemo } from "react";
import { useFetcher } from "react-router";
import { useInside } from "~/door/inside";
import { RENEW } from "~/say/form";
import { SayForm } from "~/say/say-form";
import { useJobView } from "~/view/view";
import { Field } from "~/look/field";
import type { Option, Worth } from "~core/inspect";
import { LEADS, WAYS_ON } from "~core/fact";
import { moneyText } from "~core/quantity";
import { percent, toldOf, WAY_NAMES, worthOf } from "./worth-of";

/** Rebuild, a reconditioned or a used unit: what each costs with its risk, for the lead to decide and the customer to see. */
export function RebuildOrReplace({ prices }: { prices: readonly (readonly [string, number])[] }) {
  const { job, applied, number } = useJobView();
  const { house, staff } = useInside();
  const lead = LEADS.includes(staff.role);
  const { options, best, breakEven, needs, known, unseen, hours } = useMemo(
    () => worthOf(job, applied, house, prices),
    [job, applied, house, prices],
  );
  const chosen = job.wayOn;
  return (
    <section className="plate p-4" aria-label="Rebuild or replace">
      <h2 className="text-2xl font-bold">Rebuild or replace</h2>
      {chosen && (
        <p className="text-lg" data-way={chosen.body.way}>
          <b>{WAY_NAMES[chosen.body.way]}</b>, says {chosen.by}: {chosen.body.reason}
        </p>
      )}
      <div className="overflow-x-auto">
        <table className="mt-1 w-full">
          <thead>
            <tr className="stamp quiet text-left">
              {["Way", "Parts or unit", "Work", "Comeback", "Expected"].map((words) => (
                <th key={words} scope="col" className="pr-4 pb-1">
                  {words}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {options.map((option) => (
              <Line key={option.way} option={option} best={best?.way === option.way} unseen={unseen} />
            ))}
          </tbody>
        </table>
      </div>
      {breakEven !== null && (
        <p className="mt-1" data-break-even>
          The rebuild stays cheaper while its chance of a comeback is below <b>{percent(breakEven)}</b>.
        </p>
      )}
      <p className="quiet text-sm">
        The book gives {hours} h for what is left to do. An hour {moneyText(house.hourCents)}, a comeback{" "}
        {moneyText(house.comebackCents)} (House). Risks are guesses until somebody writes their own.
      </p>
      <Needs needs={needs} known={known} />
      <a className="btn touch mt-2" href={`/jobs/${number}/ways.pdf`} download>
        <Download size={20} aria-hidden="true" /> For the customer
      </a>
      {!job.closed && (
        <details className="mt-2">
          <summary className="touch flex cursor-pointer items-center underline underline-offset-4">
            Write an offer
          </summary>
          <SayForm kind="offer" className="grid grid-cols-3 gap-x-3">
            {(problems) => (
              <>
                <Field
                  label="Price"
                  name="cents"
                  inputMode="decimal"
                  problem={problems.cents}
                  autoComplete="off"
                />
                <Field
                  label="Hours"
                  name="hours"
                  inputMode="decimal"
                  problem={problems.hours}
                  autoComplete="off"
                />
                <Field
                  label="Comeback, %"
                  name="risk"
                  inputMode="decimal"
                  problem={problems.risk}
                  autoComplete="off"
                />
                <OtherUnit problems={problems} />
                <span className="col-span-3 flex flex-wrap gap-2">
                  {WAYS_ON.codes.map((way) => (
                    <button key={way} name="way" value={way} className="btn touch">
                      {WAY_NAMES[way]}
                    </button>
                  ))}
                </span>
              </>
            )}
          </SayForm>
        </details>
      )}
      {!job.closed && lead && (
        <SayForm kind="way-on" className="border-base-300 mt-2 flex flex-wrap items-end gap-2 border-t pt-2">
          {(problems) => (
            <>
              <div className="w-full">
                <Field label="Decide, because" name="reason" problem={problems.reason} autoComplete="off" />
              </div>
              {WAYS_ON.codes.map((way) => (
                <button key={way} name="way" value={way} className="btn touch">
                  {WAY_NAMES[way]}
                </button>
              ))}
            </>
          )}
        </SayForm>
      )}
      {!job.closed && !lead && <p className="quiet mt-1">A lead decides.</p>}
    </section>
  );
}

/** What is told of another unit that is offered, and what is renewed before it goes in. */
function OtherUnit({ problems }: { problems: Readonly<Record<string, string>> }) {
  const { applied } = useJobView();
  const cheap = applied.scoped.parts.filter(({ kind }) => RENEWED.has(kind ?? ""));
  return (
    <details className="col-span-3">
      <summary className="touch flex cursor-pointer items-center underline underline-offset-4">
        Of another unit: where from, how far it ran
      </summary>
      <div className="grid grid-cols-2 gap-x-3">
        {OF_UNIT.map(({ name, label, placeholder }) => (
          <Field
            key={name}
            label={label}
            name={name}
            placeholder={placeholder}
            problem={problems[name]}
            autoComplete="off"
          />
        ))}
      </div>
      <fieldset className="mb-3">
        <legend className="stamp mb-1">Renewed before it goes in</legend>
        <div className="flex flex-wrap gap-1">
          {cheap.map(({ id, name }) => (
            <label key={id} className="btn touch has-checked:btn-secondary px-3 has-focus-visible:outline-2">
              <input type="checkbox" name={`${RENEW}${id}`} className="sr-only" /> {name}
            </label>
          ))}
        </div>
      </fieldset>
    </details>
  );
}

const OF_UNIT = [
  { name: "source", label: "Where from", placeholder: "a dismantler, a colleague" },
  { name: "distance", label: "How far it ran", placeholder: "92 000 km" },
  { name: "grade", label: "Its grade", placeholder: "A, B" },
  { name: "warranty", label: "Warranty", placeholder: "3 months" },
] as const;
/** Kinds that are renewed on a unit that is not opened. */
const RENEWED: ReadonlySet<string> = new Set(["seal", "O-ring", "filter", "gasket", "converter", "cooler"]);

/** Why a rebuild has no price of the list. */
function unpriced(unseen: number): string {
  if (unseen === 0) return "its parts have no price yet";
  return unseen === 1 ? "1 part is not looked at yet" : `${unseen} parts are not looked at yet`;
}

function Line({
  option: { way, price, hours, risk, expected, from, fact },
  best,
  unseen,
}: {
  option: Option;
  best: boolean;
  unseen: number;
}) {
  return (
    <tr className="border-base-300 border-t text-lg" data-option={way}>
      <th scope="row" className="py-1.5 text-left">
        {WAY_NAMES[way]}
      </th>
      {from === null ? (
        <td colSpan={4} className="quiet">
          {way === "rebuild" ? `${hours} h of work; ${unpriced(unseen)}` : "no offer yet"}
        </td>
      ) : (
        <>
          <td>
            {moneyText(price)}
            <span className="quiet block text-sm">
              {from === "offer" ? ["offered", ...toldOf(fact)].join(", ") : "by the price list"}
            </span>
          </td>
          <td className="pr-3 whitespace-nowrap">{hours} h</td>
          <td>{percent(risk)}</td>
          <td>
            <b className={best ? "text-success" : ""}>{moneyText(expected)}</b>
            {best && <span className="text-success"> ✓ cheapest</span>}
          </td>
        </>
      )}
    </tr>
  );
}

/** What a rebuild needs new, each with its price; one that is missing can be typed where it is missed. */
function Needs({ needs, known }: Pick<Worth, "needs" | "known">) {
  const { staff } = useInside();
  if (needs.length === 0) return null;
  const open = needs.filter(({ cents }) => cents === null);
  return (
    <details className="border-base-300 mt-2 border-t pt-1" data-unpriced={open.length}>
      <summary className="touch flex cursor-pointer items-center underline underline-offset-4">
        {needs.length} parts must be new: {moneyText(known)}
        {open.length > 0 && `, ${open.length} without a price`}
      </summary>
      <ul>
        {[...open, ...needs.filter(({ cents }) => cents !== null)].map(({ part, number, count, cents }) => (
          <li
            key={number}
            className="border-base-300 flex items-center gap-3 border-t py-1"
            data-need={number}
          >
            <span className="grow leading-tight">
              {part}
              {count > 1 && ` × ${count}`}
              <span className="quiet block text-sm">{number}</span>
            </span>
            {cents !== null ? (
              <span className="figure">{moneyText(cents * count)}</span>
            ) : staff.role === "builder" ? (
              <span className="quiet">no price yet</span>
            ) : (
              <MissingPrice number={number} />
            )}
          </li>
        ))}
      </ul>
    </details>
  );
}

function MissingPrice({ number }: { number: string }) {
  const fetcher = useFetcher<{ problems: Record<string, string>; typed: Record<string, string> }>();
  const { problems = {}, typed = {} } = fetcher.data ?? {};
  const problem = problems.price ?? problems.supplier;
  return (
    <fetcher.Form
      method="post"
      action="/shelf/prices"
      className="flex flex-wrap items-center justify-end gap-1"
    >
      <input type="hidden" name="intent" value="one" />
      <input type="hidden" name="part" value={number} />
      <input
        name="supplier"
        aria-label={`Whose price of ${number}`}
        placeholder="whose"
        defaultValue={typed.supplier}
        className="input touch w-28"
      />
      <input
        name="price"
        inputMode="decimal"
        autoComplete="off"
        aria-label={`Price of ${number}, one`}
        aria-invalid={problem ? true : undefined}
        placeholder="one costs"
        defaultValue={typed.price}
        className={`input touch w-24 ${problem ? "input-error" : ""}`}
      />
      <button className="btn touch">Keep</button>
      {problem && (
        <p role="alert" className="text-error w-full text-right font-semibold">
          {problem}
        </p>
      )}
    </fetcher.Form>
  );
}
