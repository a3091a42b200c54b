import { useId } from "react";
import { useJobView } from "~/view/view";
import { useSay } from "~/say/use-say";
import { wearKind } from "~core/book";
import { DEGREES } from "~core/inspect";
import { SEVERITIES, wordsOf, type FactOf, type Severity } from "~core/fact";
import { WearDrawing, type Degree } from "./wear-drawing";

type Finding = FactOf<"finding">;

/** One kind of wear of a part: what it looks like at each severity, and what was found. */
export function WearRow({
  part,
  wear,
  findings,
  pieces,
  sure,
}: {
  part: string;
  wear: string;
  /** What was found of this wear. */
  findings: readonly Finding[];
  /** Which pieces a touch is about; empty for all of them. */
  pieces: readonly number[];
  sure: boolean;
}) {
  const { job, applied } = useJobView();
  const say = useSay();
  const { name, look } = wearKind(applied.present, wear);
  const known = aboutPieces(findings, pieces)?.body;
  const tell = (severity: Severity): void => {
    const same =
      known?.severity === severity && known.sure === sure && !known.pieces === (pieces.length === 0);
    say({
      kind: "finding",
      part,
      wear,
      severity,
      sure,
      note: known?.note ?? "",
      there: !same,
      ...(pieces.length > 0 ? { pieces: [...pieces] } : {}),
    });
  };
  return (
    <li className="border-base-300 border-t py-1" data-wear={wear}>
      <div className="flex items-center gap-3">
        <span className="grow leading-tight">
          <b>{name}</b>
          <span className="quiet block text-sm">
            {look.looks && `${look.looks}.`}
            {look.unlike && ` Not: ${look.unlike}.`}
          </span>
        </span>
        <span className="flex gap-1" role="group" aria-label={name}>
          {wordsOf(SEVERITIES).map(([severity, words], i) => (
            <button
              key={severity}
              type="button"
              disabled={job.closed !== null}
              aria-pressed={known?.severity === severity}
              className={`btn touch h-auto w-[5.4rem] flex-col gap-0 px-1 py-1 leading-tight whitespace-nowrap ${known?.severity === severity ? (severity === "beyond-use" ? "btn-error" : "btn-primary") : ""}`}
              onClick={() => tell(severity)}
            >
              <WearDrawing drawn={look.drawn} degree={(i + 1) as Degree} />
              {words}
            </button>
          ))}
        </span>
      </div>
      {findings.map((finding) => (
        <Found key={finding.id} finding={finding} words={DEGREES[look.drawn]} />
      ))}
    </li>
  );
}

/** What holds for the pieces one is about: what was said of all of them, or of the part as a whole. */
const aboutPieces = (findings: readonly Finding[], pieces: readonly number[]): Finding | undefined =>
  findings.findLast(({ body }) =>
    pieces.length === 0 ? !body.pieces : !body.pieces || pieces.every((one) => body.pieces?.includes(one)),
  );

/** One finding in words, with a note that can be added and changed. */
function Found({
  finding: { body, by },
  words,
}: {
  finding: Finding;
  words: readonly [string, string, string];
}) {
  const { job, applied } = useJobView();
  const say = useSay();
  const id = useId();
  const keep = (note: string): void => {
    if (note.trim() !== body.note) say({ ...body, note: note.trim() });
  };
  return (
    <div className="flex flex-wrap items-center gap-x-3 pb-1" data-found-wear={body.severity}>
      <span>
        {body.pieces && <b>number {body.pieces.join(", ")}: </b>}
        {!body.sure && <b className="text-warning">suspected </b>}
        <b>{SEVERITIES.words[body.severity]}</b>, {words[SEVERITIES.codes.indexOf(body.severity)]}{" "}
        <span className="quiet">({by})</span>
      </span>
      {job.closed ? (
        body.note && <span>{body.note}</span>
      ) : (
        <>
          <label htmlFor={id} className="sr-only">
            Note on {wearKind(applied.present, body.wear).name}
          </label>
          <input
            id={id}
            className="input touch min-w-40 grow"
            placeholder="note"
            defaultValue={body.note}
            maxLength={500}
            autoComplete="off"
            onBlur={(event) => keep(event.currentTarget.value)}
            onKeyDown={(event) => {
              if (event.key === "Enter") keep(event.currentTarget.value);
            }}
          />
        </>
      )}
    </div>
  );
}
