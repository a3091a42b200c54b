import { ownError } from "../gauge/drum";

/** What can be wrong with an element that is tried with air, most of them healthy. */
export const FAULTS = ["healthy", "leaking lip", "cracked piston", "blocked feed", "plugged bleed"] as const;
/** One of `FAULTS`. */
export type Fault = (typeof FAULTS)[number];

/** What the rig says: what was heard, and what its gauge lost while its stopwatch ran. Pascals. */
export interface Tried {
  result: "holds" | "leaks" | "does-not-apply" | "does-not-let-go";
  lost: number;
}

/** How often each is so, of a hundred; the first takes the rest. */
const OFTEN: Readonly<Record<Exclude<Fault, "healthy">, number>> = {
  "leaking lip": 6,
  "cracked piston": 3,
  "blocked feed": 3,
  "plugged bleed": 2,
};

/** @returns what is wrong with it: the same for the same thing, however often it is tried. */
export function faultOf(what: string): Fault {
  // A number in [0, 100) of its own.
  let at = (Math.abs(ownError(`air ${what}`)) * 7919) % 100;
  for (const [fault, often] of Object.entries(OFTEN) as [Exclude<Fault, "healthy">, number][]) {
    if (at < often) return fault;
    at -= often;
  }
  return "healthy";
}

/**
 * Regulated air let to a port, and the gauge watched for as long as the book says.
 *
 * @param pressure it was let to, and the most the book lets it lose.
 * @param chance a source of numbers in [0, 1).
 */
export function tried(fault: Fault, pressure: number, allowed: number, chance: () => number): Tried {
  const some = (least: number, most: number): number =>
    Math.round(allowed * (least + (most - least) * chance()));
  switch (fault) {
    case "healthy":
      return { result: "holds", lost: some(0.05, 0.6) };
    case "leaking lip":
      return { result: "leaks", lost: Math.min(pressure, some(1.6, 4)) };
    case "cracked piston":
      return { result: "leaks", lost: pressure };
    case "blocked feed":
      return { result: "does-not-apply", lost: some(0, 0.1) };
    case "plugged bleed":
      return { result: "does-not-let-go", lost: some(0, 0.2) };
  }
}
