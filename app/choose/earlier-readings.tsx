import { chainFacts } from "~core/fact";
import { ofAssemblyNow, type ReadingSet, type Worksheet } from "~core/measure";
import { lengthText, type LengthUnit } from "~core/quantity";
import { useJobView } from "~/view/view";

/** What was read on trial with other pieces or plates in: it stays, and counts no longer. */
export function EarlierReadings({
  sheet,
  set,
  unit,
}: {
  sheet: Worksheet;
  set: ReadingSet;
  unit: LengthUnit;
}) {
  const { job } = useJobView();
  const isOfNow = ofAssemblyNow(job, sheet.applied, sheet.fit);
  const counted = new Set(set.readings.map(({ fact }) => fact.id));
  const earlier = chainFacts(job, sheet.applied.chain.id).readings.filter(
    ({ fact }) =>
      fact.body.phase === "built" && (fact.body.fit < sheet.fit || !isOfNow(fact)) && !counted.has(fact.id),
  );
  if (earlier.length === 0) return null;
  return (
    <p className="quiet mt-2 text-sm" data-earlier={earlier.length}>
      Read with an earlier piece, with other plates, or before it came out; counts no longer:{" "}
      <s>
        {earlier
          .map(({ fact: { body } }) =>
            body.reading.kind === "bracket" ? "blades" : lengthText(body.reading.value, unit),
          )
          .join(", ")}
      </s>
    </p>
  );
}
