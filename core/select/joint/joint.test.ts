import { beforeAll, describe, expect, it } from "@jest/globals";
import loadHighs from "highs";
import { nm } from "../../quantity";
import {
  contestedQuestion,
  dice,
  oddQuestion,
  shopQuestion,
  times,
  waitingQuestion,
} from "../../testing/choices";
import { inOrder, isInStock, programmed, triedAll, valuesOf, type Solver } from "../../testing/referee";
import {
  chooseJointly,
  insteads,
  proposals,
  TERMS,
  type JointPlan,
  type JointQuestion,
  type Offer,
  type Seat,
} from "./index";

/** The question with all its names begun like this. */
const beside = ({ seats, chains, lots }: JointQuestion, name: string): JointQuestion => ({
  seats: seats.map((seat) => ({
    ...seat,
    id: name + seat.id,
    job: name + (seat.job ?? ""),
    offers: seat.offers.map((offer) => ({
      ...offer,
      ...(offer.lot === undefined ? {} : { lot: name + offer.lot }),
    })),
  })),
  chains: chains.map((chain) => ({
    ...chain,
    id: name + chain.id,
    seats: chain.seats.map(({ seat, sign }) => ({ seat: name + seat, sign })),
  })),
  lots: lots.map((lot) => ({ ...lot, id: name + lot.id })),
});
const picksOf = ({ seats }: JointPlan): Map<string, Offer | null> =>
  new Map(seats.map(({ seat, offer }) => [seat, offer]));
/** What the plan says it comes to, and what it comes to when everything is worked out again. */
function said(question: JointQuestion): { value: number[]; plan: JointPlan } {
  const plan = chooseJointly(question);
  const value = inOrder(question, plan.values);
  const picks = picksOf(plan);
  expect(inOrder(question, valuesOf(question, picks))).toEqual(value);
  expect(isInStock(question, picks)).toBe(true);
  for (const { id, offers, fitted } of question.seats) {
    const offer = picks.get(id);
    expect(!offer || offer === fitted || offers.includes(offer)).toBe(true);
  }
  return { value, plan };
}
/** Term by term, the first that differs decides. */
const isNoBetter = (one: readonly number[], other: readonly number[]): boolean => {
  const first = one.findIndex((value, i) => value !== other[i]);
  return first < 0 || (one[first] ?? 0) > (other[first] ?? 0);
};

describe("the best piece for every seat at once", () => {
  it("is what trying everything finds", () => {
    for (const seed of times(600, (i) => i)) {
      const question = oddQuestion(seed, 3);
      const { value, plan } = said(question);
      expect({ seed, value }).toEqual({ seed, value: triedAll(question) });
      expect(plan).toMatchObject({ proven: true, bound: value });
    }
  });

  let solve: Solver;
  beforeAll(async () => {
    const highs = await loadHighs();
    solve = (program) => {
      const { Status, ObjectiveValue } = highs.solve(program, { mip_rel_gap: 0, output_flag: false });
      return { status: Status, value: ObjectiveValue };
    };
  });
  it("is what integer programming finds: all kinds of small questions", () => {
    for (const seed of times(60, (i) => i)) {
      const question = oddQuestion(seed + 5_000, 5);
      expect({ seed, value: said(question).value }).toEqual({ seed, value: programmed(question, solve) });
    }
  });
  it("is what integer programming finds: units that reach for the same last pieces", () => {
    for (const seed of times(30, (i) => i)) {
      const question = contestedQuestion(seed);
      expect({ seed, value: said(question).value }).toEqual({ seed, value: programmed(question, solve) });
    }
  });

  it("is what integer programming finds: jobs of several rings, of which somebody has to wait", () => {
    for (const seed of times(60, (i) => i)) {
      const question = waitingQuestion(seed);
      const { value, plan } = said(question);
      expect({ seed, value }).toEqual({ seed, value: programmed(question, solve) });
      expect(plan).toMatchObject({ proven: true, bound: value });
    }
  });
  it("the same where who comes first is looked at among many", () => {
    // Small ones beside each other, nothing shared between them: enough groups together to be many.
    for (const seed of times(6, (i) => i * 40)) {
      const all = times(40, (i) => waitingQuestion(seed + i));
      const named = all.map((one, n) => beside(one, `${n} `));
      const question: JointQuestion = {
        seats: named.flatMap(({ seats }) => seats),
        chains: named.flatMap(({ chains }) => chains),
        lots: named.flatMap(({ lots }) => lots),
      };
      const { value, plan } = said(question);
      const sum = all.map((one) => said(one).value).reduce((a, b) => a.map((x, i) => x + (b[i] ?? 0)));
      expect({ seed, value: value[3] }).toEqual({ seed, value: sum[3] });
      if (plan.proven) expect(value).toEqual(sum);
      expect(isNoBetter(sum, plan.bound)).toBe(true);
    }
  });

  it("is worth the same whatever stands first, and whatever things are called", () => {
    for (const seed of times(80, (i) => i)) {
      const question = seed % 2 ? oddQuestion(seed) : contestedQuestion(seed);
      const roll = dice(seed);
      const shuffled = <T>(list: readonly T[]): T[] =>
        list
          .map((one) => ({ one, by: roll(1_000_000) }))
          .sort((a, b) => a.by - b.by)
          .map(({ one }) => one);
      const other = (name: string): string => `z${[...name].reverse().join("")}`;
      const renamed = (offer: Offer): Offer => ({
        ...offer,
        id: other(offer.id),
        ...(offer.lot === undefined ? {} : { lot: other(offer.lot) }),
      });
      const turned: JointQuestion = {
        ...question,
        seats: shuffled(question.seats).map((seat) => ({
          ...seat,
          offers: shuffled(seat.offers).map(renamed),
          ...(seat.fitted ? { fitted: renamed(seat.fitted) } : {}),
          ...(seat.pinned === undefined ? {} : { pinned: other(seat.pinned) }),
        })),
        chains: shuffled(question.chains).map((chain) => ({ ...chain, seats: shuffled(chain.seats) })),
        relations: shuffled(question.relations ?? []),
        lots: shuffled(question.lots).map((lot) => ({ ...lot, id: other(lot.id) })),
      };
      expect({ seed, value: said(turned).value }).toEqual({ seed, value: said(question).value });
    }
  });

  it("is never worse with more on the shelf", () => {
    for (const seed of times(100, (i) => i)) {
      const question = seed % 2 ? oddQuestion(seed) : contestedQuestion(seed);
      const at = dice(seed)(question.lots.length);
      const lots = question.lots.map((lot, i) => (i === at ? { ...lot, count: lot.count + 1 } : lot));
      const [before, after] = [said(question).value, said({ ...question, lots }).value];
      expect(isNoBetter(before, after)).toBe(true);
    }
  });

  it("of a hundred seats that might all want one piece is what it is for those that really meet", () => {
    for (const first of [0, 20, 40]) {
      const units = times(14, (i) => beside(waitingQuestion(first + i), `${i} `));
      const far: Offer = { id: "far", lot: "far", adds: nm(900), variance: 1 };
      const all: JointQuestion = {
        seats: units.flatMap(({ seats }) =>
          seats.map((seat) => ({ ...seat, offers: [...seat.offers, far] })),
        ),
        chains: units.flatMap(({ chains }) => chains),
        lots: [...units.flatMap(({ lots }) => lots), { id: "far", count: 1 }],
      };
      expect(all.seats.length).toBeGreaterThanOrEqual(80);
      const { value, plan } = said(all);
      const apart = units.map((question) => said(question).value);
      const sum = value.map((_, term) => apart.reduce((total, own) => total + (own[term] ?? 0), 0));
      expect({ first, value }).toEqual({ first, value: sum });
      expect(plan).toMatchObject({ proven: true, bound: value });
    }
  });

  it("says when it was not proved, and what cannot be beaten", () => {
    const question = shopQuestion({ seats: 60, sizes: 60, series: 6, stock: 1, seed: 3 });
    const whole = said(question);
    expect(whole.plan.proven).toBe(true);
    const { plan, value } = said({ ...question, effort: 0 });
    expect(plan.proven).toBe(false);
    expect(isNoBetter(value, whole.value)).toBe(true);
    expect(isNoBetter(whole.value, plan.bound)).toBe(true);
  });

  it("gives up nothing of what comes first when the search is stopped over what comes later, with more effort least of all", () => {
    const first = ["outside", "order", "chance"] as const;
    for (const [seed, series] of [
      [1, 5],
      [3, 5],
      [1, 1],
    ] as const) {
      const question = shopQuestion({ seats: 240, sizes: 200, series, stock: 4, seed });
      const alone = chooseJointly({ ...question, terms: first });
      expect(alone.proven).toBe(true);
      for (const effort of [500, 1_500]) {
        const { proven, values, bound } = chooseJointly({ ...question, effort });
        expect(proven).toBe(false);
        for (const [i, term] of first.entries())
          expect([seed, effort, term, values[term], bound[i]]).toEqual([
            seed,
            effort,
            term,
            alone.values[term],
            alone.values[term],
          ]);
      }
    }
  });
});

describe("beside the best", () => {
  it("the next best for a seat is the best without its piece, by trying everything", () => {
    for (const seed of times(80, (i) => i)) {
      const question = oddQuestion(seed + 9_000, 3);
      const { plan } = said(question);
      for (const { seat, plan: other, elsewhere } of insteads(question, plan)) {
        const own = picksOf(plan).get(seat)?.id ?? "";
        const without: JointQuestion = {
          ...question,
          seats: question.seats.map((one) => (one.id === seat ? { ...one, barred: [own] } : one)),
        };
        expect({ seed, value: inOrder(question, other.values) }).toEqual({ seed, value: triedAll(without) });
        expect(picksOf(other).get(seat)?.id).not.toBe(own);
        const changed = other.seats.filter(
          ({ seat: id, offer }) => id !== seat && offer?.id !== picksOf(plan).get(id)?.id,
        );
        expect(elsewhere).toEqual(changed.map(({ seat: id }) => id));
      }
    }
  });

  it("proposals are best at what they are for, and none has more outside without need", () => {
    for (const seed of times(60, (i) => i)) {
      const question: JointQuestion = { ...contestedQuestion(seed), terms: TERMS };
      const { plan } = said(question);
      const { nearest, "at hand": now, sparing } = proposals(question);
      for (const one of [nearest, sparing])
        expect([one.values.outside, one.values.order, one.values.chance]).toEqual([
          plan.values.outside,
          plan.values.order,
          plan.values.chance,
        ]);
      expect(nearest.values.target).toBeLessThanOrEqual(plan.values.target);
      expect(sparing.values.scarce).toBeLessThanOrEqual(plan.values.scarce);
      expect(now.values.ready).toBe(0);
      expect(now.values.outside).toBeGreaterThanOrEqual(plan.values.outside);
    }
  });
});

describe("by hand", () => {
  const mm = (n: number): ReturnType<typeof nm> => nm(Math.round(n * 1e6));
  const ring = (size: number, lot?: string): Offer => ({
    id: lot ?? `${size}`,
    adds: mm(size),
    variance: 0,
    ...(lot === undefined ? { days: 2, money: 600 } : { lot }),
  });
  const pack = (seat: string, rest: number): JointQuestion["chains"][number] => ({
    id: `${seat} clearance`,
    seats: [{ seat, sign: -1 }],
    rest: mm(rest),
    variance: 0,
    min: mm(1),
    max: mm(1.2),
    target: mm(1.1),
  });

  it("leaves the last ring to whom nothing else helps, though the other has it nearer the target", () => {
    const offers = [ring(1.7, "1.70"), ring(1.75, "1.75")];
    const seats: Seat[] = ["d1", "h2"].map((id) => ({ id, offers }));
    // D1 would be on the target with 1.70 and inside with 1.75; H2 is inside with 1.70 alone.
    const question: JointQuestion = {
      seats,
      chains: [pack("d1", 2.8), pack("h2", 2.72)],
      lots: [
        { id: "1.70", count: 1 },
        { id: "1.75", count: 1 },
      ],
    };
    const { plan } = said(question);
    expect([...picksOf(plan)].map(([seat, offer]) => `${seat} ${offer?.id}`)).toEqual(["d1 1.75", "h2 1.70"]);
    expect(plan.values.outside).toBe(0);
  });

  it("gives a seat's own old ring to another one", () => {
    const old: Offer = { id: "out of d1", lot: "out of d1", adds: mm(1.7), variance: 0 };
    const { plan } = said({
      seats: [
        { id: "d1", fitted: old, offers: [ring(1.6, "1.60")] },
        { id: "h2", offers: [old] },
      ],
      chains: [pack("d1", 2.7), pack("h2", 2.8)],
      lots: [
        { id: "1.60", count: 1 },
        { id: "out of d1", count: 1 },
      ],
    });
    expect([...picksOf(plan)].map(([seat, offer]) => `${seat} ${offer?.id}`)).toEqual([
      "d1 1.60",
      "h2 out of d1",
    ]);
  });

  it("waits with one ring as long as with two: what is ordered beside what must be waited for costs no more days", () => {
    const late = ring(1.7);
    const offers = [ring(1.75, "1.75"), late];
    const question: JointQuestion = {
      seats: ["d1", "h2"].map((id) => ({ id, job: "1029", offers })),
      // H2 must wait for 1.70. D1 is inside with 1.75, and on its target with 1.70.
      chains: [pack("d1", 2.8), pack("h2", 2.72)],
      lots: [{ id: "1.75", count: 1 }],
      terms: ["outside", "ready", "target"],
    };
    expect(inOrder(question, said(question).plan.values)).toEqual([0, 2, 400]);
    const apart = { ...question, seats: question.seats.map((seat, i) => ({ ...seat, job: `10${i}` })) };
    expect(inOrder(apart, said(apart).plan.values)).toEqual([0, 2, 650]);
  });

  it("has one job wait with three packs rather than another one longer with a single one", () => {
    const sizes = [1.7, 1.75, 1.8];
    const either = (size: number, days: number): Offer[] => [
      ring(size, `${size}`),
      { ...ring(size), id: `${size} ordered`, days },
    ];
    // The other job's three rings close one pack together: it takes all three from the shelf, or waits five days.
    const question: JointQuestion = {
      seats: [
        ...sizes.map((size, i): Seat => ({ id: `a${i}`, job: "a", offers: either(size, 2) })),
        ...sizes.map((size, i): Seat => ({ id: `b${i}`, job: "b", offers: either(size, 5) })),
      ],
      chains: [
        ...sizes.map((size, i) => pack(`a${i}`, size + 1.1)),
        { ...pack("b0", 6.35), id: "b", seats: sizes.map((_, i) => ({ seat: `b${i}`, sign: -1 as const })) },
      ],
      lots: sizes.map((size) => ({ id: `${size}`, count: 1 })),
    };
    expect(said(question).plan.values).toMatchObject({ outside: 0, ready: 2 });
    // Also where they are in each other's way before that: a measured piece is surer than one by its mark, and there is one.
    const unsure = question.chains.map((chain) => ({ ...chain, variance: 40_000 ** 2 }));
    const marked = question.seats.map((seat) => ({
      ...seat,
      offers: seat.offers.map((offer) => ({ ...offer, variance: offer.lot === undefined ? 60_000 ** 2 : 0 })),
    }));
    const harder = { ...question, chains: unsure, seats: marked };
    expect(inOrder(harder, said(harder).plan.values)).toEqual(triedAll(harder));
  });

  it("meets three end plays that cannot be met one after the other", () => {
    const washers = [1.0, 1.2, 1.4, 1.6].map((size) => ring(size, `${size}`));
    const seats: Seat[] = ["rear", "centre", "front"].map((id) => ({ id, offers: washers }));
    const end = (
      id: string,
      links: [string, 1 | -1][],
      rest: number,
      min: number,
      max: number,
    ): JointQuestion["chains"][number] => ({
      id,
      seats: links.map(([seat, sign]) => ({ seat, sign })),
      rest: mm(rest),
      variance: 0,
      min: mm(min),
      max: mm(max),
      target: mm((min + max) / 2),
    });
    const question: JointQuestion = {
      seats,
      // The rear washer opens the centre by what it closes the rear: on its own target with 1.20 the rear leaves the centre too tight with every washer.
      chains: [
        end("rear play", [["rear", -1]], 1.5, 0.08, 0.52),
        end(
          "centre play",
          [
            ["rear", 1],
            ["centre", -1],
          ],
          0.05,
          0.4,
          0.7,
        ),
        end("front play", [["front", -1]], 1.75, 0.1, 0.6),
      ],
      relations: [
        { below: "rear play", above: "centre play", by: mm(0.02) },
        { below: "front play", above: "centre play", by: mm(0.02) },
      ],
      lots: washers.map(({ id }) => ({ id, count: 1 })),
    };
    const { plan } = said(question);
    expect(plan.values).toMatchObject({ outside: 0, order: 0 });
    expect([...picksOf(plan)].map(([seat, offer]) => `${seat} ${offer?.id}`)).toEqual([
      "rear 1.4",
      "centre 1",
      "front 1.6",
    ]);
    // One after the other: the rear on its target, and then the centre cannot be.
    const alone = said({
      ...question,
      chains: question.chains.slice(0, 1),
      relations: [],
      seats: [seats[0] as Seat],
    });
    expect(picksOf(alone.plan).get("rear")?.id).toBe("1.2");
    const then = said({
      ...question,
      seats: seats.map((seat, i) => (i === 0 ? { ...seat, pinned: "1.2" } : seat)),
    });
    expect(then.plan.values.outside + then.plan.values.order).toBeGreaterThan(0);
  });

  it("tells “all inside, order wrong” from outside", () => {
    const washers = [1.0, 1.2].map((size) => ring(size, `${size}`));
    const { plan } = said({
      seats: [
        { id: "a", offers: washers },
        { id: "b", offers: washers },
      ],
      chains: [
        { ...pack("a", 2.2), max: mm(1.3) },
        { ...pack("b", 2.1), max: mm(1.3) },
      ],
      relations: [{ below: "a clearance", above: "b clearance", by: mm(0.15) }],
      lots: washers.map(({ id }) => ({ id, count: 1 })),
    });
    expect(plan.values).toMatchObject({ outside: 0, order: 1 });
    expect(plan.broken).toEqual([0]);
  });

  it("leaves a seat open where nothing can be had, and says so", () => {
    const { plan } = said({
      seats: [{ id: "d1", offers: [ring(1.7, "1.70")] }],
      chains: [pack("d1", 2.8)],
      lots: [{ id: "1.70", count: 0 }],
    });
    expect(plan.seats).toEqual([{ seat: "d1", offer: null, kept: false }]);
    expect(plan.chains).toEqual([{ chain: "d1 clearance", mean: null, variance: 0, isOutside: true }]);
  });

  it("refuses names that are nothing's, or two things'", () => {
    const question: JointQuestion = {
      seats: [{ id: "d1", offers: [ring(1.7, "1.70")] }],
      chains: [pack("d1", 2.8)],
      lots: [{ id: "1.70", count: 1 }],
    };
    expect(() => chooseJointly({ ...question, chains: [pack("d2", 2.8)] })).toThrow("no seat is called d2");
    expect(() => chooseJointly({ ...question, lots: [] })).toThrow("no lot is called 1.70");
    expect(() => chooseJointly({ ...question, seats: [...question.seats, ...question.seats] })).toThrow(
      "two seats are called d1",
    );
    expect(() =>
      chooseJointly({ ...question, relations: [{ below: "d1 clearance", above: "x", by: nm(0) }] }),
    ).toThrow("no chain is called x");
    const pinned = question.seats.map((seat) => ({ ...seat, pinned: "1.80" }));
    expect(() => chooseJointly({ ...question, seats: pinned })).toThrow(
      "nothing that d1 is offered is called 1.80",
    );
  });
});

it("terms are whole and each is known by its name", () => {
  const { values } = chooseJointly(shopQuestion({ seats: 12, sizes: 40, series: 2, stock: 2, seed: 1 }));
  expect(Object.keys(values).sort()).toEqual([...TERMS].sort());
  expect(Object.values(values).every(Number.isInteger)).toBe(true);
});
