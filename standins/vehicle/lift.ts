import { chanceOf } from "../chance";
import {
  atPlug,
  codesOf,
  handled,
  later,
  learned,
  parked,
  PLANTED,
  pressureAt,
  speedsIn,
  standsInPark,
  type Control,
  type RangeOf,
  type Vehicle,
} from "./vehicle";

interface Lifted {
  vehicle: Vehicle;
  at: number;
  /** The routine that runs, or ran last. */
  routine?: Routine;
}

interface Routine {
  id: string;
  /** Milliseconds. */
  from: number;
  /** Somebody’s hand was at the vehicle meanwhile: nothing is learned so. */
  disturbed: boolean;
}
/** How long a routine runs: much quicker than a real one. */
const ROUTINE_MS = 4_000;

/** What is asked of a vehicle: something done at it, a pressure read, a routine run. */
export interface Ask {
  job: string;
  control?: Control;
  pressure?: { low: number; high: number };
  routine?: string;
  speeds?: RangeOf;
}

const MOST = 500;
const lifted = new Map<string, Lifted>();
const chance = chanceOf(Number(process.env.SEED ?? Date.now() % 2 ** 31));

/** Does what is asked and tells how the vehicle stands. */
export function atLift({ job, control, pressure, routine, speeds }: Ask): object {
  if (!lifted.has(job) && lifted.size >= MOST) lifted.delete([...lifted.keys()][0] ?? "");
  const found = lifted.get(job) ?? { vehicle: parked(), at: Date.now() };
  const now = Date.now();
  const then = later(found.vehicle, now - found.at);
  const vehicle = control ? handled(then, control) : then;
  const runs = found.routine && now < found.routine.from + ROUTINE_MS;
  const last =
    found.routine && runs && disturbs(control) ? { ...found.routine, disturbed: true } : found.routine;
  const begun = routine === undefined || runs ? last : { id: routine, from: now, disturbed: false };
  lifted.set(job, { vehicle, at: now, ...(begun ? { routine: begun } : {}) });
  const { engine, revs, lever, brake, pedal, fluid, plug, planted } = vehicle;
  return {
    engine,
    revs,
    lever,
    brake,
    pedal,
    fluid: Math.round(fluid * 10) / 10,
    plug,
    planted,
    plants: PLANTED,
    seen: atPlug(vehicle),
    codes: codesOf(vehicle, job),
    stands: standsInPark(vehicle),
    ...(pressure ? { pressure: pressureAt(vehicle, pressure.low, pressure.high, chance) } : {}),
    ...(speeds ? { speeds: speedsIn(vehicle, job, speeds, chance) } : {}),
    ...(begun ? routineAt(begun, now, vehicle, job) : {}),
  };
}

const disturbs = ({ engine, lever, brake, pedal, revs }: Control = {}): boolean =>
  [engine, lever, brake, pedal, revs].some((one) => one !== undefined);

/** How far a routine is, and how it ended once it has. */
function routineAt({ id, from, disturbed }: Routine, now: number, vehicle: Vehicle, job: string): object {
  const share = Math.min(1, (now - from) / ROUTINE_MS);
  if (share < 1) return { running: { routine: id, from, share: Math.round(share * 100) / 100 } };
  const { before, ...rest } = learned(vehicle, job, id);
  const ended = disturbed ? { outcome: "failed", after: before } : rest;
  return { learned: { routine: id, from, before, ...ended } };
}
