import {
  isDecided,
  isFromShelf,
  type Applied,
  type SeatSize,
  type StackEntry,
  type StrongerWay,
  type Strengthening,
} from "../book";
import { countOf, nominalGap } from "../pack";
import { nm, type Nm } from "../quantity";
import { platePlans, type PlatePlan, type PlateStart } from "./plates";
import type { Change } from "./unit";

/** What somebody would like to make stronger. */
export interface Wish {
  /** Ways of the book that may be taken. */
  ways: readonly string[];
  /** By pack: how many frictions, and whether its sprung plate stays; where it is not said, as many as fit with it kept. */
  packs: ReadonlyMap<string, { frictions: number; isSprung: boolean }>;
  /** Turns of an adjustable regulator. */
  turns: number;
}

type PlannedPlate = Strengthening["packs"][number]["plates"][number];

/** A wish as it can be built. */
export interface StrongerPlan {
  /** The ways that are made use of; plates and metal that nothing needs are not. */
  ways: string[];
  packs: { element: string; plates: PlannedPlate[]; min: Nm; max: Nm; predicted: Nm }[];
  /** The piece that closes each of these packs; null where there is none to choose. */
  rings: Map<string, SeatSize | null>;
  cuts: Strengthening["cuts"][number][];
  /** By element, for {@link capacitiesOf}. */
  changes: Map<string, Change>;
  /** Every stack that fits, by pack. */
  fitting: Map<string, PlatePlan[]>;
}

/** What a limit is told to: a hundredth of a millimetre, half a thousandth of an inch. */
const STEPS = { mm: nm(10_000), in: nm(12_700) } as const;

/**
 * What of a wish can be built: the stacks that fit, solved by the sum each clearance is.
 *
 * @param applied the unit as it was built. @param isThere whether a size lies on the shelf.
 * @param starts by pack: how its own drum measures with the stock plates and a known piece in; the others go by the book’s.
 */
export function strongerPlan(
  applied: Pick<Applied, "present" | "packs">,
  wish: Wish,
  isThere: (size: SeatSize) => boolean = () => true,
  starts: ReadonlyMap<string, PlateStart> = new Map(),
): StrongerPlan {
  const allowed = (applied.present.stronger ?? []).filter(({ id }) => wish.ways.includes(id));
  const plan: StrongerPlan = {
    ways: [],
    packs: [],
    rings: new Map(),
    cuts: [],
    changes: new Map(),
    fitting: new Map(),
  };
  const taken = new Set(allowed.filter((way) => !isOfPlates(way)).map(({ id }) => id));
  const step = STEPS[applied.present.unit.lengthUnit];
  for (const pack of applied.packs) {
    const { element } = pack.pack;
    const ofPlates = allowed.filter((way) => isOfPlates(way) && way.elements.includes(element));
    if (ofPlates.length === 0) continue;
    const seat = pack.seats.find((one) => isDecided(one) && isFromShelf(one));
    const ring = seat?.sizes[Math.floor(seat.sizes.length / 2)]?.size ?? null;
    const start = starts.get(element) ?? { gap: nominalGap(pack, null), ring };
    const fitting = platePlans(pack, ofPlates, start, isThere, step);
    plan.fitting.set(element, fitting);
    const wanted = wish.packs.get(element);
    const sprung = fitting.filter(({ isSprung }) => isSprung);
    const best =
      fitting.find((one) => one.frictions === wanted?.frictions && one.isSprung === wanted.isSprung) ??
      fitting.find((one) => one.frictions === wanted?.frictions) ??
      (sprung.length > 0 ? sprung : fitting).at(-1);
    if (!best || best.ways.length === 0) continue;
    for (const id of best.ways) taken.add(id);
    const used = ofPlates.filter(({ id }) => best.ways.includes(id));
    plan.packs.push({
      element,
      plates: best.stack.map((entry) => plateOf(entry, used)),
      min: best.limits.min,
      max: best.limits.max,
      predicted: best.gap,
    });
    plan.rings.set(element, best.ring);
    plan.changes.set(element, { stack: best.stack, ways: used, turns: wish.turns });
    plan.cuts.push(...best.cuts);
  }
  for (const way of allowed.filter(({ id }) => taken.has(id)))
    for (const element of way.elements) {
      const known = plan.changes.get(element) ?? { ways: [], turns: wish.turns };
      if (!known.ways.includes(way)) plan.changes.set(element, { ...known, ways: [...known.ways, way] });
    }
  plan.ways = allowed.map(({ id }) => id).filter((id) => taken.has(id));
  return plan;
}

/** Whether it is done to the plates of a pack. */
export const isOfPlates = ({ steels, frictions, apply, reaction, without, cut }: StrongerWay): boolean =>
  [steels, frictions, apply, reaction, without, cut].some((one) => one !== undefined);

/** A plate of the plan, with the number it is bought by where it is not the stock one. */
function plateOf(entry: StackEntry, used: readonly StrongerWay[]): PlannedPlate {
  const { role, part, thickness } = entry;
  const is = {
    steel: "steels",
    friction: "frictions",
    "apply plate": "apply",
    "reaction plate": "reaction",
  } as const;
  const what = Object.hasOwn(is, role) ? is[role as keyof typeof is] : null;
  // A way may bring several plates, and not all of them need go in.
  const number = what ? used.find((way) => way[what]?.thickness === thickness)?.[what]?.number : undefined;
  // No plan is made of a pack of which a plate’s thickness is not known.
  return {
    role,
    part,
    thickness: thickness as Nm,
    count: countOf(entry),
    ...(number === undefined ? {} : { number }),
  };
}
