import { useMemo } from "react";
import { useInside } from "~/door/inside";
import { useJobView } from "~/view/view";
import { buildOf, exchangeOpens } from "~core/build";
import { isBuilding } from "~core/fact";
import { houseOf, type Worksheet } from "~core/measure";

/** What another piece here lays open in what is built already: told before it is exchanged. */
export function OpensAgain({ sheet }: { sheet: Worksheet }) {
  const { job, applied } = useJobView();
  const { house } = useInside();
  const { id } = sheet.applied.chain;
  const opens = useMemo(
    () =>
      job.closed || !isBuilding(job, applied.present.build)
        ? []
        : exchangeOpens(applied, buildOf(job, applied, houseOf(job, house), Infinity), id),
    [job, applied, house, id],
  );
  if (opens.length === 0) return null;
  return (
    <p className="border-warning mb-1 border-l-4 pl-3" data-opens-again={opens.length}>
      <b>Built in already.</b> Another piece opens again: {opens.map(({ step }) => step.name).join(", ")}.
    </p>
  );
}
