import { useJobView } from "~/view/view";
import { isPackSheet, movedSinceFound, type Worksheet } from "~core/measure";
import { roundedText, signedText, type LengthUnit } from "~core/quantity";

/** As found against what it leaves with, and a remark where it moved otherwise than what was changed in it accounts for. */
export function SinceFound({ sheet, unit }: { sheet: Worksheet; unit: LengthUnit }) {
  const { job } = useJobView();
  const moved = movedSinceFound(job, sheet);
  if (!moved) return null;
  const { found, left, by, byPieces, unexplained } = moved;
  // New plates move a pack, and are meant to.
  const remark = unexplained !== null && !isPackSheet(sheet);
  return (
    <p className="mt-1" data-moved={remark ? "unexplained" : "told"}>
      <span className="quiet">As found</span> {roundedText(found, unit)}, <span className="quiet">now</span>{" "}
      {roundedText(left, unit)}: {signedText(by, unit)}
      {byPieces !== null && byPieces !== 0 && `, ${signedText(byPieces, unit)} of it by what was changed`}.
      {remark && (
        <b className="text-warning block">
          {byPieces !== 0 && Math.abs(by) < Math.abs(byPieces ?? 0) / 2
            ? "It did not move as it should have: is the new one in, and seated?"
            : `${signedText(unexplained, unit)} is not accounted for: what else was changed, or how was it read?`}
        </b>
      )}
    </p>
  );
}
