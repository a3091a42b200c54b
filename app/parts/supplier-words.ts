import type { SupplierRecord } from "~store/orders";

/** How a supplier was so far, in words; nothing where nothing was ordered there yet. */
export function supplierWords(record: Omit<SupplierRecord, "supplier"> | undefined): string {
  if (!record || (record.due === 0 && record.wrong === 0)) return "";
  const { due, inTime, wrong } = record;
  return [
    due > 0 ? `${inTime} of ${due} in time` : "",
    wrong > 0 ? `${wrong} ${wrong === 1 ? "piece" : "pieces"} wrong` : "",
  ]
    .filter(Boolean)
    .join(", ");
}
