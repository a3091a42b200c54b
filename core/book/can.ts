import { isStated } from "../reading";
import type { Book } from "./book";

/** What can be done with a book as it is, and what waits for somebody to write it down. */
export interface Ability {
  can: string[];
  cannot: string[];
}

/** How complete a book is, by what it can do: no share of a hundred tells anybody what to write next. */
export function abilityOf(book: Book): Ability {
  const { packs, chains, seats = [], ranges, gearSets, fasteners = [], parts } = book;
  const { teardown = [], build = [], proofs = [], procedures = [] } = book;
  const stated = chains.filter(({ spec }) => spec.some(isStated));
  const judged = packs.filter(({ element }) => stated.some(({ of }) => of === element)).length;
  const chosen = packs.reduce((sum, { grooves = [] }) => sum + grooves.length, seats.length);
  const many = (n: number, one: string, several: string): string =>
    n === 1 ? `1 ${one}` : `${n} ${several}`;
  const asked: [is: boolean, can: string, cannot: string][] = [
    // A unit with dry clutches has no packs to judge.
    judged > 0
      ? [true, `judge ${many(judged, "pack", "packs")}`, ""]
      : [
          stated.length > 0,
          `judge ${many(stated.length, "figure", "figures")}`,
          "judge a pack: no limit is known",
        ],
    [chosen > 0, `choose ${many(chosen, "piece", "pieces")}`, "choose rings"],
    [ranges.length > 0, "say what slips", "diagnosis: no range is listed"],
    [gearSets.length > 0, "solve its ratios", "ratios and tie-ups: no teeth are counted"],
    [parts.length > 0, `name ${many(parts.length, "part", "parts")}`, "parts"],
    [teardown.length > 0, "lead through taking down", "tear-down steps"],
    [build.length > 0, "lead through building", "build steps"],
    [fasteners.length > 0, "tighten faces", "torque"],
    [procedures.length + proofs.length > 0, "prove it in the vehicle", "proofs in the vehicle"],
  ];
  return {
    can: asked.flatMap(([is, can]) => (is ? [can] : [])),
    cannot: asked.flatMap(([is, , cannot]) => (is ? [] : [cannot])),
  };
}
