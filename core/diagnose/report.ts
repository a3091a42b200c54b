import { CONDITIONS, outcomeWords } from "../fact";
import { causeName } from "./cause";
import type { Diagnostician, Told } from "./diagnose";
import { Mechanics } from "./mechanics";
import { workingOf, type Working } from "./working";

/** A diagnosis as plain data, for whoever is not in the same process: a page, a file. */
export interface Report {
  told: number;
  suspects: {
    id: string;
    name: string;
    chance: number;
    working: Working;
    /** What speaks for it or against it, the strongest first. */
    factors: { question: string; answer: string; factor: number }[];
  }[];
  /** Two faults at once, where they explain more than each alone. */
  pairs: { names: [string, string]; chance: number }[];
  next: {
    id: string;
    kind: string;
    name: string;
    minutes: number;
    bits: number;
    outcomes: readonly string[];
    /** The answers that would move most, likeliest first. */
    would: { outcome: string; chance: number; first: string; firstChance: number }[];
  }[];
  unread: readonly Told[];
}

/** A pair below this chance is not worth a line. */
const WORTH = 0.05;

/** @param asked how many next checks. */
export function report(diagnostician: Diagnostician, told: readonly Told[], asked = 4): Report {
  const { suspects, sets, next, unread } = diagnostician.diagnose(told, asked);
  const mechanics = new Mechanics(diagnostician.unit);
  const nameOf = (id: string): string => diagnostician.question(id)?.name ?? id;
  return {
    told: told.length - unread.length,
    suspects: suspects.map(({ cause, chance, factors }) => ({
      id: cause.id,
      name: causeName(cause),
      chance,
      working: workingOf(diagnostician.unit, cause, told, mechanics),
      factors: factors
        .map(({ told: { question, outcome, conditions = [] }, factor }) => ({
          question: nameOf(question),
          answer: [outcomeWords(outcome), ...conditions.map((one) => CONDITIONS.words[one])].join(", "),
          factor,
        }))
        .sort((a, b) => Math.abs(Math.log(b.factor)) - Math.abs(Math.log(a.factor))),
    })),
    pairs: sets.flatMap(({ causes: [a, b], chance }) =>
      a && b && chance >= WORTH ? [{ names: [causeName(a), causeName(b)] as [string, string], chance }] : [],
    ),
    next: next.map(({ question: { id, kind, name, minutes, outcomes }, bits, would }) => ({
      id,
      kind,
      name,
      minutes,
      bits,
      outcomes,
      would: would.slice(0, 3).map(({ outcome, chance, first, firstChance }) => ({
        outcome,
        chance,
        first: causeName(first),
        firstChance,
      })),
    })),
    unread,
  };
}
