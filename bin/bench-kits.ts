import loadHighs from "highs";
import { coverOf, frontOf, plainCover, solvedBy, type CoverQuestion } from "../core/kit";
import { dice } from "../core/testing/choices";

const SHAPE = { needs: 150, kits: 40, suppliers: 3 } as const;
const RUNS = 5;

/** Kinds of parts that kits are made of: seals, frictions, steels, bushings, filters, bolts, solenoids, hard parts. */
const KINDS = 8;
/** What is sold as a kit: seals; frictions with them; full with steels; bushings; filter; solenoids; bolts; all soft parts. */
const SORTS = [[0], [0, 1], [0, 1, 2], [3], [4], [6], [5], [0, 1, 2, 3, 4, 5]];

/** Kits as they are sold: each of a sort, for a version and of a grade, lacking some parts, with as many of each as a unit of it takes. */
const asSold = (roll: (most: number) => number, wanted: ReadonlyMap<string, number>): Map<string, number> => {
  const sort = SORTS[roll(SORTS.length)] ?? [];
  const inside = [...wanted].filter((_, i) => sort.includes(i % KINDS) && roll(8) > 0);
  return new Map(inside.map(([number, count]) => [number, roll(10) === 0 ? Math.max(1, count - 1) : count]));
};

/** Boxes of anything: as many of each as chance has it. No shop sells such; they are harder to choose from. */
const atRandom = (
  roll: (most: number) => number,
  wanted: ReadonlyMap<string, number>,
): Map<string, number> => {
  const kinds = new Set(Array.from({ length: 1 + roll(4) }, () => roll(KINDS)));
  const inside = [...wanted.keys()].filter((_, i) => kinds.has(i % KINDS) && roll(8) > 0);
  return new Map(inside.map((number) => [number, 1 + roll(4)]));
};

/** A long list of what is wanted, kits for it, and suppliers who sell most of everything, some of it in fives. */
function longList(seed: number, boxed: typeof asSold): CoverQuestion {
  const roll = dice(seed);
  const numbers = Array.from({ length: SHAPE.needs }, (_, i) => `P${i}`);
  const price = new Map(numbers.map((number) => [number, 200 + roll(3_000)]));
  const wanted = new Map(numbers.map((number) => [number, 1 + roll(5)]));
  const kits = Array.from({ length: SHAPE.kits }, (_, k) => ({
    number: `K${k}`,
    contents: boxed(roll, wanted),
  }));
  const worth = (contents: ReadonlyMap<string, number>): number =>
    [...contents].reduce((sum, [of, count]) => sum + (price.get(of) ?? 0) * count, 0);
  const sold = [
    ...numbers.map((number) => ({ number, cents: price.get(number) ?? 0 })),
    ...kits.map(({ number, contents }) => ({
      number,
      cents: Math.round(worth(contents) * (0.3 + roll(50) / 100)),
    })),
  ];
  const offers = Array.from({ length: SHAPE.suppliers }, (_, s) =>
    sold.flatMap(({ number, cents }) => {
      if (roll(6) === 0) return [];
      const pack = roll(8) === 0 ? 5 : 1;
      const asked = Math.round(cents * pack * (0.8 + roll(40) / 100));
      return [{ number, supplier: `supplier ${s}`, cents: asked, days: 1 + roll(4) + 3 * s, pack }];
    }),
  ).flat();
  return {
    wanted,
    kits,
    offers,
    onHand: new Map(numbers.flatMap((number) => (roll(5) === 0 ? [[number, 1 + roll(3)] as const] : []))),
  };
}

/** How long it takes to cover a long list exactly, and how much that saves beside one full kit and the rest loose. */
export async function kits(say: (text: string) => void): Promise<void> {
  const solve = solvedBy(await loadHighs());
  for (const [what, boxed] of [
    ["kits as they are sold", asSold],
    ["boxes of anything", atRandom],
  ] as const) {
    const [cheapest, whole, saved]: [number[], number[], number[]] = [[], [], []];
    let [steps, proven] = [0, 0];
    for (let seed = 1; seed <= RUNS; seed++) {
      const question = longList(seed, boxed);
      const begun = performance.now();
      const best = coverOf(question, solve);
      cheapest.push(performance.now() - begun);
      const again = performance.now();
      const front = frontOf(question, solve);
      steps += front.length;
      proven += front.filter((way) => way.proven).length;
      whole.push(performance.now() - again);
      saved.push(1 - best.cents / plainCover(question, solve).cents);
    }
    const most = (values: readonly number[]): number => Math.max(...values);
    const mean = saved.reduce((sum, one) => sum + one, 0) / saved.length;
    say(
      `covering ${SHAPE.needs} needs with ${SHAPE.kits} ${what}, ${SHAPE.suppliers} suppliers: the cheapest in ${(most(cheapest) / 1000).toFixed(2)} s at most, ` +
        `all of ${(steps / RUNS).toFixed(0)} ways from the cheapest to the soonest in ${(most(whole) / 1000).toFixed(2)} s (aim ≤ 2 s), ${proven} of ${steps} proved; ` +
        `${(100 * mean).toFixed(0)} % cheaper than one full kit and the rest loose`,
    );
  }
}
