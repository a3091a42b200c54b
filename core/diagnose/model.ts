import { CONDITIONS, type Condition } from "../fact";
import type { Fault, Common, ElementFault, MechanicalFault } from "./cause";
import type { Effect } from "./mechanics";

/*
 * The probability model, all of it. The figures are this shop's guesses, made up as everything in the demo is; docs/decisions/0008 says why
 * the model has this form. Each table gives, for one cause alone, how often a question is answered how. Questions are taken as independent once
 * the causes are known.
 */

/** How a question is answered, with its chance; the chances add up to one. The first outcome is the one when nothing is wrong. */
export type Distribution = ReadonlyMap<string, number>;

/** No answer is impossible: people mishear, misremember and drive differently. */
const FLOOR = 0.009;

/** Weights → chances over all outcomes, none of them nothing. */
export function spread(outcomes: readonly string[], weights: Readonly<Record<string, number>>): Distribution {
  const raw = outcomes.map((outcome): [string, number] => [outcome, (weights[outcome] ?? 0) + FLOOR]);
  const sum = raw.reduce((total, [, weight]) => total + weight, 0);
  return new Map(raw.map(([outcome, weight]) => [outcome, weight / sum]));
}

/** What can be said of a range. */
export const IN_RANGE = [
  "fine",
  "no-drive",
  "will-not-engage",
  "slips",
  "flares",
  "binds",
  "no-upshift",
  "stuck-in-it",
  "harsh",
  "delayed",
  "grabs-at-take-off",
  "clunks-on-and-off",
  "grinds",
  "noise",
  "shudders",
] as const;
/** Besides, where the ratio moves without steps. */
export const OF_A_MOVING_RATIO = ["stays-low", "stays-high", "judders-at-one-ratio"] as const;
/** What can be said of the change from one range to the next. */
export const AT_A_CHANGE = [
  "fine",
  "flares",
  "binds",
  "no-upshift",
  "slips",
  "harsh",
  "delayed",
  "shudders",
] as const;
export const HELD_BY_HAND = [...IN_RANGE, "no-engine-braking"] as const;
export const IN_NEUTRAL = ["stays", "moves-when-revved", "noise", "grinds"] as const;
export const STANDING = ["stays", "pulls-or-stalls", "noise"] as const;
export const OF_THE_WHOLE = [
  "nothing",
  "leaks",
  "stalls-at-standstill",
  "revs-high-at-cruise",
  "binds-in-tight-turns",
  "second-axle-not-driven",
  "noise-in-every-range",
] as const;

type Table = Readonly<Record<string, number>>;

/** How often a cause is the one, before anything is known; for elements by their kind. */
export function prior(cause: Fault): number {
  // A shaft or hub breaks seldom: less than one element fails, oftener than two at once.
  if (cause.kind === "member") return 0.005;
  if (cause.kind !== "element") return COMMON_PRIOR[cause.kind];
  const { element, fault } = cause;
  if (fault === "on") return 0.012;
  if (fault === "unfed") return 0.016;
  if (element.outside) return 0.02;
  return { clutch: 0.05, brake: 0.05, band: 0.06, "one-way clutch": 0.025, synchroniser: 0.03 }[element.kind];
}
const COMMON_PRIOR = {
  pressure: 0.04,
  converter: 0.04,
  control: 0.05,
  mechanics: 0.04,
  variator: 0.07,
  gears: 0.03,
  elsewhere: 0.05,
} as const;

const FRICTION_LOST: Table = {
  fine: 0.05,
  "no-drive": 0.4,
  slips: 0.3,
  flares: 0.09,
  delayed: 0.05,
  "no-upshift": 0.05,
  "will-not-engage": 0.02,
  shudders: 0.02,
  harsh: 0.01,
  "stuck-in-it": 0.005,
};
const ONE_WAY_LOST: Table = {
  fine: 0.03,
  "no-drive": 0.5,
  slips: 0.33,
  delayed: 0.03,
  "clunks-on-and-off": 0.02,
  harsh: 0.03,
  noise: 0.03,
};
/** A solenoid that does not open, a valve that hangs: nothing comes, where worn facings would still drag along. */
const UNFED: Table = {
  fine: 0.05,
  "no-drive": 0.62,
  slips: 0.1,
  "no-upshift": 0.1,
  flares: 0.05,
  delayed: 0.05,
};
const BROKEN: Table = {
  fine: 0.02,
  "no-drive": 0.75,
  slips: 0.06,
  noise: 0.06,
  "no-upshift": 0.05,
  grinds: 0.02,
  "clunks-on-and-off": 0.01,
};
const GEAR_LOST: Table = {
  fine: 0.03,
  "will-not-engage": 0.5,
  grinds: 0.16,
  "no-drive": 0.14,
  "no-upshift": 0.1,
  noise: 0.02,
  delayed: 0.02,
};
const BINDS: Table = {
  fine: 0.05,
  binds: 0.6,
  harsh: 0.09,
  "no-drive": 0.06,
  "no-upshift": 0.07,
  slips: 0.03,
  shudders: 0.03,
  "stuck-in-it": 0.02,
  "grabs-at-take-off": 0.02,
};
const OTHER_GEAR: Table = {
  fine: 0.08,
  "no-upshift": 0.28,
  "stuck-in-it": 0.08,
  slips: 0.2,
  flares: 0.2,
  binds: 0.06,
  harsh: 0.03,
  "no-drive": 0.04,
  delayed: 0.02,
};
/** A gear that is found where it should not be grows when its own range is the one asked for. */
const DRIVES: Table = { fine: 0.9, stays: 0.9 };

const COASTS: Table = { fine: 0.3, "no-engine-braking": 0.6, slips: 0.03 };
const CREEPS: Table = { stays: 0.1, "moves-when-revved": 0.85, "pulls-or-stalls": 0.85 };

/** What a row's lever does under faults of elements. */
export function effectTable(effect: Effect, all: readonly MechanicalFault[]): Table {
  const faults = all.filter((one): one is ElementFault => one.kind === "element");
  switch (effect.kind) {
    case "drives":
      return DRIVES;
    case "lost":
      // A broken fork is felt as what it no longer moves: the gears do not go in.
      if (all.some((one) => one.kind === "member" && one.member !== null)) return BROKEN;
      if (faults.length < all.length) return GEAR_LOST;
      if (faults.length > 0 && faults.every(({ fault }) => fault === "unfed")) return UNFED;
      if (faults.some(({ element }) => element.kind === "synchroniser")) return GEAR_LOST;
      return faults.some(({ element }) => element.kind === "one-way clutch") ? ONE_WAY_LOST : FRICTION_LOST;
    case "bind":
      return BINDS;
    case "other":
      return OTHER_GEAR;
    case "coasts":
      return COASTS;
    case "creeps":
      return CREEPS;
  }
}

/** What the causes that are no element do in any range, in neutral, standing, and as a whole. */
export const COMMON_TABLES: Readonly<
  Record<"pressure" | "converter" | "control" | "mechanics" | "variator" | "gears" | "elsewhere", Table>
> = {
  pressure: {
    fine: 0.14,
    slips: 0.31,
    "no-drive": 0.15,
    delayed: 0.17,
    flares: 0.1,
    shudders: 0.05,
    "stays-low": 0.05,
    "judders-at-one-ratio": 0.02,
    noise: 0.04,
    stays: 0.9,
    nothing: 0.75,
    "noise-in-every-range": 0.1,
    leaks: 0.08,
  },
  converter: {
    fine: 0.45,
    shudders: 0.2,
    "no-drive": 0.08,
    slips: 0.08,
    noise: 0.07,
    delayed: 0.05,
    stays: 0.9,
    nothing: 0.5,
    "noise-in-every-range": 0.18,
    "revs-high-at-cruise": 0.15,
    "stalls-at-standstill": 0.07,
    leaks: 0.06,
  },
  control: {
    fine: 0.5,
    harsh: 0.13,
    flares: 0.07,
    "no-upshift": 0.1,
    delayed: 0.06,
    "stuck-in-it": 0.05,
    "stays-low": 0.07,
    "stays-high": 0.05,
    slips: 0.02,
    "no-drive": 0.02,
    "grabs-at-take-off": 0.03,
    "will-not-engage": 0.02,
    stays: 0.93,
    nothing: 0.85,
    "revs-high-at-cruise": 0.05,
    "stalls-at-standstill": 0.03,
  },
  mechanics: {
    fine: 0.45,
    "will-not-engage": 0.28,
    grinds: 0.08,
    "stuck-in-it": 0.07,
    noise: 0.04,
    "no-drive": 0.04,
    "clunks-on-and-off": 0.01,
    stays: 0.9,
    nothing: 0.9,
  },
  variator: {
    fine: 0.2,
    slips: 0.17,
    flares: 0.15,
    shudders: 0.2,
    noise: 0.12,
    "no-upshift": 0.08,
    "stuck-in-it": 0.04,
    "stays-low": 0.12,
    "stays-high": 0.08,
    "judders-at-one-ratio": 0.16,
    stays: 0.93,
    nothing: 0.75,
    "noise-in-every-range": 0.15,
  },
  gears: {
    fine: 0.4,
    noise: 0.4,
    grinds: 0.07,
    "clunks-on-and-off": 0.08,
    stays: 0.8,
    nothing: 0.35,
    "noise-in-every-range": 0.5,
    leaks: 0.04,
  },
  elsewhere: {
    fine: 0.58,
    shudders: 0.1,
    noise: 0.09,
    "clunks-on-and-off": 0.09,
    "no-drive": 0.02,
    slips: 0.02,
    "no-upshift": 0.03,
    stays: 0.95,
    nothing: 0.55,
    "noise-in-every-range": 0.15,
    "binds-in-tight-turns": 0.08,
    leaks: 0.05,
    "second-axle-not-driven": 0.04,
  },
};

/** What is heard at a change into a range that does so, from one that drives or does not. */
export function changeTable(into: Effect["kind"], from: Effect["kind"]): Table {
  const drove = from === "drives" || from === "coasts";
  if (into === "lost" || into === "other")
    return drove
      ? { fine: 0.06, flares: 0.48, "no-upshift": 0.26, slips: 0.1, delayed: 0.04 }
      : { fine: 0.35, flares: 0.1, "no-upshift": 0.2, slips: 0.2 };
  if (into === "bind")
    return drove
      ? { fine: 0.06, binds: 0.6, harsh: 0.13, "no-upshift": 0.1, shudders: 0.04 }
      : { fine: 0.3, binds: 0.35, harsh: 0.1, "no-upshift": 0.1 };
  return { fine: 0.9, flares: 0.01, harsh: 0.02 };
}
/** What the causes that are no element do at every change. */
export const COMMON_AT_CHANGE: Readonly<Record<Common, Table>> = {
  pressure: { fine: 0.22, flares: 0.32, slips: 0.14, delayed: 0.18, shudders: 0.04 },
  converter: { fine: 0.75, shudders: 0.12, harsh: 0.03 },
  control: { fine: 0.34, harsh: 0.22, flares: 0.12, "no-upshift": 0.14, delayed: 0.08, binds: 0.04 },
  mechanics: { fine: 0.55, "no-upshift": 0.25, harsh: 0.05, delayed: 0.05 },
  variator: { fine: 0.7, shudders: 0.1, slips: 0.08 },
  gears: { fine: 0.88, harsh: 0.03 },
  elsewhere: { fine: 0.84, harsh: 0.04, shudders: 0.05 },
};

/** What a fault of an element outside the ranges does as a whole: a lock-up, a clutch to a second axle. */
export function outsideTable({ element, fault }: ElementFault): Table | null {
  if (!element.outside) return null;
  if (element.outside === "converter")
    return fault === "on"
      ? { nothing: 0.08, "stalls-at-standstill": 0.87 }
      : { nothing: 0.15, "revs-high-at-cruise": 0.8 };
  return fault === "on"
    ? { nothing: 0.1, "binds-in-tight-turns": 0.85 }
    : { nothing: 0.15, "second-axle-not-driven": 0.8 };
}

type CauseKind =
  | ("friction" | "one-way" | "synchroniser" | "outside" | "stuck" | "unfed")
  | Exclude<Fault["kind"], "element">;

/** What decides the tables of checks: what an element is made of, or that it hangs. */
export function kindOf(cause: Fault): CauseKind {
  if (cause.kind !== "element") return cause.kind;
  if (cause.fault === "on") return "stuck";
  if (cause.fault === "unfed") return "unfed";
  if (cause.element.outside) return "outside";
  if (cause.element.kind === "one-way clutch") return "one-way";
  return cause.element.kind === "synchroniser" ? "synchroniser" : "friction";
}

/** When a symptom of a cause shows, if somebody says when. */
const WHEN: Readonly<Record<CauseKind, readonly [cold: number, hot: number, light: number, full: number]>> = {
  friction: [0.12, 0.3, 0.05, 0.53],
  "one-way": [0.1, 0.2, 0.2, 0.5],
  synchroniser: [0.45, 0.25, 0.15, 0.15],
  outside: [0.15, 0.3, 0.3, 0.25],
  stuck: [0.35, 0.35, 0.15, 0.15],
  unfed: [0.25, 0.35, 0.15, 0.25],
  member: [0.2, 0.25, 0.2, 0.35],
  pressure: [0.07, 0.58, 0.08, 0.27],
  converter: [0.08, 0.27, 0.5, 0.15],
  control: [0.3, 0.35, 0.2, 0.15],
  mechanics: [0.4, 0.25, 0.2, 0.15],
  variator: [0.1, 0.25, 0.3, 0.35],
  gears: [0.2, 0.3, 0.2, 0.3],
  elsewhere: [0.2, 0.15, 0.2, 0.45],
};
export const conditionChance = (cause: Fault, condition: Condition): number =>
  WHEN[kindOf(cause)][CONDITIONS.codes.indexOf(condition)] ?? 1;

/** Chances of what is not normal, by kind of cause; a kind that is not named does nothing to it. */
export type CheckTable = Readonly<Partial<Record<CauseKind, Table>>>;

export const SCAN: CheckTable = {
  friction: { "ratio-or-slip-code": 0.5 },
  "one-way": { "ratio-or-slip-code": 0.35 },
  synchroniser: { "ratio-or-slip-code": 0.2, "electrical-code": 0.05, "place-or-travel-code": 0.5 },
  outside: { "ratio-or-slip-code": 0.3, "electrical-code": 0.1 },
  stuck: { "ratio-or-slip-code": 0.4, "electrical-code": 0.08 },
  unfed: { "electrical-code": 0.4, "ratio-or-slip-code": 0.35 },
  member: { "ratio-or-slip-code": 0.5 },
  pressure: { "ratio-or-slip-code": 0.5, "electrical-code": 0.05 },
  converter: { "ratio-or-slip-code": 0.25 },
  control: { "electrical-code": 0.55, "ratio-or-slip-code": 0.12 },
  mechanics: { "place-or-travel-code": 0.6 },
  variator: { "ratio-or-slip-code": 0.55 },
  gears: {},
  elsewhere: { "engine-or-vehicle-code": 0.45 },
};
export const FLUID: CheckTable = {
  friction: { burnt: 0.4, dark: 0.25 },
  "one-way": { dark: 0.15 },
  outside: { burnt: 0.1, dark: 0.3 },
  stuck: { burnt: 0.3, dark: 0.25 },
  unfed: { burnt: 0.1, dark: 0.2 },
  member: { dark: 0.15 },
  pressure: { burnt: 0.25, dark: 0.3, milky: 0.03 },
  converter: { burnt: 0.12, dark: 0.35 },
  variator: { burnt: 0.1, dark: 0.4 },
  gears: { dark: 0.15 },
};
export const DEBRIS: Readonly<Record<"friction" | "steel" | "brass" | "aluminium", CheckTable>> = {
  friction: {
    friction: { found: 0.65 },
    outside: { found: 0.4 },
    stuck: { found: 0.5 },
    unfed: { found: 0.2 },
    pressure: { found: 0.3 },
    converter: { found: 0.35 },
  },
  steel: {
    "one-way": { found: 0.6 },
    synchroniser: { found: 0.35 },
    member: { found: 0.7 },
    mechanics: { found: 0.3 },
    pressure: { found: 0.15 },
    converter: { found: 0.15 },
    variator: { found: 0.65 },
    gears: { found: 0.75 },
  },
  brass: {
    synchroniser: { found: 0.5 },
    pressure: { found: 0.25 },
    gears: { found: 0.3 },
    mechanics: { found: 0.1 },
  },
  aluminium: {
    pressure: { found: 0.35 },
    converter: { found: 0.2 },
    mechanics: { found: 0.2 },
    control: { found: 0.08 },
  },
};
/** What speaks for a fault outside this unit. */
export const OUTSIDE: Readonly<Record<"engine" | "wiring" | "driveline" | "neighbour", CheckTable>> = {
  engine: { elsewhere: { found: 0.55 } },
  wiring: { elsewhere: { found: 0.3 }, control: { found: 0.2 }, unfed: { found: 0.12 } },
  driveline: { elsewhere: { found: 0.45 }, gears: { found: 0.08 } },
  neighbour: { elsewhere: { found: 0.35 } },
};
