import { selectiveWord } from "~core/book";
import { Candidates } from "./candidates";
import { FoundPieces } from "./found-piece";
import { seatAt, type Loaded, type TabProps } from "./tab";
import { useUnitAsked } from "./use-unit-asked";

/** What can be put into one seat of a figure, solved with the whole unit. */
export function ChooseTab({
  sheet,
  unit,
  closed,
  ids,
  actionData,
  stock,
  aside,
  place,
}: TabProps & Pick<Loaded, "stock" | "aside"> & { place: string | null }) {
  const { unit: whole, whole: asked } = useUnitAsked(stock);
  const unknown = sheet.seats.filter(({ fitted, unseen }) => !fitted && !unseen);
  const seat = seatAt(sheet, place);
  if (sheet.seats.length === 0)
    return (
      <p className="plate p-5 text-lg">
        The book names no selective for this figure: what is outside is brought inside by other parts.
      </p>
    );
  if (!seat || (sheet.seats.length === 1 && unknown.length > 0))
    return (
      <div className="grid grid-cols-2 gap-3">
        <p className="plate p-5 text-lg">
          Which {selectiveWord(sheet.seats[0]?.link)} is in? Without it no swap can be predicted. Read its
          mark, or put a micrometer on it.
        </p>
        <FoundPieces sheet={sheet} unit={unit} />
      </div>
    );
  return (
    <Candidates
      key={seat.link.id}
      sheet={sheet}
      seat={seat}
      asked={asked}
      whole={whole}
      aside={aside[seat.link.id]}
      unit={unit}
      closed={closed}
      id={ids.choice}
      actionData={actionData}
    />
  );
}
