import { CODE_SORTS, ratioOf } from "../fact";
import { elementName, isMechanical, type Fault, type MechanicalFault, type Unit } from "./cause";
import { Mechanics, type Effect, type DrivingState } from "./mechanics";
import {
  AT_A_CHANGE,
  changeTable,
  COMMON_AT_CHANGE,
  COMMON_TABLES,
  DEBRIS,
  effectTable,
  FLUID,
  HELD_BY_HAND,
  IN_NEUTRAL,
  IN_RANGE,
  kindOf,
  OF_A_MOVING_RATIO,
  OF_THE_WHOLE,
  OUTSIDE,
  outsideTable,
  SCAN,
  spread,
  STANDING,
  type CheckTable,
  type Distribution,
} from "./model";

/** What sort of thing is asked: a range, a change, its feel, debris, a code, something outside the unit. */
export type QuestionKind =
  | "range"
  | "change"
  | "whole"
  | "air"
  | "tap"
  | "scan"
  | "speeds"
  | "fluid"
  | "debris"
  | "outside";

/** Something that can be asked of a unit before it is opened. */
export interface Question {
  id: string;
  kind: QuestionKind;
  /** What to do to know it. */
  name: string;
  /** Every answer; the first is the one when nothing is wrong. */
  outcomes: readonly string[];
  /** What it costs, in minutes of one person. */
  minutes: number;
  /** What a set of element faults answers together: what one does to a range depends on the other. */
  mechanical: ((faults: readonly MechanicalFault[]) => Distribution) | null;
  /** What one cause answers by itself. */
  alone: (cause: Fault) => Distribution;
}

/** Minutes of one person, as the shop counts them. */
const MINUTES: Readonly<Record<QuestionKind, number>> = {
  range: 6,
  change: 6,
  whole: 6,
  scan: 8,
  speeds: 12,
  fluid: 5,
  outside: 10,
  debris: 20,
  tap: 20,
  air: 75,
};

const NORMAL_CHECK = "nothing";

/** Every question a unit can be asked, rows of the lever first. */
export function questionsOf(unit: Unit, mechanics = new Mechanics(unit)): Question[] {
  const questions: Question[] = [
    ...mechanics.rows.map((row) => rowQuestion(row, mechanics)),
    ...changeQuestions(mechanics),
    wholeQuestion(unit),
    check("scan", "scan", "Read the codes", [NORMAL_CHECK, ...SCAN_OUTCOMES(unit)], SCAN),
    check("fluid", "fluid", "Look at the fluid and smell it", ["clear", "dark", "burnt", "milky"], FLUID),
    ...(Object.keys(DEBRIS) as (keyof typeof DEBRIS)[]).map((kind) =>
      check(`debris:${kind}`, "debris", `${DEBRIS_NAMES[kind]} in the pan`, ["none", "found"], DEBRIS[kind]),
    ),
    ...(Object.keys(OUTSIDE) as (keyof typeof OUTSIDE)[]).map((place) =>
      check(`outside:${place}`, "outside", OUTSIDE_NAMES[place], [NORMAL_CHECK, "found"], OUTSIDE[place]),
    ),
    ...tapQuestions(unit),
    ...mechanics.rows.flatMap((row) => speedsQuestion(row, mechanics)),
    ...airQuestions(unit),
  ];
  return questions.map((question) => ({
    ...question,
    alone: remembered(({ id }: Fault) => id, question.alone),
    mechanical: question.mechanical && remembered(faultsKey, question.mechanical),
  }));
}

/** What is worked out once per key: most sets of faults do the same to a row. */
function remembered<K, V>(keyOf: (given: K) => unknown, work: (given: K) => V): (given: K) => V {
  const known = new Map<unknown, V>();
  return (given) => {
    const key = keyOf(given);
    const found = known.get(key) ?? work(given);
    known.set(key, found);
    return found;
  };
}
const faultsKey = (faults: readonly MechanicalFault[]): string => faults.map(({ id }) => id).join();

/** Words for each kind of debris in the pan or filter. */
export const DEBRIS_NAMES: Readonly<Record<keyof typeof DEBRIS, string>> = {
  friction: "Friction material",
  steel: "Steel flakes or chunks",
  brass: "Brass or copper",
  aluminium: "Aluminium",
};
/** Words for each thing outside the unit that imitates a fault in it. */
export const OUTSIDE_NAMES: Readonly<Record<keyof typeof OUTSIDE, string>> = {
  engine: "Engine: misfire, mixture, its own codes",
  wiring: "Supply, earth, plugs and loom",
  driveline: "Mounts, shafts, joints, wheel bearings",
  neighbour: "Debris or play in the transfer case, axle or final drive",
};
const SCAN_OUTCOMES = (unit: Unit): string[] => {
  const hasForks = unit.elements.some(({ kind }) => kind === "synchroniser");
  return CODE_SORTS.codes.filter((sort) => hasForks || sort !== "place-or-travel-code");
};

function check(
  id: string,
  kind: QuestionKind,
  name: string,
  outcomes: readonly string[],
  table: CheckTable,
  of: (cause: Fault) => Readonly<Record<string, number>> = (cause) => table[kindOf(cause)] ?? {},
): Question {
  return {
    id,
    kind,
    name,
    outcomes,
    minutes: MINUTES[kind],
    mechanical: null,
    alone: (cause) => spread(outcomes, rest(outcomes, of(cause))),
  };
}

/** What is left over is normal. */
const rest = (
  outcomes: readonly string[],
  odd: Readonly<Record<string, number>>,
): Readonly<Record<string, number>> => ({
  [outcomes[0] ?? ""]: 0.96 - outcomes.reduce((sum, outcome) => sum + (odd[outcome] ?? 0), 0),
  ...odd,
});

const OUTCOMES: Readonly<Record<DrivingState["kind"], readonly string[]>> = {
  range: IN_RANGE,
  manual: HELD_BY_HAND,
  neutral: IN_NEUTRAL,
  standing: STANDING,
};
const DRIVE: Readonly<Record<DrivingState["kind"], (name: string) => string>> = {
  range: (name) => `Drive in ${name}`,
  manual: (name) => `Drive with ${name}`,
  neutral: () => "Rev it in neutral, wheels chocked",
  standing: () => "Stand in gear on the brake",
};

function rowQuestion(row: DrivingState, mechanics: Mechanics): Question {
  const moves = mechanics.unit.gearSets.some(({ kind }) => kind === "pulley pair") && row.kind === "range";
  const outcomes = [...OUTCOMES[row.kind], ...(moves ? OF_A_MOVING_RATIO : [])];
  // The same table gives the same chances: most sets of faults share one.
  const spreadOut = remembered(
    (table: Readonly<Record<string, number>>) => table,
    (table) => spread(outcomes, table),
  );
  const mechanical = (faults: readonly MechanicalFault[]): Distribution =>
    spreadOut(effectTable(mechanics.effect(row, faults), faults.filter(touches(row, mechanics))));
  return {
    id: row.id,
    kind: "range",
    name: DRIVE[row.kind](row.name),
    outcomes,
    minutes: MINUTES.range,
    mechanical,
    alone: (cause) =>
      isMechanical(cause) ? mechanical([cause]) : spread(outcomes, COMMON_TABLES[cause.kind]),
  };
}

/** What is heard when the next range is to come on: a flare belongs to a change and not to a range. */
function changeQuestions(mechanics: Mechanics): Question[] {
  const forward = mechanics.rows.filter(({ kind, ratio }) => kind === "range" && ratio && ratio.n > 0n);
  const outcomes = [...AT_A_CHANGE];
  return forward.slice(1).flatMap((into, i): Question[] => {
    const from = forward[i];
    if (!from) return [];
    const mechanical = (faults: readonly MechanicalFault[]): Distribution =>
      spread(outcomes, changeTable(mechanics.effect(into, faults).kind, mechanics.effect(from, faults).kind));
    return [
      {
        id: `change:${from.range}-${into.range}`,
        kind: "change",
        name: `Drive the change from ${from.name} to ${into.name}`,
        outcomes,
        minutes: MINUTES.change,
        mechanical,
        alone: (cause) =>
          isMechanical(cause) ? mechanical([cause]) : spread(outcomes, COMMON_AT_CHANGE[cause.kind]),
      },
    ];
  });
}

/** Of two faults, the one that takes the range away gives it its manner. */
const touches =
  (row: DrivingState, mechanics: Mechanics) =>
  (fault: MechanicalFault): boolean =>
    mechanics.effect(row, [fault]).kind !== "drives";

function wholeQuestion(unit: Unit): Question {
  const kinds = new Set(unit.elements.flatMap(({ outside }) => outside ?? []));
  const lockUp = kinds.has("converter");
  const axle = [...kinds].some((where) => where !== "converter");
  const dropped = new Set([
    ...(lockUp ? [] : ["revs-high-at-cruise"]),
    ...(axle ? [] : ["second-axle-not-driven"]),
  ]);
  const outcomes = OF_THE_WHOLE.filter((outcome) => !dropped.has(outcome));
  const table = (cause: Fault): Readonly<Record<string, number>> =>
    cause.kind === "element"
      ? (outsideTable(cause) ?? { nothing: 0.9 })
      : cause.kind === "member"
        ? { nothing: 0.85, "noise-in-every-range": 0.08 }
        : COMMON_TABLES[cause.kind];
  return {
    id: "whole",
    kind: "whole",
    name: "Ask about the vehicle as a whole",
    outcomes,
    minutes: MINUTES.whole,
    mechanical: null,
    alone: (cause) => spread(outcomes, table(cause)),
  };
}

function tapQuestions(unit: Unit): Question[] {
  return (unit.pressureTaps ?? []).map(({ id, name, element }) => {
    const outcomes = ["in-its-limits", "low", "high"];
    const odd = (cause: Fault): Readonly<Record<string, number>> => {
      if (cause.kind === "pressure") return { low: 0.82 };
      if (cause.kind === "control") return { low: 0.14, high: 0.14 };
      if (cause.kind === "variator") return { low: 0.15 };
      if (cause.kind !== "element" || cause.element.outside) return {};
      // A leak at one element takes a little from the whole.
      if (element === undefined)
        return cause.fault === "off" && kindOf(cause) === "friction" ? { low: 0.1 } : {};
      if (element !== cause.element.id) return {};
      return cause.fault === "on" ? { high: 0.45 } : { low: cause.fault === "off" ? 0.62 : 0.8 };
    };
    return check(`tap:${id}`, "tap", `${name} on a gauge`, outcomes, {}, odd);
  });
}

function airQuestions(unit: Unit): Question[] {
  const kept = new Set<string>();
  return (unit.airChecks ?? []).flatMap(({ element: id }) => {
    const element = unit.elements.find((one) => one.id === id);
    if (!element || kept.has(id)) return [];
    kept.add(id);
    const odd = (cause: Fault): Readonly<Record<string, number>> => {
      if (cause.kind === "pressure") return { leaks: 0.05 };
      if (cause.kind !== "element" || cause.element.id !== id) return {};
      // Air goes in behind the solenoid and the valve: an element that is only not fed holds it.
      if (cause.fault === "unfed") return { "does-not-move": 0.04 };
      return cause.fault === "off" ? { leaks: 0.72, "does-not-move": 0.12 } : { "does-not-let-go": 0.6 };
    };
    const outcomes = ["holds-and-lets-go", "leaks", "does-not-move", "does-not-let-go"];
    return [check(`air:${id}`, "air", `Air check of ${elementName(element)}`, outcomes, {}, odd)];
  });
}

/** What speeds read off while driving in a range can say: as listed, slipping, or another range's ratio. */
function speedsQuestion(row: DrivingState, mechanics: Mechanics): Question[] {
  if (row.kind !== "range" || row.ratio === null) return [];
  const others = mechanics.rows.filter(({ kind, id }) => kind === "range" && id !== row.id);
  const outcomes = ["as-listed", "slips", ...others.map(({ range = "" }) => ratioOf(range))];
  const of = (effect: Effect): Readonly<Record<string, number>> => {
    if (effect.kind === "lost") return { "as-listed": 0.07, slips: 0.9 };
    if (effect.kind === "bind") return { "as-listed": 0.6, slips: 0.25 };
    if (effect.kind === "other") {
      const ratio = effect.range === null ? "slips" : ratioOf(effect.range);
      return { "as-listed": 0.05, slips: 0.1, [ratio]: 0.85 };
    }
    return { "as-listed": 0.96, slips: 0.01 };
  };
  const COMMON = {
    pressure: 0.6,
    converter: 0.04,
    control: 0.15,
    mechanics: 0.15,
    variator: 0.5,
    gears: 0.02,
    elsewhere: 0.02,
  };
  const mechanical = (faults: readonly MechanicalFault[]): Distribution =>
    spread(outcomes, of(mechanics.effect(row, faults)));
  return [
    {
      id: `speeds:${row.range}`,
      kind: "speeds",
      name: `Read both speeds in ${row.range}`,
      outcomes,
      minutes: MINUTES.speeds,
      mechanical,
      alone: (cause) =>
        isMechanical(cause)
          ? mechanical([cause])
          : spread(outcomes, { "as-listed": 0.96 - COMMON[cause.kind], slips: COMMON[cause.kind] }),
    },
  ];
}
