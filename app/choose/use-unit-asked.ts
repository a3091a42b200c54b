import { useMemo } from "react";
import { useInside } from "~/door/inside";
import { useJobView } from "~/view/view";
import { chosenSheets, houseOf, together, type Together, type Unit } from "~core/measure";
import type { Stock } from "~core/select";

/** What can be chosen on this job now, all of it together. */
export function useUnitAsked(stock: readonly Stock[]): { unit: Unit; whole: Together } {
  const { job, applied } = useJobView();
  const { house } = useInside();
  return useMemo(() => {
    const sheets = chosenSheets(job, applied, houseOf(job, house));
    const unit = { job, sheets, orders: applied.present.orders ?? [], stock, first: house.chooseFirst };
    return { unit, whole: together(unit) };
  }, [job, applied, house, stock]);
}
