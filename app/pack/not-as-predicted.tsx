import { SayForm } from "~/say/say-form";
import { Field } from "~/look/field";
import type { Worksheet } from "~core/measure";
import { isSprung, selectiveWord } from "~core/book";
import { roundedText, type LengthUnit, type Nm } from "~core/quantity";

/** What came out is not what was predicted, by more than both are unsure of: what is wrong is asked before the figure counts. */
export function NotAsPredicted({ sheet, unit }: { sheet: Worksheet; unit: LengthUnit }) {
  const { astray: found, applied, fit } = sheet;
  if (!found) return null;
  const { off, meant, plate } = found;
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
            As {meant.mark}, {roundedText(meant.size, unit)} in its place would give. Is the right one in?
          </li>
        )}
        {plate && (
          <li>
            As with a {plate.role} {plate.missing ? "missing" : "too many"}. Count the plates.
          </li>
        )}
        <li>
          {isSprung(applied.series)
            ? "Look that the ring sits in its groove all round, then read again."
            : `Look that the ${selectiveWord(applied.series)} lies flat and the right way up, then read again.`}
        </li>
      </ul>
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
                problem={problems.reason}
                placeholder={`the ${selectiveWord(applied.series)} that came out was marked wrong`}
              />
            </div>
            <button className="btn touch">Let it count</button>
          </>
        )}
      </SayForm>
    </section>
  );
}
