import type { FormEvent, KeyboardEvent } from "react";
import { useJobView } from "~/view/view";
import { useSay } from "~/say/use-say";
import { useHalfTyped } from "~/look/use-half-typed";
import { fitOf, type Point } from "~core/chain";
import type { Phase } from "~core/fact";
import type { SpecLine } from "~core/measure";
import { lengthText, type LengthUnit } from "~core/quantity";
import { parseReading } from "~core/reading";
import { byLinks } from "./entry";

const ANGLES = [0, 60, 120];

/** What was typed of a bore and its journal, as points, and what is wrong in which field. */
function pointsOf(
  typed: Readonly<Record<string, string>>,
  links: readonly string[],
  places: readonly string[],
  unit: LengthUnit,
): { points: Point[]; problems: Record<string, string> } {
  const points: Point[] = [];
  const problems: Record<string, string> = {};
  for (const link of links)
    for (const place of places)
      for (const angle of ANGLES) {
        const text = typed[`${link} ${place} ${angle}`]?.trim();
        if (!text) continue;
        const parsed = parseReading(text, unit);
        if (parsed.ok) points.push({ link, place, angle, value: parsed.length });
        else problems[`${link} ${place} ${angle}`] = `${parsed.problem}; ${parsed.remedy}`;
      }
  return { points, problems };
}

/** Enter is the end of one diameter, by hand or from a gauge that types: the next field waits. Only the button keeps the whole. */
function onward(event: KeyboardEvent<HTMLInputElement>): void {
  if (event.key !== "Enter") return;
  event.preventDefault();
  const { form } = event.currentTarget;
  const fields = [
    ...(form?.querySelectorAll<HTMLElement>("input, button[type=submit], button:not([type])") ?? []),
  ];
  fields[fields.indexOf(event.currentTarget) + 1]?.focus();
}

/** A bore and its journal at several places and angles: the largest clearance, out of round and taper, worked out as one types. */
export function FitSheet({ row, phase, onDone }: { row: SpecLine; phase: Phase; onDone: () => void }) {
  const { applied, job, number } = useJobView();
  const say = useSay();
  const unit: LengthUnit = applied.present.unit.lengthUnit;
  const chain = applied.chains.find((one) => one.chain.id === row.id)?.chain;
  const [typed, setTyped] = useHalfTyped(`${number} ${row.id} ${phase}`);
  const bore = chain?.links.find(([sign]) => sign === "+")?.[2] ?? "bore";
  const journal = chain?.links.find(([sign]) => sign === "-")?.[2] ?? "journal";
  const nominal = (name: string): number => chain?.links.find(([, , link]) => link === name)?.[3] ?? 0;
  const places = chain?.read.places ?? ["front", "rear"];
  const { points, problems } = pointsOf(typed, [bore, journal], places, unit);
  const fit = fitOf(points, bore, journal);
  const keep = (event: FormEvent): void => {
    event.preventDefault();
    if (!fit || !chain || Object.keys(problems).length > 0) return;
    const links = [
      { name: `${bore}, ${fit.place}`, sign: 1 as const, value: fit.bore },
      { name: `${journal}, ${fit.place}`, sign: -1 as const, value: fit.journal },
    ];
    say({ ...byLinks(chain, phase, unit, links), points });
    setTyped({});
    onDone();
  };
  return (
    <form className="plate mb-3 p-4" aria-label={`${row.name}, by its points`} onSubmit={keep} noValidate>
      <h2 className="text-2xl font-bold">{row.name}</h2>
      <p className="quiet">
        {row.spec}. Diameters round the bore and the journal, from the oil hole; what is not measured stays
        empty.
      </p>
      <div className="grid grid-cols-2 gap-6">
        {[bore, journal].map((link) => (
          <table key={link} className="w-full">
            <caption className="text-left text-lg font-bold first-letter:uppercase">{link}</caption>
            <thead>
              <tr className="stamp quiet text-left">
                <th scope="col">At</th>
                {ANGLES.map((angle) => (
                  <th key={angle} scope="col">{`${angle}°`}</th>
                ))}
              </tr>
            </thead>
            <tbody>
              {places.map((place) => (
                <tr key={place}>
                  <th scope="row" className="pr-2 text-left">
                    {place}
                  </th>
                  {ANGLES.map((angle) => {
                    const key = `${link} ${place} ${angle}`;
                    return (
                      <td key={angle} className="p-1">
                        <input
                          aria-label={`${link}, ${place}, ${angle} degrees`}
                          aria-invalid={problems[key] ? true : undefined}
                          data-nominal={nominal(link)}
                          data-gauge={link === bore ? "bore gauge" : "micrometer"}
                          data-what={`${row.id} ${link}`}
                          inputMode="decimal"
                          autoComplete="off"
                          disabled={job.closed !== null}
                          className={`input touch w-full text-lg ${problems[key] ? "input-error" : ""}`}
                          value={typed[key] ?? ""}
                          onChange={(event) => setTyped({ ...typed, [key]: event.target.value })}
                          onKeyDown={onward}
                        />
                      </td>
                    );
                  })}
                </tr>
              ))}
            </tbody>
          </table>
        ))}
      </div>
      {Object.values(problems)[0] && (
        <p role="alert" className="text-error font-semibold">
          {Object.values(problems)[0]}
        </p>
      )}
      <p className="mt-2 text-lg" role="status" data-fit={fit?.clearance ?? ""}>
        {fit ? (
          <>
            Largest clearance <b className="figure text-2xl">{lengthText(fit.clearance, unit)}</b> at{" "}
            {fit.place}: {lengthText(fit.bore, unit)} − {lengthText(fit.journal, unit)}.
            {fit.outOfRound &&
              ` Out of round ${lengthText(fit.outOfRound.by, unit)} (${fit.outOfRound.link}, ${fit.outOfRound.place}).`}
            {fit.taper && ` Taper ${lengthText(fit.taper.by, unit)} (${fit.taper.link}).`}
          </>
        ) : (
          "One diameter of each is the least."
        )}
      </p>
      <div className="mt-2 flex gap-3">
        <button className="btn btn-primary touch" disabled={!fit || job.closed !== null}>
          Keep it
        </button>
        <button type="button" className="btn touch" onClick={onDone}>
          Back to the sheet
        </button>
      </div>
    </form>
  );
}
