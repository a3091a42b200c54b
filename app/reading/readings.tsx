import { useWhen } from "~/door/when";
import { memo, useState } from "react";
import type { JobReading } from "~core/fact";
import { lengthText, roundedText, type LengthUnit } from "~core/quantity";
import type { Mark } from "~core/reading";
import { useSay } from "~/say/use-say";

const REASONS = ["mistyped", "drum not turned", "needle slipped", "air leaked", "wrong place"];
const USE: Record<Mark["use"], string> = {
  used: "",
  out: "left out",
  settling: "settling",
  bound: "one side only",
  "other state": "other state",
};

/** More than fit on two rows push what is read next off the screen; a figure that will not settle can have a hundred. */
const SHOWN = 12;

/** Readings as chips, in the order taken, the latest at once. Touching one leaves it out with a reason; it stays, struck. */
export function Readings({
  readings,
  marks,
  unit,
  closed,
}: {
  readings: readonly JobReading[];
  /** What became of each. */
  marks: readonly Mark[];
  unit: LengthUnit;
  closed: boolean;
}) {
  const { clock } = useWhen();
  const [open, setOpen] = useState<string | null>(null);
  const [all, setAll] = useState(false);
  const say = useSay();
  if (readings.length === 0) return null;
  const from = all ? 0 : Math.max(0, readings.length - SHOWN);
  const reading = readings.find(({ fact }) => fact.id === open);
  const leave = (out: boolean, reason: string): void => {
    if (reading && reason.trim().length >= 2)
      say({ kind: "leave-out", reading: reading.fact.id, out, reason: reason.trim() });
    setOpen(null);
  };
  return (
    <div>
      <ul className="flex flex-wrap gap-2" aria-label="Readings">
        {from > 0 && (
          <li>
            <button type="button" className="btn touch h-full" onClick={() => setAll(true)}>
              {from} earlier
            </button>
          </li>
        )}
        {readings.slice(from).map((one, i) => {
          const use = marks[from + i]?.use ?? "used";
          return (
            <Chip
              key={one.fact.id}
              id={one.fact.id}
              text={readingText(one, unit)}
              words={
                one.leftOut
                  ? `out: ${one.leftOut.body.reason}`
                  : USE[use] || backText(one, unit) || one.fact.body.method
              }
              out={use === "out"}
              open={open === one.fact.id}
              closed={closed}
              onOpen={setOpen}
            />
          );
        })}
      </ul>
      {reading && (
        <div className="border-primary mt-2 rounded border-2 p-3">
          <p className="mb-2">
            <b>{readingText(reading, unit)}</b>, {conditionsText(reading)}; {reading.fact.by},{" "}
            {clock(reading.fact.at)}
            {reading.fact.body.typed && ` · typed “${reading.fact.body.typed}”`}
          </p>
          {reading.leftOut ? (
            <button type="button" className="btn touch" onClick={() => leave(false, "counts after all")}>
              Let it count again
            </button>
          ) : (
            <LeaveOut onLeave={(reason) => leave(true, reason)} />
          )}
        </div>
      )}
    </div>
  );
}

/** One reading: a figure may have a dozen, and the next one changes nothing of them. */
const Chip = memo(function Chip({
  id,
  text,
  words,
  out,
  open,
  closed,
  onOpen,
}: {
  id: string;
  text: string;
  words: string;
  out: boolean;
  open: boolean;
  closed: boolean;
  onOpen: (id: string | null) => void;
}) {
  return (
    <li>
      <button
        type="button"
        className={`touch border-base-300 rounded border-2 px-3 text-left leading-tight ${open ? "border-primary" : ""}`}
        onClick={() => onOpen(open ? null : id)}
        disabled={closed}
        aria-expanded={open}
      >
        <span className={`figure text-lg ${out ? "decoration-error line-through decoration-2" : ""}`}>
          {text}
        </span>
        <span className="quiet block text-sm">{words}</span>
      </button>
    </li>
  );
});

function LeaveOut({ onLeave }: { onLeave: (reason: string) => void }) {
  const [reason, setReason] = useState("");
  const [asked, setAsked] = useState(false);
  return (
    <div>
      <p className="stamp mb-1">Leave it out, because</p>
      <div className="flex flex-wrap gap-2">
        {REASONS.map((words) => (
          <button key={words} type="button" className="btn touch" onClick={() => onLeave(words)}>
            {words}
          </button>
        ))}
        <form
          className="flex gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            setAsked(true);
            if (reason.trim().length >= 2) onLeave(reason);
          }}
        >
          <input
            className="input touch"
            value={reason}
            onChange={(e) => setReason(e.target.value)}
            aria-label="Another reason"
            placeholder="another reason"
          />
          <button className="btn touch">Leave out</button>
        </form>
      </div>
      {asked && reason.trim().length < 2 && (
        <p role="alert" className="text-error mt-1 font-semibold">
          A reading is left out with a reason; write a few words.
        </p>
      )}
    </div>
  );
}

/** A reading as it was taken; in its own unit the digits are the ones typed. */
export function readingText({ fact: { body } }: JobReading, unit: LengthUnit): string {
  const { reading } = body;
  if (reading.kind !== "bracket") return lengthText(reading.value, unit);
  if (reading.refuses === undefined) return `over ${lengthText(reading.passes, unit)}`;
  if (reading.passes === undefined) return `under ${lengthText(reading.refuses, unit)}`;
  return `${lengthText(reading.passes, unit)} – ${lengthText(reading.refuses, unit)}`;
}

function backText({ fact: { body } }: JobReading, unit: LengthUnit): string {
  if (body.reading.kind !== "single" || body.reading.back === undefined) return "";
  return `back to ${roundedText(body.reading.back, unit)}`;
}

function conditionsText({ fact: { body } }: JobReading): string {
  const { method, state, air } = body;
  return [
    method,
    air ? `${(air / 100_000).toFixed(1)} bar` : "",
    ...(state ? [state.soak, `facings ${state.facings}`, state.wave ? `wave ${state.wave}` : ""] : []),
  ]
    .filter(Boolean)
    .join(", ");
}
