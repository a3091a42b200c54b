import type { Series } from "../book";
import { predict, type Piece } from "../chain";
import type { Nm } from "../quantity";
import { chanceInside, judge, type DecisionRule, type Estimate, type Spec, type Verdict } from "../reading";
import { thickness } from "./piece";
import { distance, type Target } from "./target";

/** What the shelf says of one size of a series, or of one odd measured piece. */
export interface Stock {
  part: string;
  onHand: number;
  /** Present for an odd piece: which one, and what it measures. */
  piece?: { id: string; measured: Nm };
  /** In cents of the shop's currency. */
  price?: number;
  /** Days until it comes when ordered. */
  days?: number;
}

/** Where a candidate is to be had. */
export type Source =
  | { kind: "fitted" }
  | { kind: "shelf"; onHand: number }
  | { kind: "odd piece"; pieceId: string }
  | { kind: "order"; price?: number; days?: number };

/** One piece that could close the chain: what it would measure, how likely it is inside, why it stands where it stands. */
export interface SelectiveCandidate {
  /** Stable within the list: part number, or the odd piece's id, or `fitted`. */
  key: string;
  piece: Piece;
  source: Source;
  predicted: Estimate;
  verdict: Verdict;
  /** Probability of being inside, 0 to 1. */
  chance: number;
  /** From the target, signed. */
  off: Nm;
  reason: string;
}

/** What must be known to rank the pieces of a series: what was measured, with which piece in, the spec, the target, the shelf. */
export interface CandidateQuestion {
  /** The clearance measured with the fitted piece, in the spec's state. */
  measured: Estimate;
  fitted: Piece;
  series: Series;
  stock: readonly Stock[];
  spec: Spec;
  rule: DecisionRule;
  target: Target;
}

/** In a chain of a pack the ring takes room: a thicker one closes it. */
const RING_SIGN = -1;

/** Below this chance nobody would fit it; above the other it is as good as sure. */
const HOPELESS = 0.05;
const SURE = 0.95;

/**
 * Every size of the series and every odd piece against one pack, best first.
 *
 * Order: as good as sure before likely before unlikely; within that what is in hand before what must be ordered; then the
 * nearest to the target, where the last one on the shelf gives way to a common one within a fifth of the range.
 *
 * @returns an empty list when the fitted piece's thickness is not known: nothing can be predicted then.
 */
export function candidates(question: CandidateQuestion): SelectiveCandidate[] {
  const { series, fitted, stock } = question;
  const out = thickness(fitted, series.tolerance);
  if (!out) return [];

  const consider = (key: string, piece: Piece, source: Source): SelectiveCandidate => {
    const into = thickness(piece, series.tolerance) ?? out;
    const swaps = source.kind === "fitted" ? [] : [{ sign: RING_SIGN, removed: out, fitted: into } as const];
    const predicted = predict(question.measured, swaps);
    const { min, max } = question.spec;
    return {
      key,
      piece,
      source,
      predicted,
      verdict: judge(predicted, question.spec, question.rule),
      chance: chanceInside(predicted, min, max),
      off: distance(predicted.mean, question.target, question.spec),
      reason: "",
    };
  };

  const list = [consider("fitted", fitted, { kind: "fitted" })];
  for (const { part, mark, size } of series.sizes) {
    const shelf = stock.find((entry) => entry.part === part && !entry.piece);
    const onHand = shelf?.onHand ?? 0;
    const source: Source =
      onHand > 0 ? { kind: "shelf", onHand } : { kind: "order", price: shelf?.price, days: shelf?.days };
    // The size that is fitted is worth a line of its own only if another of it could be had and the fitted one was measured:
    // otherwise both predictions would be the same.
    if (part === fitted.part && fitted.measured === undefined) continue;
    list.push(consider(part, { part, mark, size }, source));
  }
  for (const { part, piece, onHand } of stock) {
    if (!piece || onHand < 1) continue;
    const size = series.sizes.find((entry) => entry.part === part);
    if (!size) continue;
    const odd: Piece = { part, mark: size.mark, size: size.size, measured: piece.measured };
    list.push(consider(piece.id, odd, { kind: "odd piece", pieceId: piece.id }));
  }
  const range = question.spec.max - question.spec.min;
  return list
    .sort(
      (a, b) => rank(a, range) - rank(b, range) || Math.abs(a.off) - Math.abs(b.off) || b.chance - a.chance,
    )
    .map((candidate, i) => ({ ...candidate, reason: reasonFor(candidate, i === 0, question) }));
}

/**
 * One number to sort by, in steps that cannot overtake one another: chance class (100), to be ordered (10), then the
 * distance in ranges (below 10), where the last one on the shelf counts as a fifth of the range farther away.
 */
function rank(candidate: SelectiveCandidate, range: number): number {
  const { chance, source, off } = candidate;
  const unlikely = chance >= SURE ? 0 : chance >= 0.5 ? 1 : chance >= HOPELESS ? 2 : 3;
  const ordered = source.kind === "order" ? 1 : 0;
  const last = source.kind === "shelf" && source.onHand === 1 ? 0.2 : 0;
  return unlikely * 100 + ordered * 10 + Math.min(9, Math.abs(off) / range + last);
}

function reasonFor(
  { chance, source, verdict, off }: SelectiveCandidate,
  best: boolean,
  { target, spec }: CandidateQuestion,
): string {
  const words: string[] = [];
  if (chance < HOPELESS)
    words.push(verdict.kind === "outside" ? `would be too ${verdict.side}` : "hardly any chance");
  else if (chance < SURE) words.push("may miss the limit");
  else if (target.kind === "anywhere") words.push("inside, anywhere will do");
  else {
    const share = Math.abs(off) / (spec.max - spec.min);
    if (share < 0.06) words.push(`on the ${target.words}`);
    else
      words.push(
        `${share < 0.2 ? "a little" : "well"} ${off > 0 ? "loose" : "tight"} of the ${target.words}`,
      );
  }
  switch (source.kind) {
    case "fitted":
      words.push("already fitted");
      break;
    case "shelf":
      if (source.onHand === 1) words.push("the last one on the shelf");
      break;
    case "odd piece":
      words.push("measured, so surer");
      break;
    case "order":
      words.push(
        source.days === undefined
          ? "to be ordered"
          : `to be ordered, ${source.days} ${source.days === 1 ? "day" : "days"}`,
      );
      break;
  }
  return `${best && chance >= HOPELESS ? "Best: " : ""}${words.join("; ")}`;
}
