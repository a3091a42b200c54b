import { predict, type Piece, type Swap } from "../chain";
import type { Nm } from "../quantity";
import {
  chanceInside,
  judge,
  type DecisionRule,
  type Estimate,
  type Verdict,
  ends,
  isStated,
} from "../reading";
import type { SeatLink } from "../book";
import {
  distance,
  FITTED,
  ranked,
  thickness,
  type JointPlan,
  type JointQuestion,
  type Offered,
  type Source,
  type Target,
} from "../select";
import type { Spec } from "../reading";
import { together, togetherAll, type OpenSeat, type Together, type Unit } from "./together";
import type { Prediction } from "./worksheet";

/** One piece that a seat could have: what a figure would measure then, how likely it is inside, why it stands where it stands. */
export interface SelectiveCandidate {
  /** Stable within the list: a part number, an odd piece’s id, a mark of what is made here, or `fitted`. */
  key: string;
  piece: Piece;
  source: Source;
  /** The figure with it in, and with what is proposed for its other seats then. */
  predicted: Estimate;
  verdict: Verdict;
  /** Probability of being inside, 0 to 1. */
  chance: number;
  /** From the target, signed. */
  off: Nm;
  reason: string;
  /** The best for everything else once it is in; null for what cannot be had. */
  plan: JointPlan | null;
  /** Other seats that get something else than they would with the best one in. */
  elsewhere: string[];
}

/** What candidates are told from: a question, and what its seats and figures are. */
export interface Asked {
  question: JointQuestion;
  offers: ReadonlyMap<string, Offered>;
  seats: ReadonlyMap<string, { link: SeatLink; fitted: Piece }>;
  sheets: ReadonlyMap<
    string,
    {
      sheet: { applied: { spec: Spec }; seats: readonly { link: SeatLink }[]; target: Target };
      now: Estimate;
    }
  >;
}

/** Below this chance nobody would fit it; above the other it is as good as sure. */
const HOPELESS = 0.05;
const SURE = 0.95;

/** The question a figure is chosen in: the whole unit’s where it is open there, else what moves it alone. */
export function askedFor(unit: Unit, chain: string, seat: string, whole = together(unit)): Together {
  return whole.seats.has(seat) ? whole : togetherAll(unit, [chain]);
}

/**
 * Everything a seat could have, best first by the order in which the whole unit is chosen for: the first is what the joint choice puts in. What
 * nobody has stands last.
 *
 * @param chain one of the figures the seat moves: what is predicted and judged.
 * @returns an empty list where nothing can be predicted: too few readings, or a piece in that nobody knows.
 */
export function seatCandidates(
  asked: Asked,
  seat: string,
  chain: string,
  rule: DecisionRule,
): SelectiveCandidate[] {
  const known = asked.sheets.get(chain);
  const open = asked.seats.get(seat);
  if (!known || !open) return [];
  const { sheet, now } = known;
  const { spec } = sheet.applied;
  const consider = (
    swaps: readonly Swap[],
    of: Pick<SelectiveCandidate, "key" | "piece" | "source" | "plan" | "elsewhere">,
  ): SelectiveCandidate => {
    const predicted = predict(now, swaps);
    return {
      ...of,
      predicted,
      verdict: judge(predicted, spec, rule),
      chance: chanceInside(predicted, spec),
      off: distance(predicted.mean, sheet.target, spec),
      reason: "",
    };
  };
  const all = ranked(asked.question, seat);
  const best = all[0]?.plan;
  const inHand = new Set(
    all.flatMap(({ offer }) =>
      (offer.days ?? 0) === 0 ? (asked.offers.get(offer.id)?.piece.part ?? []) : [],
    ),
  );
  // What lies here is not ordered too, but where that is better for another seat.
  const worth = all.filter(
    ({ offer }, i) =>
      i === 0 || (offer.days ?? 0) === 0 || !inHand.has(asked.offers.get(offer.id)?.piece.part ?? ""),
  );
  const list = worth.map(({ offer, kept, plan }) => {
    const offered = kept ? undefined : asked.offers.get(offer.id);
    return consider(swapsOf(asked, plan, chain), {
      key: offered?.key ?? FITTED,
      piece: offered?.piece ?? open.fitted,
      source: offered?.source ?? { kind: "fitted" },
      plan,
      elsewhere: best ? differing(best, plan, seat, asked) : [],
    });
  });
  const out = thickness(open.fitted, open.link.tolerance);
  const sign = sheet.seats.find(({ link }) => link.id === seat)?.link.sign ?? 1;
  // What would be outside whatever the others get: shown for what it would do, nearest first.
  const told = new Set(all.map(({ offer }) => asked.offers.get(offer.id)?.key));
  const barred = new Set(asked.question.seats.find(({ id }) => id === seat)?.barred);
  const others = (asked.question.seats.find(({ id }) => id === seat)?.offers ?? []).flatMap(({ id }) => {
    const offered = asked.offers.get(id);
    const into = offered && thickness(offered.piece, open.link.tolerance);
    if (!offered || !into || !out || told.has(offered.key) || barred.has(id)) return [];
    return [consider([{ sign, removed: out, fitted: into }], { ...offered, plan: null, elsewhere: [] })];
  });
  list.push(...others.sort((a, b) => Math.abs(a.off) - Math.abs(b.off)));
  const listed = new Set([open.fitted.part, ...list.map(({ piece }) => piece.part)]);
  for (const size of open.link.sizes) {
    const { part, mark } = size;
    if (part === undefined || listed.has(part) || !out) continue;
    const piece: Piece = { part, mark, size: size.size };
    const into = thickness(piece, open.link.tolerance) ?? out;
    const source: Source = { kind: "order" };
    list.push(
      consider([{ sign, removed: out, fitted: into }], {
        key: part,
        piece,
        source,
        plan: null,
        elsewhere: [],
      }),
    );
  }
  return list.map((one, i) => ({
    ...one,
    reason: reasonFor(one, i === 0 && one.plan !== null, sheet.target, spec),
  }));
}

/** What a plan puts in the seats of a figure, for what is in them. */
export function swapsOf(asked: Asked, plan: Pick<JointPlan, "seats">, chain: string): Swap[] {
  const { sheet } = asked.sheets.get(chain) ?? {};
  return (sheet?.seats ?? []).flatMap(({ link }): Swap[] => {
    const open = asked.seats.get(link.id);
    const is = plan.seats.find((one) => one.seat === link.id);
    const offered = is?.offer && !is.kept ? asked.offers.get(is.offer.id) : undefined;
    const removed = open && thickness(open.fitted, link.tolerance);
    const fitted = offered && thickness(offered.piece, link.tolerance);
    return removed && fitted ? [{ sign: link.sign, removed, fitted }] : [];
  });
}

/** Seats that get something else by one plan than by another. */
function differing(one: JointPlan, other: JointPlan, but: string, { seats }: Asked): string[] {
  const first = new Map(one.seats.map(({ seat, offer }) => [seat, offer?.id]));
  return other.seats.flatMap(({ seat, offer }) =>
    seat !== but && seats.has(seat) && first.get(seat) !== offer?.id ? [seat] : [],
  );
}

function reasonFor(
  { chance, source, verdict, off }: SelectiveCandidate,
  best: boolean,
  target: Target,
  spec: Spec,
): string {
  const words: string[] = [];
  if (!isStated(spec)) words.push("no limit known");
  else if (chance < HOPELESS)
    words.push(verdict.kind === "outside" ? `would be too ${verdict.side}` : "hardly any chance");
  else if (chance < SURE) words.push("may miss the limit");
  else if (target.kind === "anywhere") words.push("inside, anywhere will do");
  else {
    const { min, max } = ends(spec);
    const share = Math.abs(off) / (max - min);
    const where = target.words === "the book’s" ? "the book’s target" : `the ${target.words}`;
    if (share < 0.06) words.push(`on ${where}`);
    else words.push(`${share < 0.2 ? "a little" : "well"} ${off > 0 ? "loose" : "tight"} of ${where}`);
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
    case "made":
      break;
    case "order":
      words.push(
        source.days === undefined
          ? "not on the shelf, and no price known"
          : `to be ordered, ${source.days} ${source.days === 1 ? "day" : "days"}`,
      );
      break;
  }
  return `${best && chance >= HOPELESS ? "Best: " : ""}${words.join("; ")}`;
}

/** One piece decided on for a seat, with what is expected then of every figure it moves. */
export interface Decided {
  seat: OpenSeat;
  piece: Piece;
  source: Source;
  predictions: Prediction[];
}

/**
 * What is expected once a piece is in a seat and all else stays as it is.
 *
 * @param key as the candidates are called.
 * @param going what a micrometer says of the piece going in, where somebody asked it.
 * @returns null where there is no such piece to be had.
 */
export function decided(asked: Together, seat: string, key: string, going?: Nm): Decided | null {
  const open = asked.seats.get(seat);
  const own = new Set(asked.question.seats.find(({ id }) => id === seat)?.offers.map(({ id }) => id));
  const offered = [...asked.offers].find(([id, one]) => own.has(id) && one.key === key)?.[1];
  if (!open || (key !== FITTED && !offered)) return null;
  if (key === FITTED && open.isTrial) return null;
  const kept = key === FITTED || !offered;
  const measured = going === undefined ? {} : { measured: going };
  const piece = kept ? open.fitted : { ...offered.piece, ...measured };
  const [removed, fitted] = [open.fitted, piece].map((one) => thickness(one, open.link.tolerance));
  const predictions = open.sheets.flatMap(({ applied: { chain, spec }, seats }): Prediction[] => {
    const now = asked.sheets.get(chain.id)?.now;
    const sign = seats.find(({ link }) => link.id === seat)?.link.sign;
    if (!now || !sign) return [];
    const { mean, expanded, ...rest } =
      kept || !removed || !fitted ? now : predict(now, [{ sign, removed, fitted }]);
    const chance = chanceInside({ mean, expanded, ...rest }, spec);
    return [{ chain: chain.id, mean, expanded, chance }];
  });
  return { seat: open, piece, source: kept ? { kind: "fitted" } : offered.source, predictions };
}
