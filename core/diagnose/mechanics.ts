import type { Element } from "../book";
import { baseOfTrain, behave, membersOf, renamed, type Behaviour, type Train } from "../gears";
import { compare, type Rational } from "../quantity";
import type { MechanicalFault, Unit } from "./cause";

/**
 * A place of the lever, or a way of driving, that is asked about: a range, the same with its engine braking, neutral, or standing still with
 * gears preselected and both clutches open.
 */
export interface DrivingState {
  id: string;
  /** As people call it: `3`, `1 held by hand`, `N`. */
  name: string;
  kind: "range" | "manual" | "neutral" | "standing";
  range?: string;
  applied: readonly string[];
  /** What it does when nothing is wrong; null where it does not drive. */
  ratio: Rational | null;
  /** Elements that only engine braking needs. */
  braking: readonly string[];
  /** Gears that stand ready on the shaft of the other clutch while this one drives: those of the ranges next to it. */
  ready: readonly string[];
}

/**
 * What a row does with faults in: `drives` as it should; `lost`: no drive; `bind`: two gears at once; `other`: drives in another gear;
 * `coasts`: drives, without engine braking; `creeps`: drives where it should not.
 */
export type Effect =
  | { kind: "drives" | "lost" | "bind" | "coasts" | "creeps" }
  /** Whose ratio it has, when it is one of the unit's; lost gears of a synchroniser tell differently. */
  | { kind: "other"; range: string | null };

/** The rows of a unit in the order of its chart, neutral after them. */
export function drivingStates(unit: Unit): DrivingState[] {
  const base = baseOfTrain(unit);
  const states = unit.ranges.flatMap(({ id, applied, braking }, i): DrivingState[] => {
    const { ratio } = behave(unit, applied, base);
    const ready = readyBeside(unit, i);
    const row: DrivingState = {
      id: `range:${id}`,
      name: id,
      kind: "range",
      range: id,
      applied,
      ratio,
      braking: [],
      ready,
    };
    if (!braking) return [row];
    const held: DrivingState = {
      ...row,
      id: `manual:${id}`,
      name: `${id} held by hand`,
      kind: "manual",
      braking,
      applied: [...applied, ...braking],
    };
    return [row, held];
  });
  const idle = { ratio: null, braking: [], ready: [] };
  states.push({ id: "neutral", name: "N", kind: "neutral", applied: [], ...idle });
  const preselected = firstGears(unit);
  if (preselected.length > 0)
    states.push({
      id: "standing",
      name: "standing in gear",
      kind: "standing",
      applied: preselected,
      ...idle,
    });
  return states;
}

/** The clutch and the synchroniser of each range that has both. */
function shaftsOf(unit: Unit): ({ clutch: string; gear: string } | null)[] {
  const kinds = new Map(unit.elements.map(({ id, kind }) => [id, kind]));
  return unit.ranges.map(({ applied }) => {
    const clutch = applied.find((id) => kinds.get(id) === "clutch");
    const gear = applied.find((id) => kinds.get(id) === "synchroniser");
    return clutch && gear ? { clutch, gear } : null;
  });
}

/** The synchronisers that stand engaged at rest: those of the first range of each clutch. */
function firstGears(unit: Unit): string[] {
  const taken = new Set<string>();
  return shaftsOf(unit).flatMap((shaft) => {
    if (!shaft || taken.has(shaft.clutch)) return [];
    taken.add(shaft.clutch);
    return [shaft.gear];
  });
}

/** The gears of the ranges before and after this one that the other clutch would drive. */
function readyBeside(unit: Unit, at: number): string[] {
  const shafts = shaftsOf(unit);
  return [shafts[at - 1], shafts[at + 1]].flatMap((beside) =>
    beside && beside.clutch !== shafts[at]?.clutch ? [beside.gear] : [],
  );
}

const binds = ({ kind, fighting }: Behaviour): boolean =>
  fighting.length > 0 || kind === "tie-up" || kind === "output held";

/**
 * The train with a member parted: what is driven through it no longer is. The input and the output part from everything; another between its elements
 * and its gears; one that no element joins between its gears; one without gears from each of its elements.
 */
function parted<U extends Train>(unit: U, member: string): U {
  const at = (name: string, end: string): string => (name === member ? `${member}~${end}` : name);
  const { train, elements, gearSets } = unit;
  if (member === train.input || member === train.output)
    return {
      ...unit,
      members: [...unit.members, `${member}~end`],
      train: { ...train, input: at(train.input, "end"), output: at(train.output, "end") },
    };
  const joining = elements.filter(({ joins }) => joins?.includes(member));
  if (joining.length > 0)
    return {
      ...unit,
      members: [...unit.members, ...joining.map(({ id }) => `${member}~${id}`)],
      elements: elements.map((element) => ({
        ...element,
        joins: element.joins?.map((one) => at(one, element.id)) as Element["joins"],
      })),
    };
  const [, ...others] = gearSets.filter((set) => membersOf(set).includes(member));
  return {
    ...unit,
    members: [...unit.members, ...others.map(({ id }) => `${member}~${id}`)],
    gearSets: gearSets.map((set) => (others.includes(set) ? renamed(set, (name) => at(name, set.id)) : set)),
  };
}

const WORSE: Readonly<Record<Effect["kind"], number>> = {
  drives: 0,
  creeps: 1,
  coasts: 2,
  other: 3,
  bind: 4,
  lost: 5,
};

/** Solves rows with faults in, remembering what it has solved: most sets of faults leave the same elements on. */
export class Mechanics {
  private readonly parted = new Map<string, { unit: Unit; base: ReturnType<typeof baseOfTrain> }>();
  private readonly effects = new Map<string, Map<string, Effect>>();
  private readonly solved = new Map<string, Behaviour>();

  constructor(
    readonly unit: Unit,
    readonly rows: readonly DrivingState[] = drivingStates(unit),
  ) {}

  /** What a row does when these elements are at fault. */
  effect(row: DrivingState, faults: readonly MechanicalFault[]): Effect {
    const known = this.effects.get(row.id) ?? new Map<string, Effect>();
    this.effects.set(row.id, known);
    const key = faults.map(({ id }) => id).join();
    const found = known.get(key) ?? this.found(row, faults);
    known.set(key, found);
    return found;
  }

  private found(row: DrivingState, faults: readonly MechanicalFault[]): Effect {
    // What is applied outside the ranges, as the lock-up is, changes no range.
    const reckoned = faults.filter((one) => one.kind === "member" || one.element.outside === undefined);
    if (reckoned.length === 0) return { kind: "drives" };
    // A broken member and something else: the worse of the two. Solved together they would seldom differ, and each member would multiply the work.
    if (reckoned.length > 1 && reckoned.some(({ kind }) => kind === "member"))
      return reckoned
        .map((one) => this.effect(row, [one]))
        .reduce((a, b) => (WORSE[b.kind] > WORSE[a.kind] ? b : a));
    const found = this.behaviour(row.applied, reckoned);
    const drives = found.kind === "gear" && found.ratio !== null;
    if (row.ratio === null) return { kind: drives && found.fighting.length === 0 ? "creeps" : "drives" };
    if (binds(found)) return { kind: "bind" };
    if (!drives || !found.ratio) return { kind: "lost" };
    if (compare(found.ratio, row.ratio) !== 0) return { kind: "other", range: this.rangeOf(found.ratio) };
    // A clutch that hangs drives whatever gear stands ready on its shaft.
    if (row.ready.some((gear) => binds(this.behaviour([...row.applied, gear], reckoned))))
      return { kind: "bind" };
    const off = reckoned.some(
      (one) => one.kind === "element" && one.fault !== "on" && row.braking.includes(one.element.id),
    );
    return { kind: off ? "coasts" : "drives" };
  }

  private rangeOf(ratio: Rational): string | null {
    const same = this.rows.find(
      ({ kind, ratio: known }) => kind === "range" && known && compare(known, ratio) === 0,
    );
    return same?.range ?? null;
  }

  private behaviour(applied: readonly string[], faults: readonly MechanicalFault[]): Behaviour {
    const off: string[] = [];
    const on: string[] = [];
    const oneWay: string[] = [];
    const broken: string[] = [];
    for (const fault of faults) {
      if (fault.kind === "member") {
        if (fault.member !== null) broken.push(fault.member);
        off.push(...fault.moves);
        continue;
      }
      (fault.fault === "on" ? on : off).push(fault.element.id);
      if (fault.element.kind === "one-way clutch") oneWay.push(fault.id);
    }
    const elements = [
      ...applied.filter((id) => !off.includes(id)),
      ...on.filter((id) => !applied.includes(id)),
    ];
    const key = [elements.sort(), oneWay.sort(), broken.sort()].join(" ");
    const known = this.solved.get(key);
    if (known) return known;
    const { unit: whole, base } = this.trainWith(broken);
    const unit = oneWay.length === 0 ? whole : { ...whole, elements: elementsWith(whole, off, on) };
    const found = behave(unit, elements, base);
    this.solved.set(key, found);
    return found;
  }

  /** The train with these members parted, and what it is before any element is applied; made once each. */
  private trainWith(broken: readonly string[]): { unit: Unit; base: ReturnType<typeof baseOfTrain> } {
    const key = broken.join();
    const known = this.parted.get(key);
    if (known) return known;
    const unit = broken.reduce<Unit>(parted, this.unit);
    const made = { unit, base: baseOfTrain(unit) };
    this.parted.set(key, made);
    return made;
  }
}

/** A one-way clutch that does not hold is as good as not there; one locked both ways is a brake that is always on. */
function elementsWith({ elements }: Unit, off: readonly string[], on: readonly string[]): Element[] {
  return elements
    .filter(({ id, kind }) => kind !== "one-way clutch" || !off.includes(id))
    .map((element) =>
      element.kind === "one-way clutch" && on.includes(element.id) ? { ...element, kind: "brake" } : element,
    );
}
