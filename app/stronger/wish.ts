import { USES, type FactOf, type Use } from "~core/fact";
import {
  isSprungStack,
  strongerPlan,
  type Duty,
  type PlateStart,
  type StrongerPlan,
  type Wish,
} from "~core/capacity";
import type { Applied, SeatSize } from "~core/book";
import { counts } from "~core/pack";
import { torqueText, torqueUnit } from "./figures";
import { baseOf, parseMeasure, toNumber, type LengthUnit } from "~core/quantity";

/** What is asked for on the page, as its address has it. */
export interface Asked {
  /** As typed. */
  torque: string;
  use: Use;
  wish: Wish;
}

/** A stack by what tells it from the others: how many frictions, and whether a sprung plate is in. */
export const stackIn = (plates: StrongerPlan["packs"][number]["plates"]) => ({
  frictions: counts(plates).frictions,
  isSprung: isSprungStack(plates),
});

/** Sprung plates kept or left out: `5s`, `5`. */
export const stackText = ({ frictions, isSprung }: { frictions: number; isSprung: boolean }): string =>
  `${frictions}${isSprung ? "s" : ""}`;

/** @param decided what was decided before: it stands there until something else is asked for. */
export function askedIn(
  search: URLSearchParams,
  decided: FactOf<"stronger"> | null,
  usual: string,
  unit: LengthUnit,
): Asked {
  const body = search.has("asked") ? null : (decided?.body ?? null);
  const stacks = body
    ? body.packs.map(({ element, plates }) => [element, stackIn(plates)] as const)
    : search.getAll("stack").map((one) => {
        const [element = "", stack = ""] = one.split(" ");
        return [
          element,
          { frictions: Number.parseInt(stack, 10) || 0, isSprung: stack.endsWith("s") },
        ] as const;
      });
  const use = search.get("use") ?? body?.use;
  return {
    torque: search.get("torque") ?? (body ? torqueText(body.torque, unit) : usual),
    use: USES.codes.find((one) => one === use) ?? "usual",
    wish: {
      ways: body ? body.ways : search.getAll("way"),
      turns: body
        ? (body.turns ?? 0)
        : Math.min(MOST_TURNS, Math.max(0, Number(search.get("turns") ?? 0) || 0)),
      packs: new Map(stacks),
    },
  };
}

/** The address that asks for the same, but for what is changed. */
export function searchOf(asked: Asked, at: string, change: Partial<Wish> = {}): string {
  const { ways, turns, packs } = { ...asked.wish, ...change };
  const search = new URLSearchParams([
    ["asked", "1"],
    ["torque", asked.torque],
    ["use", asked.use],
    ["at", at],
    ...ways.map((way) => ["way", way]),
    ...(turns > 0 ? [["turns", `${turns}`]] : []),
    ...[...packs].map(([element, stack]) => ["stack", `${element} ${stackText(stack)}`]),
  ] as [string, string][]);
  return `?${search.toString()}`;
}

/** What the unit must take, or what is wrong with what was typed. */
export function dutyOf(asked: Asked, { present }: Applied, unit: LengthUnit): Duty | { problem: string } {
  if (asked.torque.trim() === "")
    return { problem: `Write what the engine gives, such as 300 ${torqueUnit(unit)}.` };
  const read = parseMeasure(asked.torque, "torque", torqueUnit(unit));
  if (!read.ok) return { problem: `${read.problem}; ${read.remedy}` };
  const torque = toNumber(baseOf(read.measure));
  if (torque < 1 || torque > 5_000)
    return { problem: "No engine of a vehicle gives that; check the figure and its unit." };
  const { behind } = present.unit;
  return {
    torque,
    stall: behind?.stall ?? 1,
    speed: behind ? toNumber(baseOf(behind.speed)) : 4_000,
    seconds: SHIFT_SECONDS,
    use: asked.use,
  };
}

/** More turns than these no regulator has. */
const MOST_TURNS = 20;

/** How long a shift is taken to slip at full throttle. */
export const SHIFT_SECONDS = 0.5;

/** What is decided, as the fact says it. */
export const decisionOf = (
  { ways, packs, cuts }: StrongerPlan,
  { use, wish: { turns } }: Asked,
  { torque }: Duty,
): Omit<FactOf<"stronger">["body"], "reason" | "kind"> => ({
  ways,
  ...(turns > 0 ? { turns } : {}),
  torque: Math.round(torque),
  use,
  packs,
  cuts,
});

/** A plan from what lies on the shelf, for the drums as they measure. */
export const planOf = (
  asBuilt: Applied,
  { wish }: Asked,
  onShelf: ReadonlySet<string>,
  starts: ReadonlyMap<string, PlateStart>,
): StrongerPlan =>
  strongerPlan(asBuilt, wish, ({ part }: SeatSize) => part === undefined || onShelf.has(part), starts);
