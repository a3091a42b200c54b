import type { Applied } from "../book";
import type { BodyOf, FactOf, Job, Way } from "../fact";
import { boughtOf } from "../pack";
import { isWanted, type PartState } from "./disposition";

/** One way on for a unit, with what it costs; money in whole cents. */
export interface Option {
  way: Way;
  fact: FactOf<"offer"> | null;
  /** Parts, kits or the other unit. */
  price: number;
  /** Where the price is from: somebody’s offer, or the prices the shop knows; null while it has none. */
  from: "offer" | "list" | null;
  hours: number;
  labour: number;
  /** Chance of a comeback, 0 to 1. */
  risk: number;
  /** Price + labour + risk × what a comeback costs. */
  expected: number;
}

/** What each way on costs and how long it takes, in cents of the house’s currency and hours. */
export interface Worth {
  options: Option[];
  /** The cheapest of those that are priced; null while fewer than two are. */
  best: Option | null;
  /** The rebuild’s chance of a comeback at which it costs what the cheapest other way does; null where none of 0 to 1 does. */
  breakEven: number | null;
  /** What a rebuild needs: parts to be replaced, with their price where it is known. */
  needs: { part: string; number: string; count: number; cents: number | null }[];
  /** Sum of the prices known. */
  known: number;
  /** Parts nobody has looked at: what a rebuild needs is not known before, and its list price stands for nothing. */
  unseen: number;
  /** Hours the book gives for what is still to be taken down and for building. */
  hours: number;
}

/** Ways on by which another unit is bought. */
export const OTHER_UNITS = ["reconditioned", "used"] as const;

/** What a whole unit is called among the prices. */
export const unitPart = (unit: string, way: (typeof OTHER_UNITS)[number]): string => `${unit}/${way}`;

/** Another unit that goes in instead of the one that is here. */
export interface OtherUnit {
  way: (typeof OTHER_UNITS)[number];
  decided: FactOf<"way-on">;
  offer: BodyOf<"offer"> | null;
  /** Parts that are renewed before it goes in. */
  renew: readonly string[];
}

/** @returns the other unit a lead decided on; null where this one is rebuilt. */
export function otherUnit(job: Pick<Job, "wayOn" | "offers">): OtherUnit | null {
  const decided = job.wayOn;
  const way = OTHER_UNITS.find((one) => one === decided?.body.way);
  if (!decided || !way) return null;
  const offer = job.offers.get(way)?.body ?? null;
  return { way, decided, offer, renew: offer?.renew ?? [] };
}

/** What is told of another unit that is offered: where it is from, how far it ran, its grade. */
export const toldOfUnit = (offer: BodyOf<"offer"> | null): string[] =>
  [offer?.source, offer?.distance, offer?.grade && `grade ${offer.grade}`].flatMap((one) => one || []);

/** What another unit is called, with what is told of it. */
export const otherUnitWords = ({ way, offer }: OtherUnit, name: string): string =>
  [`${way} ${name}`, ...toldOfUnit(offer)].join(", ");

/** What is promised on it, in words; none where nothing is. */
export const warrantyWords = (offer: BodyOf<"offer"> | null): string[] =>
  offer?.warranty ? [`warranty ${offer.warranty}`] : [];

/** Metal that has gone everywhere makes a comeback likelier, whatever is replaced. */
const USUAL_RISK: Readonly<Record<Way, number>> = { rebuild: 0.06, reconditioned: 0.04, used: 0.2 };
const METAL_RISK = 0.12;

/**
 * Rebuild, a reconditioned or a used unit: what each costs with its risk, for the lead to decide and the customer to see. A linear expectation;
 * the risks are what was typed, or the usual ones, which are guesses.
 *
 * @param states what becomes of each part.
 * @param prices cents by part number, and by `unitPart` for whole units, where they are known.
 * @param rate cents an hour.
 * @param comeback cents a comeback costs the shop.
 * @param metal whether metal has gone everywhere.
 */
export function worth(
  job: Job,
  { scoped, present }: Pick<Applied, "scoped" | "present">,
  states: readonly PartState[],
  {
    prices,
    rate,
    comeback,
    metal,
  }: { prices: ReadonlyMap<string, number>; rate: number; comeback: number; metal: boolean },
): Worth {
  const needs = states.filter(isWanted).map(({ part }) => ({
    part: part.name,
    number: part.number,
    count: boughtOf(present.packs, part),
    cents: prices.get(part.number) ?? null,
  }));
  const known = needs.reduce((sum, { cents, count }) => sum + (cents ?? 0) * count, 0);
  const open = (scoped.teardown ?? []).filter(({ id }) => job.steps.get(id)?.body.did !== "done");
  const minutes = [...open, ...(scoped.build ?? [])].reduce((sum, step) => sum + (step.minutes ?? 0), 0);
  const hours = Math.round((minutes / 60) * 10) / 10;
  const unseen = states.filter(({ is }) => is === null).length;
  // A rebuild whose parts nobody has looked at, or have no price yet, would win by what nobody knows.
  const listed = (way: Way): number | null =>
    way !== "rebuild"
      ? (prices.get(unitPart(present.unit.id, way)) ?? null)
      : unseen === 0 && needs.every(({ cents }) => cents !== null)
        ? known
        : null;
  const options = (["rebuild", "reconditioned", "used"] as const).map((way): Option => {
    const fact = job.offers.get(way) ?? null;
    const usual = way === "rebuild" && metal ? METAL_RISK : USUAL_RISK[way];
    const price = fact?.body.cents ?? listed(way) ?? (way === "rebuild" ? known : 0);
    const its = fact?.body.hours ?? (way === "rebuild" ? hours : 0);
    const risk = fact ? fact.body.risk / 100 : usual;
    const labour = Math.round(its * rate);
    return {
      way,
      fact,
      price,
      labour,
      risk,
      from: fact ? "offer" : listed(way) === null ? null : "list",
      hours: its,
      expected: Math.round(price + labour + risk * comeback),
    };
  });
  const priced = options.filter(({ from }) => from !== null);
  const best = priced.length < 2 ? null : priced.reduce((a, b) => (b.expected < a.expected ? b : a));
  const rebuild = options[0];
  const stated = rebuild && priced.includes(rebuild);
  const other = priced
    .filter(({ way }) => way !== "rebuild")
    .reduce<Option | null>((a, b) => (!a || b.expected < a.expected ? b : a), null);
  const even =
    rebuild && stated && other && comeback > 0
      ? (other.expected - rebuild.price - rebuild.labour) / comeback
      : null;
  const breakEven = even !== null && even >= 0 && even <= 1 ? even : null;
  return { options, best, breakEven, needs, known, unseen, hours };
}
