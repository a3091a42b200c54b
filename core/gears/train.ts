import type { Book, Element, GearSet } from "../book";
import {
  isZero,
  multiply,
  negate,
  ONE,
  parseDecimal,
  rational,
  sign,
  subtract,
  ZERO,
  type Rational,
} from "../quantity";
import { combine, equation, isPossible, LinearSystem, tied, type Equation } from "./system";

/** The parts of a book that decide how it turns. */
export type Train = Pick<Book, "members" | "gearSets" | "elements" | "train">;

/** The members that gears of a set sit on. */
export const membersOf = (set: GearSet): string[] =>
  set.kind === "gear pair"
    ? [set.driver[0], set.driven[0]]
    : set.kind === "pulley pair"
      ? [set.primary, set.secondary]
      : [set.sun[0], set.ring[0], set.carrier];

/** The same gears on members of other names. */
export function renamed(set: GearSet, name: (member: string) => string): GearSet {
  if (set.kind === "gear pair")
    return {
      ...set,
      driver: [name(set.driver[0]), set.driver[1]],
      driven: [name(set.driven[0]), set.driven[1]],
    };
  if (set.kind === "pulley pair")
    return { ...set, primary: name(set.primary), secondary: name(set.secondary) };
  return {
    ...set,
    sun: [name(set.sun[0]), set.sun[1]],
    ring: [name(set.ring[0]), set.ring[1]],
    carrier: name(set.carrier),
  };
}

/** Where a variable pulley pair stands between its two ends, if the unit has one. */
export type PulleyEnd = "low" | "high";

/**
 * Speeds in a gear set, per domain practice: `Zs·ωs + Zr·ωr = (Zs+Zr)·ωc` for a simple set (Willis 1841), `Zr·ωr − Zs·ωs =
 * (Zr−Zs)·ωc` for a double-pinion one, opposite peripheral speeds where two gears mesh, and a given ratio for a pulley pair.
 *
 */
export function equationOf(set: GearSet, pulley: PulleyEnd): Equation {
  const of = (n: number): Rational => rational(n);
  switch (set.kind) {
    case "simple": {
      const [[sun, s], [ring, r]] = [set.sun, set.ring];
      return equation([sun, of(s)], [ring, of(r)], [set.carrier, of(-(s + r))]);
    }
    case "double-pinion": {
      const [[sun, s], [ring, r]] = [set.sun, set.ring];
      return equation([sun, of(-s)], [ring, of(r)], [set.carrier, of(s - r)]);
    }
    case "gear pair": {
      const { driver, driven, idlers = 0 } = set;
      // Each mesh turns the sense round; an idler adds one.
      const sense = idlers % 2 === 0 ? 1 : -1;
      return equation([driver[0], of(driver[1])], [driven[0], of(sense * driven[1])]);
    }
    case "pulley pair": {
      const ratio = pulley === "low" ? set.low : set.high;
      return equation([set.primary, ONE], [set.secondary, negate(parseDecimal(`${ratio}`) ?? ONE)]);
    }
  }
}

/** A held one-way clutch's relative speed would have this sign if it were let go and must be stopped. */
const blocked = (element: Element): -1 | 1 => (element.free === "backward" ? 1 : -1);

/** What a train does with some elements applied: its ratio, what is free, what binds. */
export interface Behaviour {
  /** `gear`: the output follows the input; `neutral`: it does not; `tie-up`: the input cannot turn; `output held`: only the output cannot. */
  kind: "gear" | "neutral" | "tie-up" | "output held";
  /** Turns of the input for one of the output; negative is reverse. Only in gear. */
  ratio: Rational | null;
  /** Every member's speed for one turn of the input; null where nothing decides it. */
  speeds: Readonly<Record<string, Rational | null>>;
  /** Every released element's slip, first member against second; null where nothing decides it. */
  slips: Readonly<Record<string, Rational | null>>;
  /** One-way clutches that hold by themselves. */
  holding: string[];
  /** One-way clutches that would have to turn the way they cannot. */
  fighting: string[];
  /** Motions left free, the input's among them. */
  freedom: number;
}

/** Whether it lets go by itself the other way round. */
export const isOneWay = ({ kind }: Element): boolean => kind === "one-way clutch";

/** The train with nothing applied: a base that every question starts from. */
export function baseOfTrain({ members, gearSets, train }: Train, pulley: PulleyEnd = "low"): LinearSystem {
  return LinearSystem.of(members, [
    new Map([[train.held, ONE]]),
    ...gearSets.map((set) => equationOf(set, pulley)),
  ]);
}

/**
 * What the unit does with these elements applied. One-way clutches look after themselves: one holds when driving would turn it the
 * way it cannot go, whether it is listed as applied or not; the others run free.
 *
 * @param applied ids of elements; one-way clutches among them are taken as a claim and left to the solver.
 * @param base a train's base from {@link baseOfTrain}, when many questions are asked of one train.
 */
export function behave(unit: Train, applied: readonly string[], base = baseOfTrain(unit)): Behaviour {
  const { elements, train } = unit;
  const on = new Set(applied);
  const ties = (system: LinearSystem, { joins }: Element): LinearSystem =>
    joins ? system.with(tied(joins[0], joins[1])) : system;
  const driven = elements.filter((e) => on.has(e.id) && !isOneWay(e)).reduce(ties, base);
  const holding = heldBy(driven, elements.filter(isOneWay), unit);
  const system = elements.filter(({ id }) => holding.includes(id)).reduce(ties, driven);
  // Asked one by one: whoever tries hundreds of faults wants the output and not every member.
  const members = new Set(unit.members);
  const known = new Map<string, Rational | null>();
  const speedOf = (member: string): Rational | null => {
    // An element may name what is no member, in a book that is being looked at.
    if (!members.has(member)) return null;
    const speed = known.get(member);
    if (speed !== undefined) return speed;
    const found = system.speedPer(member, train.input);
    known.set(member, found);
    return found;
  };
  const slipOf = ({ joins }: Element): Rational | null => {
    const [x, y] = joins ? [speedOf(joins[0]), speedOf(joins[1])] : [null, null];
    return x && y ? subtract(x, y) : null;
  };
  const released = elements.filter((e) => !on.has(e.id) && !holding.includes(e.id));
  const output = speedOf(train.output);
  const stuck = system.row(train.input).size === 0;
  const kind = stuck ? "tie-up" : output === null ? "neutral" : isZero(output) ? "output held" : "gear";
  return {
    kind,
    ratio: kind === "gear" && output ? rational(output.d, output.n) : null,
    get speeds() {
      return Object.assign(
        Object.create(null) as Record<string, Rational | null>,
        Object.fromEntries(unit.members.map((member) => [member, speedOf(member)])),
      );
    },
    get slips() {
      return Object.fromEntries(released.map((e) => [e.id, slipOf(e)]));
    },
    holding,
    fighting: released
      .filter((e) => isOneWay(e) && sign(slipOf(e) ?? ZERO) === blocked(e))
      .map(({ id }) => id),
    freedom: system.freedom,
  };
}

/** More one-way clutches than these never hold at once. */
const MOST_HOLDING = 4;

/**
 * Which one-way clutches hold, the input driving forward against a load at the output. It is one question for all of them together: those that
 * hold are each driven the way they cannot go, and there is a motion in which the others all turn the way they can; so neither their order nor
 * how many lie in one line matters. The fewest that answer it are the ones; where several alike share the load, all of them.
 *
 * @returns ids, in the order of `clutches`; none where clutches and brakes alone decide the output, or where all can run free.
 */
function heldBy(driven: LinearSystem, clutches: readonly Element[], { train }: Train): string[] {
  const { input, output } = train;
  if (clutches.length === 0 || driven.speedPer(output, input) !== null) return [];
  if (canTurn(driven.with(new Map([[output, ONE]])), clutches, input)) return [];
  for (const outcome of ["drives", "locks"] as const) {
    for (let size = 1; size <= Math.min(clutches.length, MOST_HOLDING); size++) {
      const answers = subsets(clutches, size).filter(
        (held) => whatHolding(driven, held, clutches, train) === outcome,
      );
      const all = new Set(answers.flat());
      if (all.size > 0) return clutches.filter((one) => all.has(one)).map(({ id }) => id);
    }
  }
  return [];
}

/** What becomes of the input when exactly these hold: null where a load or a motion would have the wrong sense. */
function whatHolding(
  driven: LinearSystem,
  held: readonly Element[],
  clutches: readonly Element[],
  { input, output }: Train["train"],
): "drives" | "locks" | null {
  const tie = (system: LinearSystem, { joins }: Element): LinearSystem =>
    joins ? system.with(tied(joins[0], joins[1])) : system;
  const loaded = held.every((one) => {
    const without = held.filter((other) => other !== one).reduce(tie, driven);
    if (without.speedPer(output, input) !== null) return false;
    // By virtual work the load on it has the sense in which it would turn with the vehicle standing.
    const standing = without.with(new Map([[output, ONE]]));
    if (!one.joins) return false;
    const [a, b] = one.joins;
    const [x, y] = [standing.speedPer(a, input), standing.speedPer(b, input)];
    return x !== null && y !== null && sign(subtract(x, y)) === blocked(one);
  });
  if (!loaded) return null;
  const turning = held.reduce(tie, driven);
  if (turning.row(input).size === 0) return "locks";
  const free = clutches.filter((one) => !held.includes(one));
  return turning.speedPer(output, input) !== null && canTurn(turning, free, input) ? "drives" : null;
}

/** Whether there is a motion with the input turning forward in which each of these turns the way it can. */
const canTurn = (system: LinearSystem, clutches: readonly Element[], input: string): boolean =>
  isPossible([
    { form: system.row(input), strict: true },
    ...clutches.flatMap((one) => {
      if (!one.joins) return [];
      const [a, b] = one.joins;
      const [first, second] = blocked(one) === 1 ? [b, a] : [a, b];
      return [{ form: combine(system.row(first), system.row(second), negate(ONE)), strict: false }];
    }),
  ]);

/** Every choice of so many. */
function subsets<T>(list: readonly T[], size: number): T[][] {
  if (size === 0) return [[]];
  return list.flatMap((first, i) => subsets(list.slice(i + 1), size - 1).map((rest) => [first, ...rest]));
}

/** The slip at an element from the speeds of input and output as read off, in the same unit as they are. */
export function slipAt(
  unit: Train,
  applied: readonly string[],
  slipping: string,
  speeds: { input: Rational; output: Rational },
): Rational | null {
  const element = unit.elements.find(({ id }) => id === slipping);
  if (!element?.joins) return null;
  const { input, output } = unit.train;
  const without = unit.elements
    .filter((e) => applied.includes(e.id) && e.id !== slipping)
    .reduce(
      (system, { joins }) => (joins ? system.with(tied(joins[0], joins[1])) : system),
      baseOfTrain(unit),
    );
  // Two speeds are known, so the element's two members are combinations of them when the rest of the train decides.
  const at = (member: string): Rational | null => {
    const fixedOut = without.with(new Map([[output, ONE]])).speedPer(member, input);
    const fixedIn = without.with(new Map([[input, ONE]])).speedPer(member, output);
    if (!fixedOut || !fixedIn) return null;
    return subtract(multiply(fixedOut, speeds.input), negate(multiply(fixedIn, speeds.output)));
  };
  const [a, b] = [at(element.joins[0]), at(element.joins[1])];
  return a && b ? subtract(a, b) : null;
}
