import { nm, type Nm } from "../../quantity";
import { Choice, type Chosen } from "./choice";
import { apartOf, groupsOf } from "./groups";
import { offerAt, resultOf, type Group, type Option, type Values } from "./options";
import { TERMS, type JointQuestion, type Offer, type Term } from "./question";

/** What is fitted in one seat by a plan. */
export interface SeatPlan {
  seat: string;
  /** Null where the seat is left open: nothing that can be had is better than nothing. */
  offer: Offer | null;
  kept: boolean;
}
/** What a figure comes to by a plan. */
export interface ChainPlan {
  chain: string;
  /** Null where one of its seats is left open. */
  mean: Nm | null;
  variance: number;
  isOutside: boolean;
}
/** A piece for every seat, and how good that is. */
export interface JointPlan {
  seats: SeatPlan[];
  chains: ChainPlan[];
  /** Relations that do not hold, by their place in the question. */
  broken: number[];
  values: Values;
  /** Whether nothing is better: else nothing can be better than `bound`, term by term in the question's order. */
  proven: boolean;
  bound: number[];
}

/** Ways the search looks at before it stops: a unit takes some hundreds, and forty jobs at once have taken three to six seconds at this. */
const EFFORT = 500_000;
/**
 * The best piece for every seat at once: lexicographically smallest in the question's terms, and proved so.
 *
 * Seats that share a figure or a relation are looked at together, way by way (`options`); what they take from the shelf is shared out exactly (`shared`);
 * where somebody has to wait, and among many, by linear programs one term after the other (`program`). What shares neither shelf nor job is solved apart.
 *
 * @throws RangeError for a name that is nothing's, or one that is two things'.
 */
export function chooseJointly(question: JointQuestion): JointPlan {
  const { terms = TERMS, effort = EFFORT } = question;
  const groups = groupsOf(question);
  const counts = question.lots.map(({ count }) => count);
  const options: Option[] = [];
  const all = apartOf(groups).map((part) => {
    const own = part.map((i) => groups[i] as Group);
    const chosen = new Choice(own, counts, terms, (effort * part.length) / groups.length).plan();
    for (const [k, i] of part.entries()) options[i] = chosen.options[k] as Option;
    return chosen;
  });
  return told(question, groups, { options, ...together(all, terms) });
}

/** Values of parts added up. Bounds too: what is in order one by one is in order together. */
function together(all: readonly Chosen[], terms: readonly Term[]): Pick<Chosen, "values" | "bound"> {
  const sum = (of: (one: Chosen) => number): number => all.reduce((total, one) => total + of(one), 0);
  const values = Object.fromEntries(
    TERMS.map((term) => [term, sum(({ values: own }) => own[term])]),
  ) as Values;
  if (all.every(({ bound }) => bound === null)) return { values, bound: null };
  return {
    values,
    bound: terms.map((term, i) => sum(({ values: own, bound }) => (bound ? (bound[i] ?? 0) : own[term]))),
  };
}

function told(
  question: JointQuestion,
  groups: readonly Group[],
  { options, values, bound }: Chosen,
): JointPlan {
  const seats: SeatPlan[] = question.seats.map(({ id }) => ({ seat: id, offer: null, kept: false }));
  const chains = new Map<string, ChainPlan>();
  for (const [i, { picks }] of options.entries()) {
    const group = groups[i] as Group;
    for (const [at, one] of group.seats.entries()) {
      const offer = offerAt(one, picks[at] ?? -1);
      const seat = question.seats[one.seat]?.id ?? "";
      seats[one.seat] = { seat, offer, kept: offer !== null && offer === one.fitted };
    }
    for (const one of group.chains) {
      const result = resultOf(one, group.seats, picks);
      const { id, min, max } = one.chain;
      chains.set(id, {
        chain: id,
        mean: result && nm(result.mean),
        variance: result?.variance ?? 0,
        isOutside: !result || result.mean < min || result.mean > max,
      });
    }
  }
  const mean = (id: string): number | null => chains.get(id)?.mean ?? null;
  const broken = (question.relations ?? []).flatMap(({ below, above, by }, i) => {
    const [low, high] = [mean(below), mean(above)];
    return low === null || high === null || low + by > high ? [i] : [];
  });
  return {
    seats,
    chains: question.chains.flatMap(({ id }) => chains.get(id) ?? []),
    broken,
    values,
    proven: bound === null,
    bound: bound ?? (question.terms ?? TERMS).map((term) => values[term]),
  };
}
