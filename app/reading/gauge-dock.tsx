import { useCallback, useEffect, useRef, useState, type RefObject } from "react";
import { nextFrame } from "~/look/next-frame";
import { useInside } from "~/door/inside";
import type { Phase } from "~core/fact";
import type { Worksheet } from "~core/measure";
import { nominalGap } from "~core/pack";
import { nm, roundedText, type LengthUnit, type Nm } from "~core/quantity";
import type { Single } from "~core/reading";
import { inField } from "~/look/use-keys";
import { useJobAt } from "~/view/view";
import { pieceIn } from "./piece-in";

/** What the gauge tells twenty times a second. */
export interface Needle {
  needle: number;
  air: boolean;
  step: number;
}

/** Where a take stands: at rest with its zero, air on with the peak so far, let down and coming back. */
export type Take =
  | { at: "rest" }
  | { at: "lifted"; zero: number; peak: number }
  | { at: "back"; zero: number; peak: number };

/** The needle rests when it has stood within one step for this many tellings. */
const RESTING = 6;
/** How soon to look for a gauge again that did not answer. */
const RETRY = 2_000;

const tellValve = async (what: Record<string, unknown>): Promise<void> => {
  await fetch("/gauge/valve", {
    method: "POST",
    headers: { "Content-Type": "application/json", Accept: "application/json" },
    body: JSON.stringify(what),
  });
};

/** A live gauge: air on, the needle rises and settles, *take* stores the peak and where it came back to. */
export function GaugeDock({
  sheet,
  phase,
  unit,
  onTake,
}: {
  sheet: Worksheet;
  phase: Phase;
  unit: LengthUnit;
  onTake: (reading: Single, resolution: Nm) => void;
}) {
  const { house } = useInside();
  const { number } = useJobAt();
  const [needle, setNeedle] = useState<Needle | null>(null);
  const [lost, setLost] = useState(false);
  const [attempt, setAttempt] = useState(0);
  const [take, setTake] = useState<Take>({ at: "rest" });
  const history = useRef<number[]>([]);
  const button = useRef<HTMLButtonElement>(null);
  const current = useRef({ needle, take, onTake });
  const bench = `${number}`;
  // What the simulated drum is built to: the book's figures with the ring that is in; its own error it keeps to itself.
  const drum = `${phase} ${number}/${sheet.applied.chain.id}`;
  const gap = nominalGap(sheet.applied, pieceIn(sheet.seats[0]));

  // One after another: air that is let on must not be overtaken by the drum being mounted without it.
  const told = useRef(Promise.resolve());
  const set = useCallback(
    (what: Record<string, unknown>): void => {
      told.current = told.current.then(() => tellValve({ bench, ...what })).catch(() => setLost(true));
    },
    [bench],
  );

  useEffect(() => {
    current.current = { needle, take, onTake };
  });

  useEffect(() => {
    // A gauge that comes back in the middle of a take finds the air as the take has it.
    set({ drum, gap, air: current.current.take.at === "lifted" });
    const source = new EventSource(`/gauge/stream?bench=${bench}`);
    // The needle tells more often than a busy page can be drawn: what came meanwhile is drawn once, and of a peak nothing is lost.
    let leave: (() => void) | null = null;
    let highest = -Infinity;
    let last: Needle | null = null;
    const show = (): void => {
      leave = null;
      if (!last) return;
      const [now, reached] = [last, highest];
      highest = -Infinity;
      setLost(false);
      setNeedle(now);
      const { take: state, onTake: done } = current.current;
      if (state.at === "lifted" && reached > state.peak) setTake({ ...state, peak: reached });
      if (state.at === "back" && isResting(history.current, now.step)) {
        setTake({ at: "rest" });
        done(
          { kind: "single", value: nm(state.peak - state.zero), back: nm(now.needle - state.zero) },
          nm(now.step),
        );
      }
    };
    source.onmessage = (event: MessageEvent<string>) => {
      last = JSON.parse(event.data) as Needle;
      highest = Math.max(highest, last.needle);
      history.current = [...history.current.slice(1 - RESTING), last.needle];
      leave ??= nextFrame(show);
    };
    let again: ReturnType<typeof setTimeout> | undefined;
    source.onerror = () => {
      setLost(true);
      // A browser comes back by itself after a broken stream, but not after a refusal.
      if (source.readyState === EventSource.CLOSED) again = setTimeout(() => setAttempt((n) => n + 1), RETRY);
    };
    return () => {
      clearTimeout(again);
      leave?.();
      source.close();
    };
    // The drum is mounted when the dock opens or another ring goes in; nothing else may disturb a take.
  }, [drum, gap, bench, set, attempt]);

  const here = needle !== null;
  useEffect(() => {
    if (here) button.current?.focus();
  }, [here]);

  const next = (): void => {
    if (!needle) return;
    if (take.at === "rest") {
      setTake({ at: "lifted", zero: needle.needle, peak: needle.needle });
      set({ air: true });
    } else if (take.at === "lifted") {
      history.current = [];
      setTake({ at: "back", zero: take.zero, peak: take.peak });
      set({ air: false });
    }
  };
  useTakeKeys(house.footKey, next);

  return <GaugeFace needle={lost ? null : needle} take={take} unit={unit} button={button} onNext={next} />;
}

/** The dock as it looks in each state; without a needle the gauge does not answer. */
export function GaugeFace({
  needle,
  take,
  unit,
  button,
  onNext,
}: {
  needle: Needle | null;
  take: Take;
  unit: LengthUnit;
  button?: RefObject<HTMLButtonElement | null>;
  onNext: () => void;
}) {
  const zero = take.at === "rest" ? (needle?.needle ?? 0) : take.zero;
  const value = nm(needle ? needle.needle - zero : 0);
  const what = needle
    ? takeWords(take, unit)
    : "The gauge does not answer. Type the readings, or look at its cable.";
  return (
    <div className="flex items-center gap-4" data-take={take.at}>
      <Dial value={value} unit={unit} />
      <div className="min-w-0 grow">
        <p className="figure text-5xl leading-none whitespace-nowrap">
          {needle ? roundedText(value, unit) : "—"}
        </p>
        <p className="quiet mt-1 mb-3 min-h-12 leading-tight" role="status">
          {what}
        </p>
        <button
          ref={button}
          type="button"
          className="btn btn-primary btn-lg touch w-full text-xl"
          onClick={onNext}
          disabled={!needle}
        >
          {take.at === "lifted" ? "Take" : take.at === "back" ? "Coming back …" : "Air on"}{" "}
          <kbd className="key">Space</kbd>
        </button>
      </div>
    </div>
  );
}

function takeWords(take: Take, unit: LengthUnit): string {
  switch (take.at) {
    case "rest":
      return "At rest. Turn the drum, then let the air on.";
    case "lifted":
      return `Air on, peak ${roundedText(nm(take.peak - take.zero), unit)}. Take it when it stands.`;
    case "back":
      return "Letting down: waiting for the zero.";
  }
}

const isResting = (history: readonly number[], step: number): boolean =>
  history.length >= RESTING - 1 && Math.max(...history) - Math.min(...history) < step;

/** Space anywhere but in a field or on a control of its own, and the foot switch anywhere at all. */
function useTakeKeys(footKey: string, next: () => void): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const onControl =
        event.target instanceof HTMLElement &&
        event.target.closest("button, a, summary, input[type=radio]") !== null;
      if (event.repeat || (event.key !== footKey && (event.key !== " " || inField(event) || onControl)))
        return;
      event.preventDefault();
      next();
    };
    document.addEventListener("keydown", onKey);
    return () => document.removeEventListener("keydown", onKey);
  });
}

/** One turn of the needle is two millimetres, or eighty thousandths. */
export function Dial({ value, unit }: { value: Nm; unit: LengthUnit }) {
  const turn = unit === "mm" ? 2_000_000 : 80 * 25_400;
  const angle = ((value / turn) % 1) * 360;
  return (
    <svg viewBox="-60 -60 120 120" className="w-40 shrink-0" aria-hidden="true">
      <circle r="57" className="fill-case stroke-ink" strokeWidth="3" />
      {Array.from({ length: 40 }, (_, i) => (
        <path
          key={i}
          className="stroke-ink"
          strokeWidth={i % 5 === 0 ? 2.5 : 1}
          d={`M0 ${i % 5 === 0 ? -44 : -48}V-53`}
          transform={`rotate(${i * 9})`}
        />
      ))}
      {[0, 1, 2, 3].map((i) => (
        <text
          key={i}
          textAnchor="middle"
          fontSize="12"
          x={Math.sin((i * Math.PI) / 2) * 34}
          y={-Math.cos((i * Math.PI) / 2) * 34 + 4}
        >
          {unit === "mm" ? (i * 0.5).toFixed(1) : i * 20}
        </text>
      ))}
      <path
        className="stroke-blue"
        strokeWidth="3.5"
        strokeLinecap="round"
        d="M0 14V-46"
        transform={`rotate(${angle.toFixed(2)})`}
      />
      <circle r="6" className="fill-blue" />
    </svg>
  );
}
