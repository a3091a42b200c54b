import { useMemo } from "react";
import { useInside } from "~/door/inside";
import { useJobView } from "~/view/view";
import { together, type Together, type Unit } from "~core/measure";
import type { Stock } from "~core/select";

/** What can be chosen on this job now, all of it together. */
export function useUnitAsked(stock: readonly Stock[]): { unit: Unit; whole: Together } {
  const { job, applied, sheets } = useJobView();
  const { house } = useInside();
  return useMemo(() => {
    const unit = { job, sheets, orders: applied.present.orders ?? [], stock, first: house.chooseFirst };
    return { unit, whole: together(unit) };
  }, [job, applied, sheets, house, stock]);
}
