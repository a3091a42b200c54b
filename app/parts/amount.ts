import type { Need } from "~core/needs";

/** How much of a line, as one says it at the counter. */
export const amountText = ({ count, amount }: Pick<Need, "count" | "amount">): string =>
  amount ?? (count === 1 ? "" : `${count} ×`);
