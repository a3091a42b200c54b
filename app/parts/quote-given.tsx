import type { FormEvent } from "react";
import { useInside } from "~/door/inside";
import { useWhen } from "~/door/when";
import { labourOf } from "~/inspect/worth-of";
import { Field } from "~/look/field";
import { useDialog } from "~/look/use-dialog";
import { useSay } from "~/say/use-say";
import { useJobView } from "~/view/view";
import { quoteOf, type Need } from "~core/needs";
import { moneyText } from "~core/quantity";

interface QuoteProps {
  lines: readonly Need[];
  prices: ReadonlyMap<string, number>;
}

/** The quote as it is given to the customer: kept, so that what it comes to in the end can be held against it. */
export function QuoteGiven(quote: QuoteProps) {
  const { job } = useJobView();
  const { dialog, drawn, show, close } = useDialog();
  if (job.closed) return null;
  const given = job.quoted?.body;
  return (
    <>
      <button
        type="button"
        className="btn touch"
        data-quoted={given ? given.parts + given.labour : ""}
        onClick={show}
      >
        {given ? `Quoted ${moneyText(given.parts + given.labour)}` : "Given to the customer …"}
      </button>
      <dialog
        ref={dialog}
        className="plate text-base-content m-auto w-[34rem] p-6"
        aria-label="The quote is given to the customer"
      >
        {drawn && <Give {...quote} close={close} />}
      </dialog>
    </>
  );
}

function Give({ lines, prices, close }: QuoteProps & { close: () => void }) {
  const { job, applied } = useJobView();
  const { house } = useInside();
  const { short } = useWhen();
  const say = useSay();
  const { parts, unpriced, lines: priced } = quoteOf(lines, prices);
  const { hours, cents: labour } = labourOf(job, applied, house);
  const given = job.quoted;
  const keep = (event: FormEvent<HTMLFormElement>): void => {
    event.preventDefault();
    const promised = new FormData(event.currentTarget).get("promised");
    say({
      kind: "quoted",
      parts,
      labour,
      hours,
      lines: priced.map(({ id, what, cents }) => (cents === null ? { id, what } : { id, what, cents })),
      promised: typeof promised === "string" ? promised.trim() : "",
    });
    close();
  };
  return (
    <>
      <h2 className="text-2xl font-bold">Given to the customer</h2>
      {given && (
        <p className="quiet">
          Last by {given.by}, {short(given.at)}: {moneyText(given.body.parts + given.body.labour)}
        </p>
      )}
      <dl className="my-3 grid grid-cols-[1fr_auto] gap-y-1 text-lg">
        <dt>
          Parts, {lines.length} {lines.length === 1 ? "line" : "lines"}
          {unpriced > 0 && `, ${unpriced} without a price`}
        </dt>
        <dd className="figure">{moneyText(parts)}</dd>
        <dt>Work, {hours} h</dt>
        <dd className="figure">{moneyText(labour)}</dd>
        <dt className="border-base-300 border-t font-bold">Together</dt>
        <dd className="figure border-base-300 border-t text-2xl font-bold">{moneyText(parts + labour)}</dd>
      </dl>
      <form onSubmit={keep}>
        <Field
          label="What is promised on it"
          name="promised"
          maxLength={500}
          defaultValue={given?.body.promised ?? ""}
          placeholder="12 months, or 20 000 km"
        />
        <button className="btn btn-primary touch">Keep it as given</button>
      </form>
      <form method="dialog" className="mt-2">
        <button className="btn touch">Not yet</button>
      </form>
    </>
  );
}
