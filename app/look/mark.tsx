import { lengthWords } from "./length";
import type { LengthUnit } from "~core/quantity";
import type { Verdict } from "~core/reading";

/** The names of the marks: a verdict's kind with its side, and the two states without a figure. */
export type MarkName =
  | Exclude<Verdict["kind"], "outside">
  | Extract<Verdict, { kind: "outside" }>["side"]
  | "signed"
  | "quiet"
  | "none"
  | "begun";

export const markOf = (verdict: Verdict): MarkName =>
  verdict.kind === "outside" ? verdict.side : verdict.kind;

const TONE: Record<MarkName, "good" | "bad" | "warn" | "ink"> = {
  inside: "good",
  tight: "bad",
  loose: "bad",
  "too close": "warn",
  "too few": "ink",
  creeping: "warn",
  "not stated": "ink",
  signed: "good",
  quiet: "ink",
  none: "ink",
  begun: "ink",
};

/** Marks that say nothing about limits. */
const POSTLESS: ReadonlySet<MarkName> = new Set(["quiet", "signed", "none", "begun", "not stated"]);

/**
 * A verdict as a drawing of what it means: two posts are the limits, the block is the figure. The shape alone tells it, without
 * colour and without the word.
 */
export function Mark({ name, size = 28, x, y }: { name: MarkName; size?: number; x?: number; y?: number }) {
  const tone = TONE[name];
  const post = `fill-none stroke-ink`;
  const block = `fill-${tone}`;
  const line = `fill-none stroke-${tone}`;
  return (
    <svg viewBox="0 0 28 28" width={size} height={size} x={x} y={y} aria-hidden="true" className="shrink-0">
      {!POSTLESS.has(name) && <path className={post} strokeWidth="3" d="M6 4v20M22 4v20" />}
      {name === "inside" && <rect className={block} x="9.5" y="8" width="9" height="12" />}
      {name === "tight" && <path className={block} d="M1 8h8v12H1z M12 14l6-5v10z" />}
      {name === "loose" && <path className={block} d="M19 8h8v12h-8z M16 14l-6-5v10z" />}
      {name === "too close" && <path className={block} d="M17 14l5-7 5 7-5 7z" />}
      {name === "too few" && (
        <path className={line} strokeWidth="2.5" strokeDasharray="3 3" d="M10 9h8v10h-8z" />
      )}
      {name === "creeping" && <path className={line} strokeWidth="3" d="M9 20h4v-5h4v-5h3" />}
      {name === "not stated" && <rect className={block} x="9.5" y="8" width="9" height="12" />}
      {name === "signed" && (
        <path className={line} strokeWidth="3" d="M4 18c4-12 7-12 7-3s3 5 5 1 3-3 3 0 2 3 5 0M4 24h20" />
      )}
      {name === "quiet" && <path className={line} strokeWidth="2.5" opacity="0.6" d="M8 14h12" />}
      {(name === "none" || name === "begun") && (
        <circle className={line} strokeWidth="2.5" cx="14" cy="14" r="8" />
      )}
      {name === "begun" && <path className="fill-blue" d="M14 9.5a4.5 4.5 0 0 0 0 9z" />}
    </svg>
  );
}

const INK: Record<"good" | "bad" | "warn" | "ink", string> = {
  good: "text-success",
  bad: "text-error",
  warn: "text-warning",
  ink: "",
};

/** Mark and word together. */
export function VerdictMark({
  verdict,
  unit,
  large = false,
}: {
  verdict: Verdict;
  unit: LengthUnit;
  large?: boolean;
}) {
  const name = markOf(verdict);
  return (
    <span
      className={`inline-flex items-center gap-2 font-bold whitespace-nowrap ${INK[TONE[name]]} ${large ? "text-[1.4rem]" : ""}`}
    >
      <Mark name={name} size={large ? 40 : 28} />
      {verdictWords(verdict, unit)}
    </span>
  );
}

/** The verdict in the trade's words. */
export function verdictWords(verdict: Verdict, unit: LengthUnit): string {
  switch (verdict.kind) {
    case "inside":
      return "Inside";
    case "outside":
      return `Outside, ${verdict.side} by ${lengthWords(verdict.by, unit)}`;
    case "too close":
      return "Too close to call";
    case "too few":
      return "Too few readings";
    case "creeping":
      return "Still creeping";
    case "not stated":
      return "No limit known";
  }
}

/** What to do next. */
export function adviceWords(verdict: Verdict, unit: LengthUnit): string {
  switch (verdict.kind) {
    case "inside":
      return `${lengthWords(verdict.margin, unit)} from the nearer limit.`;
    case "outside":
      return verdict.side === "tight" ? "A thinner ring opens it." : "A thicker ring closes it.";
    case "too close":
      return verdict.advice.kind === "read again"
        ? `Near the ${verdict.limit}. Turn the drum and take ${verdict.advice.more} more.`
        : `Near the ${verdict.limit}. More readings will not settle it: a finer gauge or another size will.`;
    case "too few":
      return `${verdict.more} more ${verdict.more === 1 ? "reading" : "readings"}; turn the drum between them.`;
    case "creeping":
      return "Each reading is above the last: the pack is settling. Hold the air and read on until it stands.";
    case "not stated":
      return "It is kept as it was read. Whoever knows what it should be adds it to the book.";
  }
}
