import { beforeAll, describe, expect, it } from "@jest/globals";
import loadHighs from "highs";
import { dice } from "../testing/choices";
import { coverOf, frontOf, held, plainCover, takenOf, type Cover, type CoverQuestion } from "./cover";
import { solvedBy, type SolveProgram } from "./program";

let solve: SolveProgram;
beforeAll(async () => {
  solve = solvedBy(await loadHighs(), 60);
});

/** Something small: three or four parts, two kits, two suppliers, packs of one or two. */
function oddQuestion(seed: number): CoverQuestion {
  const roll = dice(seed);
  const numbers = Array.from({ length: 2 + roll(3) }, (_, i) => `P${i}`);
  const wanted = new Map(numbers.map((number) => [number, 1 + roll(3)]));
  const kits = Array.from({ length: 1 + roll(2) }, (_, i) => ({
    number: `K${i}`,
    contents: new Map(
      [...numbers, "other"].flatMap((number) => (roll(2) ? [[number, 1 + roll(2)] as const] : [])),
    ),
  }));
  const offers = [...numbers, ...kits.map(({ number }) => number)].flatMap((number) =>
    ["near", "far"].flatMap((supplier) =>
      roll(4) === 0
        ? []
        : [
            {
              number,
              supplier,
              cents: 100 + roll(900),
              days: roll(5) === 0 ? null : roll(6),
              pack: 1 + roll(2),
            },
          ],
    ),
  );
  const onHand = new Map(
    [...numbers, "K0"].flatMap((number) => (roll(3) === 0 ? [[number, 1 + roll(2)] as const] : [])),
  );
  return { wanted, kits, offers, onHand };
}

/** All ways there are to take up to four of each, one by one; the cheapest that has everything by a day. Null where none has. */
function slowly({ wanted, kits, offers, onHand }: CoverQuestion, latest: number): number | null {
  const inKit = new Map(kits.map(({ number, contents }) => [number, contents]));
  const sources = [
    ...[...onHand].map(([number, count]) => ({ number, pieces: 1, cents: 0, most: count })),
    ...offers
      .filter(({ days }) => (days ?? 10_000) <= latest)
      .map(({ number, cents, pack }) => ({ number, pieces: pack, cents, most: 3 })),
  ];
  let best: number | null = null;
  const look = (at: number, has: ReadonlyMap<string, number>, cents: number): void => {
    if (best !== null && cents >= best) return;
    if ([...wanted].every(([number, count]) => (has.get(number) ?? 0) >= count)) best = cents;
    const source = sources[at];
    if (!source) return;
    for (let times = 0; times <= source.most; times++) {
      const more = new Map(has);
      for (const [of, count] of inKit.get(source.number) ?? [[source.number, 1] as const])
        more.set(of, (more.get(of) ?? 0) + count * source.pieces * times);
      look(at + 1, more, cents + source.cents * times);
    }
  };
  look(0, new Map(), 0);
  return best;
}

/** What a cover brings, counted by itself. */
function has({ takes }: Cover, { kits }: CoverQuestion): Map<string, number> {
  const there = new Map<string, number>();
  for (const { number, pieces } of takes)
    for (const [of, count] of kits.find((kit) => kit.number === number)?.contents ?? [[number, 1] as const])
      there.set(of, (there.get(of) ?? 0) + count * pieces);
  return there;
}

const seeds = Array.from({ length: 60 }, (_, i) => i + 1);

describe("covering what a unit needs", () => {
  it("is as cheap as plain enumeration finds, by any day; what is missing is what nobody has", () => {
    let whole = 0;
    for (const seed of seeds) {
      const question = oddQuestion(seed);
      for (const latest of [Infinity, 3, 0]) {
        const cover = coverOf(question, solve, latest);
        const best = slowly(question, latest);
        if (best !== null) whole++;
        expect([seed, latest, cover.missing.length === 0 ? cover.cents : null]).toEqual([seed, latest, best]);
        expect(cover.days).toBeLessThanOrEqual(Math.min(latest, 10_000));
        const there = has(cover, question);
        for (const [number, count] of question.wanted) {
          const short = cover.missing.find((one) => one.number === number)?.count ?? 0;
          expect(there.get(number) ?? 0).toBeGreaterThanOrEqual(count - short);
        }
        // Nothing is taken that could as well be left: of no source one less would do.
        for (const take of cover.takes) {
          const one = take.pieces / take.packs;
          const less = has({ ...cover, takes: [{ ...take, pieces: one }] }, question);
          const isWanted = [...question.wanted].some(([number, count]) => {
            const short = cover.missing.find((each) => each.number === number)?.count ?? 0;
            return (there.get(number) ?? 0) - (less.get(number) ?? 0) < count - short;
          });
          expect([seed, latest, take.number, isWanted]).toEqual([seed, latest, take.number, true]);
        }
      }
    }
    expect(whole).toBeGreaterThan(50);
  });

  it("holds as it was shown, whatever else there is by now, until something of it changes", () => {
    let [shown, fell] = [0, 0];
    for (const seed of seeds) {
      const question = oddQuestion(seed);
      for (const way of frontOf(question, solve)) {
        shown++;
        const taken = takenOf(way);
        const again = (other: Partial<CoverQuestion> = {}, of = taken): Cover | null =>
          held(Object.assign({}, question, other), of);
        // Said in another order, and with something cheaper about, it is the same way.
        const short = new Set(way.missing.map(({ number }) => number));
        const had = [...question.wanted.keys()].find((number) => !short.has(number)) ?? "";
        const cheap = { number: had, supplier: "new", cents: 1, days: 0, pack: 1 };
        for (const one of [
          again(),
          again({ offers: [...question.offers, cheap] }),
          again({}, [...taken].reverse()),
        ]) {
          expect([seed, one?.cents, one?.days, one?.missing]).toEqual([
            seed,
            way.cents,
            way.days,
            way.missing,
          ]);
          expect(one?.left).toEqual(expect.arrayContaining(way.left));
        }
        for (const [i, { number, supplier, packs }] of taken.entries()) {
          const rest = question.offers.filter((one) => one.number !== number || one.supplier !== supplier);
          const its = question.offers.filter((one) => !rest.includes(one));
          const dearer = its.map((one) => Object.assign({}, one, { cents: one.cents + 7 }));
          if (supplier === null) expect(again({ onHand: new Map() })).toBeNull();
          else {
            fell++;
            expect(again({ offers: rest })).toBeNull();
            expect(again({ offers: [...rest, ...dearer] })?.cents).toBe(way.cents + 7 * packs);
          }
          // One less would not do, twice the same is nonsense, and one more is not needed.
          expect(again({}, taken.toSpliced(i, 1))).toBeNull();
          expect(again({}, [...taken, ...taken.slice(i, i + 1)])).toBeNull();
          const more = taken.map((one, j) => (i === j ? Object.assign({}, one, { packs: packs + 1 }) : one));
          expect(again({}, more)).toBeNull();
        }
        // The list has grown by what somebody sells.
        const sold = { number: "late", supplier: "near", cents: 50, days: 1, pack: 1 };
        const grown = new Map([...question.wanted, ["late", 1] as const]);
        expect(again({ wanted: grown, offers: [...question.offers, sold] })).toBeNull();
      }
    }
    expect(Math.min(shown, fell)).toBeGreaterThan(60);
  });

  it("trades price for days, each step sooner and dearer, and nothing that costs as much and comes later", () => {
    let traded = 0;
    for (const seed of seeds) {
      const question = oddQuestion(seed);
      const front = frontOf(question, solve);
      for (const [i, { cents, days }] of front.entries()) {
        const before = front[i - 1];
        if (!before) continue;
        traded++;
        expect(cents).toBeGreaterThan(before.cents);
        expect(days).toBeLessThan(before.days);
      }
      expect(front[0]?.cents).toBe(coverOf(question, solve).cents);
    }
    expect(traded).toBeGreaterThan(15);
  });

  it("does not depend on what stands first", () => {
    for (const seed of seeds.slice(0, 40)) {
      const question = oddQuestion(seed);
      const turned = {
        wanted: new Map([...question.wanted].reverse()),
        kits: [...question.kits].reverse(),
        offers: [...question.offers].reverse(),
        onHand: new Map([...question.onHand].reverse()),
      };
      const [one, other] = [coverOf(question, solve), coverOf(turned, solve)];
      expect([seed, one]).toEqual([seed, other]);
    }
  });

  it("takes a full kit and two loose steels where the kit lacks them, and says what is left over", () => {
    const question: CoverQuestion = {
      wanted: new Map([
        ["seal", 3],
        ["friction", 4],
        ["steel", 2],
      ]),
      kits: [
        {
          number: "full",
          contents: new Map([
            ["seal", 3],
            ["friction", 4],
            ["band", 2],
          ]),
        },
        { number: "seals", contents: new Map([["seal", 3]]) },
      ],
      offers: [
        { number: "full", supplier: "near", cents: 9_000, days: 2, pack: 1 },
        { number: "seals", supplier: "near", cents: 4_000, days: 1, pack: 1 },
        { number: "friction", supplier: "near", cents: 1_800, days: 1, pack: 1 },
        { number: "steel", supplier: "near", cents: 700, days: 1, pack: 1 },
      ],
      onHand: new Map(),
    };
    const cover = coverOf(question, solve);
    expect(cover.takes.map(({ number, packs }) => [number, packs])).toEqual([
      ["full", 1],
      ["steel", 2],
    ]);
    expect([cover.cents, cover.days, cover.left, cover.missing]).toEqual([
      10_400,
      2,
      [{ number: "band", count: 2 }],
      [],
    ]);
    // A day sooner: seals and everything else loose.
    expect(frontOf(question, solve).map(({ cents, days }) => [cents, days])).toEqual([
      [10_400, 2],
      [12_600, 1],
    ]);
  });

  it("is never dearer than one full kit and the rest loose", () => {
    for (const seed of seeds) {
      const question = oddQuestion(seed);
      const [best, plain] = [coverOf(question, solve), plainCover(question, solve)];
      if (plain.missing.length === 0) expect(best.cents).toBeLessThanOrEqual(plain.cents);
    }
  });

  it("counts every kit of a pack in its plain way", () => {
    const question: CoverQuestion = {
      wanted: new Map([["seal", 2]]),
      kits: [{ number: "kit", contents: new Map([["seal", 1]]) }],
      offers: [
        { number: "kit", supplier: "near", cents: 900, days: 1, pack: 2 },
        { number: "seal", supplier: "near", cents: 500, days: 1, pack: 1 },
      ],
      onHand: new Map(),
    };
    expect(plainCover(question, solve)).toMatchObject({ cents: 900, missing: [] });
  });

  it("has one plain way, in whatever order kits and offers are listed", () => {
    for (const seed of seeds) {
      const { kits, offers, ...more } = oddQuestion(seed);
      // Of each kit a second one that holds the same.
      const twice = kits.flatMap((kit) => [kit, { ...kit, number: `${kit.number}-too` }]);
      const dearer = offers.map((one) => ({ ...one, number: `${one.number}-too`, cents: one.cents + 5 }));
      const listed = { ...more, kits: twice, offers: [...offers, ...dearer] };
      const turned = { ...listed, kits: twice.toReversed(), offers: listed.offers.toReversed() };
      const [one, other] = [listed, turned].map((question) => plainCover(question, solve));
      expect([seed, other?.cents, other?.takes[0]]).toEqual([seed, one?.cents, one?.takes[0]]);
    }
  });
});
