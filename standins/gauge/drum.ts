/**
 * A drum under a dial indicator with an air valve, as it behaves on a bench. Lengths in nanometres, times in milliseconds.
 * The true gap is the nominal one plus what this very drum is off by, which no one can look up; the needle shows it cocked a
 * little differently each time, creeping up while the oil squeezes out, and does not quite come back to where it was.
 */
export interface DrumState {
  air: boolean;
  /** Where the needle stands now, unrounded. */
  needle: number;
  /** Where it is going. */
  goal: number;
  /** What is still to come by creep. */
  creep: number;
  /** What it rests at without air. */
  zero: number;
  /** How many times air has been let on: the pack settles over the first ones. */
  lifts: number;
}

/** The dial's step: a hundredth of a millimetre. */
export const STEP = 10_000;
const RISE_MS = 140;
const CREEP_MS = 700;
const SCATTER = 9_000;
const ZERO_SHIFT = 2_500;
const HIDDEN = 25_000;
/** What a freshly assembled pack still gives over its first lifts. */
const SETTLING = [-45_000, -22_000, -9_000];

export const atRest = (): DrumState => ({ air: false, needle: 0, goal: 0, creep: 0, zero: 0, lifts: 0 });

/** How much a worn pack has opened: what comes in for repair is rarely inside. */
const WORN = 190_000;

/** What this drum is off by, the same every time it is mounted; one mounted as found is worn as well. */
export function hiddenOffset(drum: string): number {
  const [phase, id = drum] = drum.split(" ", 2);
  return ownError(id) + (phase === "found" ? WORN : 0);
}

export function ownError(drum: string): number {
  let hash = 2166136261;
  for (const char of drum) hash = Math.imul(hash ^ char.charCodeAt(0), 16777619);
  return Math.round((((hash >>> 0) / 2 ** 32) * 2 - 1) * HIDDEN);
}

/** Lets air on or off. @param chance a source of numbers in [0, 1). */
export function valve(state: DrumState, air: boolean, gap: number, chance: () => number): DrumState {
  if (air === state.air) return state;
  const normal = (): number => Math.sqrt(-2 * Math.log(1 - chance())) * Math.cos(2 * Math.PI * chance());
  if (!air) {
    const zero = state.zero + ZERO_SHIFT * normal();
    return { ...state, air, zero, goal: zero, creep: 0 };
  }
  const settle = SETTLING[state.lifts] ?? 0;
  const reach = Math.max(0, gap + settle + SCATTER * normal());
  return { ...state, air, goal: state.zero + reach * 0.985, creep: reach * 0.015, lifts: state.lifts + 1 };
}

/** The needle after `ms` more milliseconds: a quick rise and a slow creep, both exponential. */
export function after(state: DrumState, ms: number): DrumState {
  const crept = state.creep * (1 - Math.exp(-ms / CREEP_MS));
  const goal = state.goal + crept;
  const needle = goal + (state.needle - goal) * Math.exp(-ms / RISE_MS);
  return { ...state, goal, creep: state.creep - crept, needle };
}

/** What the dial shows. */
export const shown = (state: DrumState): number => Math.round(state.needle / STEP) * STEP;
