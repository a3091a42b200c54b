import { Mark } from "~/look/mark";
import { standsNow, titleOf, type Worksheet } from "~core/measure";
import { roundedText, type LengthUnit, type Nm } from "~core/quantity";
import { useJobView } from "~/view/view";

/** What a figure stands in an order with, and whether the order holds as both are read now. */
export function OrderWith({
  sheet,
  mean,
  unit,
  then,
}: {
  sheet: Worksheet;
  /** What it comes to on this page. */
  mean: Nm | null;
  unit: LengthUnit;
  /** What the others come to by what is proposed; as they are read now where it is left out, or not known. */
  then?: (chain: string) => Nm | null;
}) {
  const { job, applied, sheets } = useJobView();
  const { id } = sheet.applied.chain;
  const lines = (applied.present.orders ?? []).flatMap(([below, , above]) => {
    if (below !== id && above !== id) return [];
    const other = sheets.find((one) => one.applied.chain.id === (below === id ? above : below));
    if (!other) return [];
    const theirs =
      then?.(other.applied.chain.id) ??
      standsNow(job, other)?.estimate.mean ??
      other.found.assessment.estimate?.mean ??
      null;
    const [low, high] = below === id ? [mean, theirs] : [theirs, mean];
    return [
      { other, theirs, isBelow: below === id, holds: low === null || high === null ? null : low <= high },
    ];
  });
  if (lines.length === 0) return null;
  return (
    <ul className="mt-1" aria-label="Order">
      {lines.map(({ other, theirs, isBelow, holds }) => (
        <li
          key={other.applied.chain.id}
          className="flex items-center gap-2"
          data-order={holds === null ? "not known" : holds ? "holds" : "broken"}
        >
          <Mark name={holds === null ? "none" : holds ? "inside" : "loose"} size={20} />
          <span>
            {isBelow ? "No more than" : "No less than"} <b>{titleOf(other)}</b>
            {theirs === null ? ", not read yet" : `, ${roundedText(theirs, unit)}`}
            {holds === false && <b className="text-error">: wrong order</b>}
          </span>
        </li>
      ))}
    </ul>
  );
}
