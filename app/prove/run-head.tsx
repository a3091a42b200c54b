import { OctagonX, Volume2, VolumeX } from "lucide-react";
import { BESIDE } from "~/frame/pages";
import type { Procedure } from "~core/book";
import type { Run } from "~core/procedure";
import type { Side } from "~store/here";
import type { Other } from "./use-here";

const WORDS: Readonly<Record<Side, string>> = { seat: "Seat", lift: "Lift", both: "Both" };

/** What is run, how far it is, who is at the other end, and the way to stop it. */
export function RunHead({
  procedure,
  run,
  side,
  other,
  speaks,
  onSpeak,
  onSide,
  onStop,
}: {
  procedure: Procedure;
  run: Run;
  side: Side;
  other: Other | null;
  speaks: boolean;
  onSpeak: () => void;
  onSide: (side: Side) => void;
  onStop: (() => void) | undefined;
}) {
  const otherSide = side === "seat" ? "Lift" : "Seat";
  return (
    <div className={`flex min-h-[50px] items-center gap-3 ${BESIDE.free}`}>
      <h2 className="min-w-0 truncate text-xl font-bold">{procedure.name}</h2>
      {run.at === "going" && (
        <span className="figure shrink-0 text-lg" data-progress>
          {run.behind + 1} of {procedure.turns.length}
        </span>
      )}
      <div className="join shrink-0" role="group" aria-label="From where">
        {(["seat", "lift", "both"] as const).map((one) => (
          <button
            key={one}
            type="button"
            className={`btn touch join-item ${one === side ? "btn-secondary" : ""}`}
            aria-pressed={one === side}
            onClick={() => onSide(one)}
          >
            {WORDS[one]}
          </button>
        ))}
      </div>
      {side !== "both" && (
        <span
          className={`min-w-24 grow leading-tight ${other?.gone ? "text-error font-bold" : ""}`}
          data-other={other ? (other.gone ? "gone" : "here") : "none"}
          role="status"
        >
          {otherSide}: {other ? `${other.person}${other.gone ? ", gone" : ""}` : "nobody yet"}
        </span>
      )}
      <button
        type="button"
        className="btn touch"
        aria-pressed={speaks}
        aria-label={speaks ? "Speak no more" : "Speak aloud"}
        onClick={onSpeak}
      >
        {speaks ? <Volume2 aria-hidden="true" /> : <VolumeX aria-hidden="true" />}
      </button>
      {onStop && (
        <button type="button" className="btn btn-error touch shrink-0 text-xl" onClick={onStop}>
          <OctagonX aria-hidden="true" /> Stop
        </button>
      )}
    </div>
  );
}
