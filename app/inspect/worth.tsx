import { useMemo } from "react";
import { useInside } from "~/door/inside";
import { SayForm } from "~/intake/say-form";
import { useJobView } from "~/job/job";
import { Field } from "~/look/field";
import { dispositions, metalEverywhere, worth, type Option } from "~core/inspect";
import { ruleOf, WAYS_ON } from "~core/job";

const money = (cents: number): string => (cents / 100).toFixed(2);
const NAMES = { rebuild: "Rebuild", reconditioned: "Reconditioned unit", used: "Used unit" } as const;

/** Rebuild, a reconditioned or a used unit: what each costs with its risk, for the lead to decide and the customer to see. */
export function RebuildOrReplace({ prices }: { prices: readonly (readonly [string, number])[] }) {
  const { job, applied } = useJobView();
  const { house, staff } = useInside();
  const lead = staff.role === "lead" || staff.role === "owner";
  const { options, priced, best, breakEven, needs, known, hours } = useMemo(() => {
    const states = dispositions(job, applied, house, ruleOf(job, house));
    return worth(job, applied, states, {
      prices: new Map(prices),
      rate: house.hourCents,
      comeback: house.comebackCents,
      metal: metalEverywhere(job) !== null,
    });
  }, [job, applied, house, prices]);
  const chosen = job.work.wayOn;
  return (
    <section className="plate p-4" aria-label="Rebuild or replace">
      <h2 className="text-2xl font-bold">Rebuild or replace</h2>
      {chosen && (
        <p className="text-lg" data-way={chosen.body.way}>
          <b>{NAMES[chosen.body.way]}</b>, says {chosen.by}: {chosen.body.reason}
        </p>
      )}
      <div className="overflow-x-auto">
        <table className="mt-1 w-full">
          <thead>
            <tr className="stamp quiet text-left">
              <th scope="col">Way</th>
              <th scope="col">Parts or unit</th>
              <th scope="col">Work</th>
              <th scope="col">Comeback</th>
              <th scope="col">Expected</th>
            </tr>
          </thead>
          <tbody>
            {options.map((option) => (
              <Line
                key={option.way}
                option={option}
                open={!priced.has(option.way)}
                best={best?.way === option.way}
              />
            ))}
          </tbody>
        </table>
      </div>
      {breakEven !== null && (
        <p className="mt-1" data-break-even>
          The rebuild stays cheaper while its chance of a comeback is below{" "}
          <b>{(breakEven * 100).toFixed(0)} %</b>.
        </p>
      )}
      <p className="quiet text-sm">
        {needs.length} parts must be new; the shelf knows {money(known)} of their price. The book gives{" "}
        {hours} h for what is left to do. An hour {money(house.hourCents)}, a comeback{" "}
        {money(house.comebackCents)} (House). Risks are guesses until somebody writes their own.
      </p>
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
                  name="price"
                  inputMode="decimal"
                  problem={problems.price}
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
                <span className="col-span-3 flex flex-wrap gap-2">
                  {WAYS_ON.map((way) => (
                    <button key={way} name="way" value={way} className="btn touch">
                      {NAMES[way]}
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
              {WAYS_ON.map((way) => (
                <button key={way} name="way" value={way} className="btn touch">
                  {NAMES[way]}
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

function Line({
  option: { way, price, hours, risk, expected },
  open,
  best,
}: {
  option: Option;
  open: boolean;
  best: boolean;
}) {
  return (
    <tr className="border-base-300 border-t text-lg" data-option={way}>
      <th scope="row" className="py-1.5 text-left">
        {NAMES[way]}
      </th>
      {open ? (
        <td colSpan={4} className="quiet">
          {way === "rebuild" ? `${hours} h of work; its parts have no price yet` : "no offer yet"}
        </td>
      ) : (
        <>
          <td>{money(price)}</td>
          <td>{hours} h</td>
          <td>{(risk * 100).toFixed(0)} %</td>
          <td>
            <b className={best ? "text-success" : ""}>{money(expected)}</b>
            {best && <span className="text-success"> ✓ cheapest</span>}
          </td>
        </>
      )}
    </tr>
  );
}
