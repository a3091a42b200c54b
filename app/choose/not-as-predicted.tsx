import { useState } from "react";
import { SayForm } from "~/say/say-form";
import { Field } from "~/look/field";
import { isPackSheet, type Worksheet } from "~core/measure";
import { isSprung, selectiveWord } from "~core/book";
import { lengthText, roundedText, type LengthUnit, type Nm } from "~core/quantity";

/** What came out is not what was predicted, by more than both are unsure of: what is wrong is asked before the figure counts. */
export function NotAsPredicted({ sheet, unit }: { sheet: Worksheet; unit: LengthUnit }) {
  const { astray: found, applied, fit, seats } = sheet;
  const [reason, setReason] = useState("");
  if (!found) return null;
  const { off, meant, plate, seat, stranger } = found;
  const first = seats[0]?.link;
  const far = roundedText(Math.abs(off) as Nm, unit);
  return (
    <section
      className="border-warning mb-3 border-l-4 pl-4"
      aria-label="Not as predicted"
      data-astray={meant?.mark ?? ""}
    >
      <h2 className="text-xl font-bold">
        {far} {off > 0 ? "looser" : "tighter"} than predicted: what is wrong?
      </h2>
      <ul className="mb-1 list-disc pl-5">
        {meant && (
          <li>
            As {meant.mark}, {lengthText(meant.size, unit)}{" "}
            {seats.length > 1 && seat ? `as ${seat.name}` : "in its place"} would give. Is the right one in?
          </li>
        )}
        {stranger && (
          <li data-stranger={stranger.size.mark}>
            As {stranger.size.mark}, {lengthText(stranger.size.size, unit)} of the {stranger.series} would
            give: it goes into this groove too. Open it and look; then the pack whose ring it is has the other
            one.
          </li>
        )}
        {plate && (
          <li>
            As with a {plate.role} {plate.missing ? "missing" : "too many"}. Count the plates.
          </li>
        )}
        <li>
          {isSprung(first)
            ? "Look that the ring sits in its own groove all round, then read again."
            : `Look that the ${selectiveWord(first)} lies flat and the right way up, then read again.`}
        </li>
      </ul>
      <div className="mb-1 flex flex-wrap gap-2">
        {whyWords(selectiveWord(first), isPackSheet(sheet)).map((words) => (
          <button key={words} type="button" className="btn touch btn-sm" onClick={() => setReason(words)}>
            {words}
          </button>
        ))}
      </div>
      <SayForm
        kind="explained"
        fixed={{ chain: applied.chain.id, fit: `${fit}` }}
        className="flex items-end gap-2"
      >
        {(problems) => (
          <>
            <div className="grow">
              <Field
                label="It is so, because"
                name="reason"
                value={reason}
                onChange={(event) => setReason(event.target.value)}
                problem={problems.reason}
              />
            </div>
            <button className="btn touch">Let it count</button>
          </>
        )}
      </SayForm>
    </section>
  );
}

/** What it usually is, to be touched and not typed; what is put right is read again instead. */
const whyWords = (what: string, isPack: boolean): string[] => [
  `the ${what} that came out was marked wrong`,
  "the trial was misread",
  isPack ? "the trial had a plate more or less in" : "the trial was read under other conditions",
];
