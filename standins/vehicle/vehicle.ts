import { chanceOf } from "../chance";

/** What can be planted in the simulated vehicle. */
export const PLANTED = [
  ...(["nothing", "low-fluid", "low-pressure", "leak", "not-learning", "plug-off"] as const),
  ...(["wrong-identity", "slipping", "park-not-holding"] as const),
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
  /** What its control unit remembers of before, until it is cleared. */
  stored: readonly string[];
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
  /** Lets the control unit forget its codes; what is still so comes back at once. */
  clear?: boolean;
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
  stored: ["supply voltage was low"],
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
export function handled(before: Vehicle, { pour, revs, fluid, warm = 0, clear, ...rest }: Control): Vehicle {
  const vehicle = { ...before, ...rest };
  if (rest.planted !== undefined && rest.planted !== before.planted)
    vehicle.over += rest.planted === "low-fluid" ? -1 : 0;
  if (pour !== undefined) vehicle.over += pour;
  if (clear) vehicle.stored = [];
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

/** What a vehicle’s neighbours complain of, whatever becomes of its transmission. */
const FOREIGN = ["cabin fan: no answer", "left mirror heating: open circuit"];

/** Trouble codes, in words: those of before, those of what is so now, and in some vehicles one of something else. */
export function codesOf({ planted, stored }: Vehicle, job: string): string[] {
  const foreign = FOREIGN[seedOf(job) % 4];
  return [
    ...stored,
    ...(planted === "plug-off"
      ? ["range sensor: no signal"]
      : planted === "wrong-identity"
        ? ["a solenoid’s identity is not the one written for its place"]
        : planted === "low-pressure" || planted === "slipping"
          ? ["slip in a range"]
          : []),
    ...(foreign === undefined ? [] : [foreign]),
  ];
}

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

/** Whether it stands still on a slope with the lever in P and the brake free; null while that is not tried. */
export const standsInPark = ({ engine, lever, brake, planted }: Vehicle): boolean | null =>
  lever !== "P" || brake !== "free" || engine !== "off" ? null : planted !== "park-not-holding";

/** What a range is made of, as whoever asks knows it from the unit’s book. */
export interface RangeOf {
  /** Turns of the input for one of the output. */
  ratio: number;
  /** Elements that carry in it, and all there are: one of these slips where that is planted. */
  elements: readonly string[];
  of: readonly string[];
}

/** Turned so fast while it is driven, with a sensor’s scatter. */
const DRIVEN = 1800;
const SCATTER = 0.004;
const SLIPS = 0.09;

/**
 * Speeds of input and output, read while it is driven in a range.
 *
 * @returns whole turns a minute, the output’s without its sense.
 */
export function speedsIn(
  { planted }: Vehicle,
  job: string,
  { ratio, elements, of }: RangeOf,
  chance: () => number,
): { input: number; output: number } {
  const input = Math.round(DRIVEN * (0.95 + chance() * 0.1));
  const weak = of[seedOf(job) % Math.max(1, of.length)];
  const slips = planted === "slipping" && weak !== undefined && elements.includes(weak);
  const output = (input / Math.abs(ratio)) * (slips ? 1 - SLIPS : 1) * (1 + (chance() - 0.5) * SCATTER);
  return { input, output: Math.round(output) };
}

const seedOf = (text: string): number =>
  [...text].reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) % 2 ** 31, 7);

/** A routine run to its end: whether it was learned, and what stands there now. */
export function learned(
  { planted }: Vehicle,
  job: string,
  routine: string,
): { outcome: "done" | "failed"; before: string; after: string } {
  const chance = chanceOf(seedOf(`${job} ${routine}`));
  const value = (): string => `${(1 + chance() * 2).toFixed(2)} mm`;
  const before = value();
  return planted === "not-learning" || planted === "wrong-identity"
    ? { outcome: "failed", before, after: before }
    : { outcome: "done", before, after: value() };
}
