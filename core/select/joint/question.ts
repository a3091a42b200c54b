import type { Nm } from "../../quantity";

/** Pieces of one kind that lie in one place: so many can be taken, by whichever seats want them. A piece that is fitted now is a lot of one. */
export interface Lot {
  id: string;
  count: number;
}

/** A piece that could be fitted in a seat, or an amount that could be machined off: what it is, where it comes from, and what it costs. */
export interface Offer {
  /** Stable within its seat. */
  id: string;
  /** What it adds to its chains, before their signs. */
  adds: Nm;
  /** Of what it adds, in whole nm². */
  variance: number;
  /** The lot it is taken from; absent for what there is no end of: ordered, machined, screwed. */
  lot?: string;
  /** Until it is in hand, in whole days. */
  days?: number;
  /** In cents. */
  money?: number;
  /** How much the coming work is likely to miss it, in whole points. */
  scarce?: number;
}

/** One place where one selective sits. */
export interface Seat {
  id: string;
  /** Seats of one job are ready together. */
  job?: string;
  /** What is in now: kept, it changes nothing and adds no uncertainty. */
  fitted?: Offer;
  /** Shared by reference where seats take from one series. */
  offers: readonly Offer[];
  /** The offer a person has decided on: nothing else is put in. */
  pinned?: string;
  /** Offers a person does not want here. */
  barred?: readonly string[];
}

/** A figure that seats move: `result = rest + Σ sign·adds`. */
export interface JointChain {
  id: string;
  seats: readonly { seat: string; sign: 1 | -1 }[];
  /** The result without what its seats add: measured in a trial fit less what was in, or summed from its links. */
  rest: Nm;
  /** Of the rest, in whole nm²; for a trial fit that of the measured result. */
  variance: number;
  /** Σ u⁴/dof of the measured result (JCGM 100:2008 G.4); 0 where all is known as well as can be. */
  scatter?: number;
  min: Nm;
  max: Nm;
  /** Where it should lie; absent where anywhere inside is as good. */
  target?: Nm;
}

/** One result stands below another by at least so much. */
export interface Relation {
  below: string;
  above: string;
  by: Nm;
}

/** What a plan is judged by, in whole numbers that are better when smaller. */
export type Term = "outside" | "order" | "chance" | "ready" | "money" | "changed" | "scarce" | "target";

/** The order that holds unless the shop has another: what a term before says no later one takes back. */
export const TERMS: readonly Term[] = [
  ...(["outside", "order", "chance", "ready", "money", "changed", "scarce", "target"] as const),
];

/** What a shop may put first once nothing is outside, no order is wrong and nothing is surer. */
export const FIRST = ["ready", "money", "changed", "scarce", "target"] as const satisfies readonly Term[];
/** One of them. */
export type ChooseFirst = (typeof FIRST)[number];
/** The order of terms of a shop that puts one of them first. */
export const termsWith = (first: ChooseFirst): Term[] => [
  ...TERMS.filter((term) => !FIRST.some((one) => one === term)),
  first,
  ...FIRST.filter((one) => one !== first),
];

/** What is to be chosen together: the seats of a unit, or of several open jobs that take from one shelf. */
export interface JointQuestion {
  seats: readonly Seat[];
  chains: readonly JointChain[];
  relations?: readonly Relation[];
  lots: readonly Lot[];
  terms?: readonly Term[];
  /** How many ways the search looks at before it stops proving; enough for some seconds unless told otherwise. */
  effort?: number;
}
