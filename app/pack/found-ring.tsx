import { useState, type FormEvent } from "react";
import { Choice, Field } from "~/look/field";
import { chainFacts } from "~core/fact";
import { type Worksheet } from "~core/measure";
import { type LengthUnit } from "~core/quantity";
import { parseReading } from "~core/reading";
import { capital, selectiveWord } from "~core/book";
import { sizeNear } from "~core/select";
import type { Piece } from "~core/chain";
import { useJobView } from "~/view/view";
import { pieceText } from "./piece-text";
import { useSay } from "~/say/use-say";

/** Which ring came with the unit: by its mark, by micrometer, or both. */
export function FoundRing({ sheet, unit }: { sheet: Worksheet; unit: LengthUnit }) {
  const { series, chain } = sheet.applied;
  const what = selectiveWord(series);
  const { job } = useJobView();
  const say = useSay();
  const [part, setPart] = useState(sheet.fitted?.part ?? "");
  const [measured, setMeasured] = useState("");
  const [problem, setProblem] = useState("");
  const [again, setAgain] = useState(false);
  if (!series) return null;
  const before = chainFacts(job, chain.id).fittings.find(({ body }) => body.fit === 0);
  if (before && !again) {
    return (
      <p className="plate flex items-center gap-3 px-4 py-2">
        <span className="grow">
          {capital(what)} found: <b>{pieceText(before.body.piece, unit)}</b>
        </span>
        <button type="button" className="btn touch" onClick={() => setAgain(true)}>
          Correct
        </button>
      </p>
    );
  }
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    const parsed = measured.trim() === "" ? null : parseReading(measured, unit);
    if (parsed && !parsed.ok) return setProblem(`${parsed.problem}; ${parsed.remedy}`);
    if (parsed && (parsed.length < 200_000 || parsed.length > 20_000_000))
      return setProblem(`no ${what} is that thick; check the unit`);
    const size =
      series.sizes.find((one) => one.part === part) ?? (parsed ? sizeNear(series, parsed.length) : null);
    if (!size && !parsed) return setProblem("Choose its mark, or measure it.");
    const piece: Piece = { ...(size ?? {}), ...(parsed ? { measured: parsed.length } : {}) };
    say({ kind: "fitting", chain: chain.id, fit: 0, origin: "found", piece }, { replaces: before?.id });
    setAgain(false);
  };
  return (
    <form className="plate p-3" onSubmit={submit} noValidate>
      <h2 className="mb-1 text-lg font-bold">Which {what} was in?</h2>
      <Choice
        label="By its mark"
        name="found-ring"
        value={part}
        onChange={setPart}
        options={series.sizes.map((size) => ({
          value: size.part,
          words: pieceText(size, unit),
        }))}
        size="text-base"
      />
      <Field
        label={`By micrometer, ${unit}`}
        value={measured}
        onChange={(event) => {
          setMeasured(event.target.value);
          setProblem("");
        }}
        inputMode="decimal"
        autoComplete="off"
        problem={problem}
      />
      <button className="btn touch w-full">Keep</button>
    </form>
  );
}
