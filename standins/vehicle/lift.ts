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
  type Control,
  type Vehicle,
} from "./vehicle";

interface Lifted {
  vehicle: Vehicle;
  at: number;
}

/** What is asked of a vehicle: something done at it, a pressure read, a routine run. */
export interface Ask {
  job: string;
  control?: Control;
  pressure?: { low: number; high: number };
  routine?: string;
}

const MOST = 500;
const lifted = new Map<string, Lifted>();
const chance = chanceOf(Number(process.env.SEED ?? Date.now() % 2 ** 31));

/** Does what is asked and tells how the vehicle stands. */
export function atLift({ job, control, pressure, routine }: Ask): object {
  if (!lifted.has(job) && lifted.size >= MOST) lifted.delete([...lifted.keys()][0] ?? "");
  const found = lifted.get(job) ?? { vehicle: parked(), at: Date.now() };
  const now = Date.now();
  const then = later(found.vehicle, now - found.at);
  const vehicle = control ? handled(then, control) : then;
  lifted.set(job, { vehicle, at: now });
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
    codes: codesOf(vehicle),
    ...(pressure ? { pressure: pressureAt(vehicle, pressure.low, pressure.high, chance) } : {}),
    ...(routine ? { learned: learned(vehicle, job, routine) } : {}),
  };
}
