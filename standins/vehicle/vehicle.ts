import { chanceOf } from "../chance";

/** What can be planted in the simulated vehicle. */
export const PLANTED = [
  ...(["nothing", "low-fluid", "low-pressure", "leak", "not-learning", "plug-off"] as const),
] as const;
export type Planted = (typeof PLANTED)[number];

/** A vehicle on a lift, as the scan tool and whoever stands there see it. */
export interface Vehicle {
  engine: "off" | "running";
  /** Of the engine, rpm. */
  revs: number;
  lever: string;
  brake: "held" | "free";
  pedal: "untouched" | "pressed";
  /** Of the fluid, °C. */
  fluid: number;
  /** Fluid above the lip of the level plug; below it where it is less than nothing. Litres. */
  over: number;
  plug: "in" | "out";
  /** Positions the lever was in while the engine ran: fluid spreads with them, once. */
  been: readonly string[];
  spread: boolean;
  planted: Planted;
}

/** What somebody does at it. */
export type Control = Partial<Pick<Vehicle, "engine" | "lever" | "brake" | "pedal" | "plug" | "planted">> & {
  /** Holds the engine there. */
  revs?: number;
  /** Poured in, litres. */
  pour?: number;
  /** Lets it stand, or run, until the fluid is so warm: what takes an hour is not waited for. */
  fluid?: number;
  /** So many degrees warmer. */
  warm?: number;
};

const IDLE = 700;
const COLD = 22;
/** Degrees a second: much quicker than a real one. */
const WARMS = 0.12;
const COOLS = 0.02;
/** Litres a second. */
const RUNS_OUT = 0.15;
const LEAKS = 0.01;
/** What goes into coolers, drums and converter once it has been in every range. */
const SPREADS = 0.6;

export const parked = (): Vehicle => ({
  engine: "off",
  revs: 0,
  lever: "P",
  brake: "free",
  pedal: "untouched",
  fluid: COLD,
  over: -0.4,
  plug: "in",
  been: [],
  spread: false,
  planted: "nothing",
});

/** The vehicle some milliseconds later. */
export function later(vehicle: Vehicle, ms: number): Vehicle {
  const seconds = ms / 1000;
  const { engine, fluid, over, plug, planted } = vehicle;
  const runs = plug === "out" && over > 0 ? Math.min(over, RUNS_OUT * seconds) : 0;
  const leaks = planted === "leak" && engine === "running" ? LEAKS * seconds : 0;
  return {
    ...vehicle,
    fluid: engine === "running" ? fluid + WARMS * seconds : Math.max(COLD, fluid - COOLS * seconds),
    over: over - runs - leaks,
  };
}

/** What becomes of it by somebody’s hand. */
export function handled(before: Vehicle, { pour, revs, fluid, warm = 0, ...rest }: Control): Vehicle {
  const vehicle = { ...before, ...rest };
  if (rest.planted !== undefined && rest.planted !== before.planted)
    vehicle.over += rest.planted === "low-fluid" ? -1 : 0;
  if (pour !== undefined) vehicle.over += pour;
  vehicle.fluid = (fluid ?? vehicle.fluid) + warm;
  const starts = rest.engine === "running" && before.engine === "off";
  vehicle.revs = vehicle.engine === "off" ? 0 : (revs ?? (starts ? IDLE : before.revs));
  if (vehicle.engine === "running" && !vehicle.been.includes(vehicle.lever))
    vehicle.been = [...vehicle.been, vehicle.lever];
  if (!vehicle.spread && vehicle.been.length > 2) {
    vehicle.spread = true;
    vehicle.over -= SPREADS;
  }
  return vehicle;
}

/** What is seen at the level plug. */
export const atPlug = ({ plug, over }: Vehicle): "closed" | "runs" | "drips" | "nothing" =>
  plug === "in" ? "closed" : over > 0.05 ? "runs" : over > -0.05 ? "drips" : "nothing";

/** Trouble codes, in words. */
export const codesOf = ({ planted }: Vehicle): string[] =>
  planted === "plug-off"
    ? ["range sensor: no signal"]
    : planted === "low-pressure"
      ? ["slip in a range"]
      : [];

/**
 * What a gauge on a tap reads.
 *
 * @param low and high: what the book allows, pascals.
 * @returns pascals.
 */
export function pressureAt({ planted }: Vehicle, low: number, high: number, chance: () => number): number {
  const middle = (low + high) / 2;
  return Math.round((planted === "low-pressure" ? low * 0.8 : middle) * (0.99 + chance() * 0.02));
}

/** A routine run to its end: whether it was learned, and what stands there now. */
export function learned(
  { planted }: Vehicle,
  job: string,
  routine: string,
): { outcome: "done" | "failed"; before: string; after: string } {
  const seed = [...`${job} ${routine}`].reduce((sum, letter) => sum * 31 + letter.charCodeAt(0), 7) % 2 ** 31;
  const chance = chanceOf(seed);
  const value = (): string => `${(1 + chance() * 2).toFixed(2)} mm`;
  const before = value();
  return planted === "not-learning"
    ? { outcome: "failed", before, after: before }
    : { outcome: "done", before, after: value() };
}
