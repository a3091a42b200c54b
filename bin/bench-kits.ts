import loadHighs from "highs";
import { coverOf, frontOf, plainCover, solvedBy, type CoverQuestion } from "../core/kit";
import { dice } from "../core/testing/choices";

const SHAPE = { needs: 150, kits: 40, suppliers: 3 } as const;
const RUNS = 5;

/** Kinds of parts that kits are made of: seals, frictions, steels, bushings, filters, bolts, solenoids, hard parts. */
const KINDS = 8;

/** A long list: kits of one to four kinds of parts, each for a version or a grade of its own and lacking some; suppliers who sell most of everything, some of it in fives. */
function longList(seed: number): CoverQuestion {
  const roll = dice(seed);
  const numbers = Array.from({ length: SHAPE.needs }, (_, i) => `P${i}`);
  const price = new Map(numbers.map((number) => [number, 200 + roll(3_000)]));
  const kits = Array.from({ length: SHAPE.kits }, (_, k) => {
    const kinds = new Set(Array.from({ length: 1 + roll(4) }, () => roll(KINDS)));
    const inside = numbers.filter((_, i) => kinds.has(i % KINDS) && roll(8) > 0);
    return { number: `K${k}`, contents: new Map(inside.map((number) => [number, 1 + roll(4)])) };
  });
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
    wanted: new Map(numbers.map((number) => [number, 1 + roll(5)])),
    kits,
    offers,
    onHand: new Map(numbers.flatMap((number) => (roll(5) === 0 ? [[number, 1 + roll(3)] as const] : []))),
  };
}

/** How long it takes to cover a long list exactly, and how much that saves beside one full kit and the rest loose. */
export async function kits(say: (text: string) => void): Promise<void> {
  const solve = solvedBy(await loadHighs());
  const [cheapest, whole, saved]: [number[], number[], number[]] = [[], [], []];
  let [steps, proven] = [0, 0];
  for (let seed = 1; seed <= RUNS; seed++) {
    const question = longList(seed);
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
    `covering ${SHAPE.needs} needs with ${SHAPE.kits} kits of ${SHAPE.suppliers} suppliers: the cheapest in ${(most(cheapest) / 1000).toFixed(2)} s at most, ` +
      `all of ${(steps / RUNS).toFixed(0)} ways from the cheapest to the soonest in ${(most(whole) / 1000).toFixed(2)} s (aim ≤ 2 s), ${proven} of ${steps} proved; ` +
      `${(100 * mean).toFixed(0)} % cheaper than one full kit and the rest loose`,
  );
}
