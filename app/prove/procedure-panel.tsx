import { Armchair, ArrowDownUp, User } from "lucide-react";
import { Link } from "react-router";
import { SayForm } from "~/say/say-form";
import { useJobView } from "~/view/view";
import { useWhen } from "~/door/when";
import { FLOWED } from "~core/fact";
import { eventsOf, runOf } from "~core/procedure";
import type { ProvingItem } from "~core/prove";
import { limitsText, measureText } from "~core/quantity";
import { ProvePanel } from "./panel";

/** A procedure before it is run: who does what, its window, and the way in for each of the two. */
export function ProcedurePanel({ item }: { item: ProvingItem }) {
  const { applied, job, number } = useJobView();
  const procedure = applied.scoped.procedures?.find(({ id }) => id === item.subject);
  if (!procedure) return null;
  const run = runOf(procedure, eventsOf(job, procedure.id), {}, Infinity);
  const to = (side: string): string => `/jobs/${number}/prove/${procedure.id}?as=${side}`;
  return (
    <ProvePanel item={item}>
      {procedure.window && (
        <p className="figure mt-3 text-[2rem] leading-tight">
          Fluid {limitsText(procedure.window.from, procedure.window.to)}
        </p>
      )}
      <p className="text-lg">
        {run.at === "going"
          ? `Going on, turn ${run.behind + 1} of ${procedure.turns.length}.`
          : `${procedure.turns.length} turns, by two people or one.`}
      </p>
      <div className="mt-3 grid grid-cols-3 gap-2">
        <Link className="btn btn-primary btn-lg touch h-auto flex-col py-3 text-xl" to={to("seat")}>
          <Armchair aria-hidden="true" /> In the seat
        </Link>
        <Link className="btn btn-primary btn-lg touch h-auto flex-col py-3 text-xl" to={to("lift")}>
          <ArrowDownUp aria-hidden="true" /> Under the lift
        </Link>
        <Link className="btn btn-lg touch h-auto flex-col py-3 text-xl" to={to("both")}>
          <User aria-hidden="true" /> Alone, both
        </Link>
      </div>
      <ol className="mt-4">
        {procedure.turns.map(({ id, who, say, hold, window }, i) => (
          <li key={id} className="border-base-300 flex gap-3 border-t py-1.5 leading-tight">
            <b className="figure w-7 shrink-0 text-right">{i + 1}</b>
            <span className="stamp quiet w-12 shrink-0 pt-0.5">{who}</span>
            <span className="grow">{say}</span>
            <span className="quiet shrink-0 text-sm">
              {[hold && measureText(hold), window && "in the window"].filter(Boolean).join(", ")}
            </span>
          </li>
        ))}
      </ol>
      <Amounts />
    </ProvePanel>
  );
}

/** What went in and what ran out, each amount kept. */
function Amounts() {
  const { applied, job } = useJobView();
  const { short } = useWhen();
  const fills = applied.scoped.fluid?.fills ?? [];
  const others = applied.scoped.fluid?.others ?? [];
  return (
    <section aria-label="Fluid in and out" className="mt-4">
      <h3 className="stamp quiet">Fluid in and out</h3>
      <p>
        By the book:{" "}
        {fills.map(({ what, amount }) => `${what} ${measureText(amount)}`).join("; ") || "nothing stated"}
      </p>
      <ul>
        {job.filled.map(({ id, body, by, at }) => (
          <li key={id} className="border-base-300 flex gap-3 border-t py-1" data-filled={body.way}>
            <b className="figure w-20 text-right">{body.amount}</b>
            <span className="grow">
              {FLOWED.words[body.way]}, {body.when}
              {body.of && `, ${others.find((one) => one.id === body.of)?.name ?? body.of}`}
            </span>
            <span className="quiet text-sm">
              {by}, {short(at)}
            </span>
          </li>
        ))}
      </ul>
      <SayForm kind="filled" className="mt-2 flex flex-wrap items-end gap-2">
        {(problems) => (
          <>
            <input
              name="amount"
              aria-label="How much"
              placeholder="0.4 l"
              className={`input touch w-28 text-lg ${problems.amount ? "input-error" : ""}`}
              autoComplete="off"
            />
            <select name="when" aria-label="When" className="select touch w-44">
              {[
                "drained",
                "filled on the bench",
                "into the converter",
                "filled in the vehicle",
                "topped up",
              ].map((when) => (
                <option key={when}>{when}</option>
              ))}
            </select>
            {others.length > 0 && (
              <select name="of" aria-label="Which fluid" className="select touch w-40">
                <option value="">the unit’s own</option>
                {others.map(({ id, name }) => (
                  <option key={id} value={id}>
                    {name}
                  </option>
                ))}
              </select>
            )}
            <button name="way" value="in" className="btn touch">
              In
            </button>
            <button name="way" value="out" className="btn touch">
              Out
            </button>
            {Object.values(problems)[0] && (
              <p role="alert" className="text-error w-full font-semibold">
                {Object.values(problems)[0]}
              </p>
            )}
          </>
        )}
      </SayForm>
    </section>
  );
}
