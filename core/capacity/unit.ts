import type { Applied, Book, Element, PackChain, Range, StackEntry, StrongerWay } from "../book";
import { baseOfTrain, behave, loadsOf } from "../gears";
import { countOf } from "../pack";
import { baseOf, compareMeasures, nm, toNumber, type Measure, type Nm, type Quantity } from "../quantity";
import { torqueOf, type BandGrip, type Grip, type PackGrip } from "./grip";
import { dragSpeed, facingSpeed, riseOf, shiftHeat, steelMass } from "./turning";

/** What a unit is used for: the harder, the more an element must have over. */
export type Use = "usual" | "towing" | "high-output";

/** How many times what it must carry an element should hold. */
export type Margins = Readonly<Record<Use, { standstill: number; shifting: number }>>;
/** Until a house sets its own: made up, as a rule of thumb may be. */
export const USUAL_MARGINS: Margins = {
  usual: { standstill: 1.15, shifting: 1.3 },
  towing: { standstill: 1.3, shifting: 1.5 },
  "high-output": { standstill: 1.4, shifting: 1.7 },
};

/** What the unit has to take. */
export interface Duty {
  /** Of the engine, N·m. */
  torque: number;
  /** What the converter makes of it at a standstill; 1 where there is none. */
  stall: number;
  /** Of the input at the shift, 1/min. */
  speed: number;
  /** How long a shift slips, seconds. */
  seconds: number;
  use: Use;
}

/** What is changed about one element: the stack it gets, and the ways that are taken. */
export interface Change {
  stack?: readonly StackEntry[];
  ways: readonly StrongerWay[];
  /** Turns of an adjustable regulator. */
  turns?: number;
}

/** What one element carries in one range. */
export interface Demand {
  range: string;
  /** Of the torque at the input, with its sense on the first member. */
  share: number;
  /** With the converter, N·m. */
  torque: number;
  /** Elements that hold the same, any of which may carry it all. */
  beside: string[];
  /** The sense in which what it holds is driven against it. */
  driven: "forward" | "backward";
}

/** How an element stands with what it has: enough, over nothing but less than wished, or slipping. */
export type Judged = "enough" | "thin" | "slips" | "unknown" | "unloaded";

/** What an element can take, as it is or as it would be. */
export interface Side {
  grip: Grip | null;
  /** What the book does not say, so that nothing can be worked out. */
  missing: string[];
  /** What it holds against its worst load, N·m. */
  torque: number | null;
  /** Capacity over demand in the worst range. */
  margin: number | null;
  worst: Demand | null;
  judged: Judged;
  /** The hardest shift it makes: heat in J, mass of its steels in kg, rise in K; null for what does not slip. */
  shift: {
    from: string;
    to: string;
    slip: number;
    joules: number;
    mass: number;
    rise: number;
    edge: number;
  } | null;
  /** Input speed from which it drags where its bleed is plugged, and in which range; null where it does not turn or is balanced. */
  drags: { drum: number; input: number; range: string } | null;
}

/** One element, as built and as planned. */
export interface ElementCapacity {
  element: Element;
  duty: "shifting" | "standstill";
  wanted: number;
  demands: Demand[];
  stock: Side;
  /** Null where nothing is planned for it. */
  planned: Side | null;
}

const numberOf = (measure: Measure | undefined): number => (measure ? toNumber(baseOf(measure)) : 0);
/** In metres. */
const metres = (length: Nm): number => length / 1e9;
const PASCALS = 1_000;
const SQUARE_METRES = 1e-6;

/**
 * What every element of a unit can carry beside what it must, in every range; what it must is solved from the gear train.
 *
 * @param applied the unit as this job has it. @param planned by element.
 * @returns the elements that ranges apply, in the book’s order.
 */
export function capacitiesOf(
  applied: Pick<Applied, "present" | "packs">,
  duty: Duty,
  planned: ReadonlyMap<string, Change> = new Map(),
  margins: Margins = USUAL_MARGINS,
): ElementCapacity[] {
  const { present } = applied;
  const demands = demandsOf(present, duty);
  return present.elements.flatMap((element): ElementCapacity[] => {
    const mine = demands.get(element.id);
    if (!mine || element.outside !== undefined) return [];
    const pack = applied.packs.find((one) => one.pack.element === element.id) ?? null;
    const engages = pack?.pack.duty ?? element.band?.duty ?? "standstill";
    const wanted = margins[duty.use][engages];
    const change = planned.get(element.id);
    // Plates of two versions are no stack: which it is must be seen first.
    const isUndecided = !pack && present.packs.some((one) => one.element === element.id);
    const side = (of: Change | null): Side => {
      const found = sideOf(present, element, pack, of, mine, wanted, duty);
      return isUndecided ? { ...found, missing: ["which version it is"] } : found;
    };
    return [
      {
        element,
        duty: engages,
        wanted,
        demands: mine,
        stock: side(null),
        planned: change ? side(change) : null,
      },
    ];
  });
}

/** The ranges a vehicle pulls away in: the lowest forward one, and every reverse. */
export function startsIn({ ranges }: Pick<Book, "ranges">): Set<string> {
  const lowest = Math.max(0, ...ranges.map(({ ratio }) => ratio));
  return new Set(ranges.filter(({ ratio }) => ratio < 0 || ratio === lowest).map(({ id }) => id));
}

/** What each element carries in each range, the heaviest first; elements that no range applies are not among them. */
export function demandsOf(
  present: Book,
  { torque, stall }: Pick<Duty, "torque" | "stall">,
): Map<string, Demand[]> {
  const base = baseOfTrain(present);
  const starts = startsIn(present);
  const held = new Map(Object.entries(present.unit.behind?.held ?? {}));
  const found = new Map<string, Demand[]>();
  for (const { id, applied, braking = [] } of present.ranges) {
    const loads = loadsOf(present, applied, base);
    for (const { element, share, beside } of loads?.loads ?? []) {
      const of = present.elements.find((one) => one.id === element);
      if (!of) continue;
      const carried = toNumber(share);
      const driven = drivenOf(of, carried, present);
      found.set(element, [
        ...(found.get(element) ?? []),
        {
          range: id,
          share: carried,
          torque: torque * (held.get(id) ?? 1) * (starts.has(id) ? stall : 1) * Math.abs(carried),
          beside,
          driven,
        },
      ]);
    }
    // What comes on under engine braking alone carries no drive; it is listed, with nothing to carry here.
    for (const element of braking) if (!found.has(element)) found.set(element, []);
  }
  for (const list of found.values()) list.sort((a, b) => b.torque - a.torque);
  return found;
}

/** The sense in which the train drives what an element holds: against what the element puts on it. */
function drivenOf({ joins }: Element, share: number, { train }: Book): Demand["driven"] {
  const onHeld = joins?.[0] === train.held ? share : -share;
  return onHeld > 0 ? "forward" : "backward";
}

function sideOf(
  present: Book,
  element: Element,
  pack: PackChain | null,
  change: Change | null,
  demands: readonly Demand[],
  wanted: number,
  duty: Duty,
): Side {
  const stack = change?.stack ?? pack?.stack ?? [];
  const { grip, missing } = gripOf(element, pack, stack, change);
  const margins = demands
    .filter(({ torque }) => torque > 0)
    .map((demand) => ({ demand, margin: grip ? torqueOf(grip, demand.driven) / demand.torque : null }));
  const [first] = margins;
  const worst = margins.reduce((a, b) => ((b.margin ?? Infinity) < (a?.margin ?? Infinity) ? b : a), first);
  const margin = worst?.margin ?? null;
  const turning = grip?.kind === "pack" && pack ? { grip, pack } : null;
  return {
    grip,
    missing,
    torque: grip && worst ? torqueOf(grip, worst.demand.driven) : null,
    margin,
    worst: worst?.demand ?? null,
    judged: judgedOf(first !== undefined, margin, wanted),
    shift: turning && hardestShift(present, element.id, turning.grip, stack, demands, duty),
    drags: turning && dragsOf(present, element, turning.pack, turning.grip),
  };
}

const judgedOf = (loaded: boolean, margin: number | null, wanted: number): Judged => {
  if (!loaded) return "unloaded";
  if (margin === null) return "unknown";
  if (margin < 1) return "slips";
  return margin < wanted ? "thin" : "enough";
};

/** Faces of a stack that rub. */
const surfacesOf = (stack: readonly StackEntry[]): number =>
  stack
    .filter(({ role }) => role === "friction")
    .reduce(
      (sum, entry) => sum + countOf(entry) * ((entry.faced ?? "both sides") === "both sides" ? 2 : 1),
      0,
    );

/** What the book would have to say of an element without plates and band. */
const LACKS: Readonly<Record<Element["kind"], string>> = {
  "one-way clutch": "what it is made to carry",
  synchroniser: "what it is made to carry",
  band: "its band and servo",
  clutch: "its plates",
  brake: "its plates",
};

/** What grips, with all that is changed; or what the book does not say of it. */
function gripOf(
  { kind, band, carries }: Element,
  pack: PackChain | null,
  stack: readonly StackEntry[],
  change: Change | null,
): { grip: Grip | null; missing: string[] } {
  const ways = change?.ways ?? [];
  /** Of several that change the same the strongest counts, in whichever order they are listed. */
  const strongest = <Q extends Quantity>(
    of: (way: StrongerWay) => Measure<Q> | undefined,
    stock?: Measure<Q>,
  ) => ways.map(of).reduce((a, b) => (b && (!a || compareMeasures(b, a) > 0) ? b : a), stock);
  const more = ways.reduce(
    (sum, { turns }) => sum + (turns ? Math.min(change?.turns ?? 0, turns.most) * numberOf(turns.each) : 0),
    0,
  );
  const pressure = (stock: Measure<"pressure">): number =>
    (numberOf(strongest((way) => way.pressure, stock)) + more) * PASCALS;
  if (band) {
    const grip: BandGrip = {
      kind: "band",
      friction: Math.max(band.friction, ...ways.map((way) => way.friction ?? 0)),
      drum: metres(band.drum),
      wrap: (numberOf(band.wrap) * Math.PI) / 180,
      area: numberOf(strongest((way) => way.area, band.area)) * SQUARE_METRES,
      spring: numberOf(band.spring),
      lever: band.lever,
      pressure: pressure(band.pressure),
      winds: band.winds,
    };
    return { grip, missing: [] };
  }
  if (!pack) {
    const rated = strongest((way) => way.carries, carries);
    return rated
      ? { grip: { kind: "rated", torque: numberOf(rated) }, missing: [] }
      : { grip: null, missing: [LACKS[kind]] };
  }
  const { facing, piston, spring, pressure: stockPressure } = pack.pack;
  const missing = [
    facing ? "" : "the radii of its facings",
    piston ? "" : "its piston’s area",
    spring ? "" : "its return spring’s force",
    stockPressure ? "" : "its pressure",
  ].filter(Boolean);
  if (!facing || !piston || !spring || !stockPressure) return { grip: null, missing };
  const grip: PackGrip = {
    kind: "pack",
    surfaces: surfacesOf(stack),
    friction: Math.max(facing.friction, ...ways.map(({ frictions }) => frictions?.friction ?? 0)),
    inner: metres(facing.inner),
    outer: metres(facing.outer),
    area: numberOf(strongest((way) => way.area, piston.area)) * SQUARE_METRES,
    spring: numberOf(spring.force),
    lever: spring.lever ?? 1,
    pressure: pressure(stockPressure),
  };
  return { grip, missing };
}

/** The shift up into a range that heats its steels most; null where it takes over in none with slip. */
function hardestShift(
  present: Book,
  element: string,
  { inner, outer }: PackGrip,
  stack: readonly StackEntry[],
  demands: readonly Demand[],
  { torque, speed, seconds }: Duty,
): Side["shift"] {
  const steels = stack.filter(({ role }) => role === "steel");
  const thick = steels.flatMap((entry) =>
    entry.thickness === undefined ? [] : [countOf(entry) * entry.thickness],
  );
  // Of steels nobody knows how thick they are, nobody knows how warm they get.
  if (thick.length === 0 || thick.length < steels.length) return null;
  const thickness = metres(nm(thick.reduce((sum, one) => sum + one, 0)));
  const mass = steelMass(inner, outer, thickness);
  const forward = present.ranges.filter(({ ratio }) => ratio > 0).sort((a, b) => b.ratio - a.ratio);
  const base = baseOfTrain(present);
  let hardest: Side["shift"] = null;
  forward.forEach((to: Range, i) => {
    const from = forward[i - 1];
    if (!from || from.applied.includes(element) || !to.applied.includes(element)) return;
    const slips = behave(present, from.applied, base).slips[element];
    const demand = demands.find(({ range }) => range === to.id);
    if (!slips || !demand) return;
    const slip = Math.abs(toNumber(slips)) * speed;
    const joules = shiftHeat(torque * Math.abs(demand.share), slip, seconds);
    if (joules > (hardest?.joules ?? 0))
      hardest = {
        from: from.id,
        to: to.id,
        slip,
        joules,
        mass,
        rise: riseOf(joules, mass),
        edge: facingSpeed(outer, slip),
      };
  });
  return hardest;
}

/** From which input speed its drum, released and with a plugged bleed, is pressed on by the fluid that turns along. */
function dragsOf(
  present: Book,
  { id, joins }: Element,
  { pack: { piston } }: PackChain,
  { spring }: PackGrip,
): Side["drags"] {
  if (!joins || !piston || piston.balanced === true || joins.includes(present.train.held)) return null;
  const drum = dragSpeed(metres(piston.inner) / 2, metres(piston.outer) / 2, spring);
  const base = baseOfTrain(present);
  const fastest = present.ranges
    .filter(({ applied }) => !applied.includes(id))
    .map((range) => {
      const { speeds } = behave(present, range.applied, base);
      const turns = joins.map((member) => Math.abs(toNumber(speeds[member] ?? { n: 0n, d: 1n })));
      return { range: range.id, turns: Math.max(...turns) };
    })
    .reduce((a, b) => (b.turns > a.turns ? b : a), { range: "", turns: 0 });
  return fastest.turns === 0 ? null : { drum, input: drum / fastest.turns, range: fastest.range };
}
