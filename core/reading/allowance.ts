import { nm, type Nm } from "../quantity";
import type { PackState } from "./reading";

/** A signed correction with its standard uncertainty. */
export interface Allowance {
  amount: Nm;
  /** Half-width of what the book allows around it; taken as rectangular. */
  within: Nm;
}

/** A unit's allowances: soaking closes a dry pack (negative), bedding opens a new one (positive), the wave stands up. */
export interface Allowances {
  soaking?: Allowance;
  bedding?: Allowance;
  /** What a waved plate takes up when it stands free: a free reading is this much smaller than a flat one. */
  wave?: Allowance;
}

/** One correction that was applied to bring a reading to the state of the spec. */
export interface Correction {
  name: "soaking" | "bedding" | "wave";
  amount: Nm;
  within: Nm;
}

/** The corrections, or what is missing to make them. */
export type Corrections = { ok: true; corrections: Correction[]; total: Nm } | { ok: false; missing: string };

/**
 * What has to be added to a reading taken in one state to compare it with a spec stated in another.
 * Soaking: `soaked = dry + soaking`. Bedding: `run-in = new + bedding`. Wave: `free = flat − wave`.
 */
export function corrections(from: PackState, to: PackState, allowances: Allowances): Corrections {
  const steps: { name: Correction["name"]; sign: 1 | -1; words: string }[] = [];
  if (from.soak !== to.soak) {
    steps.push({
      name: "soaking",
      sign: to.soak === "soaked" ? 1 : -1,
      words: `${from.soak}, spec ${to.soak}`,
    });
  }
  if (from.facings !== undefined && to.facings !== undefined && from.facings !== to.facings) {
    steps.push({
      name: "bedding",
      sign: to.facings === "run-in" ? 1 : -1,
      words: `${from.facings}, spec ${to.facings}`,
    });
  }
  if (from.wave !== undefined && to.wave !== undefined && from.wave !== to.wave) {
    steps.push({
      name: "wave",
      sign: to.wave === "free" ? -1 : 1,
      words: `wave ${from.wave}, spec ${to.wave}`,
    });
  }
  const list: Correction[] = [];
  for (const { name, sign, words } of steps) {
    const allowance = allowances[name];
    if (!allowance) return { ok: false, missing: `read ${words}; the book gives no ${name} allowance` };
    list.push({ name, amount: nm(sign * allowance.amount), within: allowance.within });
  }
  return { ok: true, corrections: list, total: nm(list.reduce((sum, { amount }) => sum + amount, 0)) };
}
