import { ends, middleOf } from "../reading";
import { describe, expect, it } from "@jest/globals";
import fc from "fast-check";
import { bookOf, UNITS } from "../../demo/units";
import { resolve, type AppliedChain } from "../book";
import { appliedTo, fold, type Fact, type Phase } from "../fact";
import { nm } from "../quantity";
import { isPackChain } from "./reading-set";
import { USUAL_SCHOOLS } from "../inspect";
import { openOf } from "../stage";
import { figures, specLines, worksheet, type House } from "./index";
import { said } from "../testing/said";

const HOUSE: House = { rule: "proven", target: "middle" };
const reading = (
  { chain, spec }: AppliedChain,
  phase: Phase,
  fit: number,
  value: number,
  item?: string,
): Fact =>
  said({
    kind: "reading",
    chain: chain.id,
    phase,
    fit,
    method: "hand and dial",
    state: { ...spec.state, facings: spec.state.facings ?? "new" },
    reading: { kind: "single", value: nm(value) },
    resolution: nm(10_000),
    unit: "mm",
    ...(item ? { item } : {}),
  });

describe.each([...UNITS])("worksheets of %s", (id) => {
  const book = bookOf(id);
  const applied = resolve(book, {}, book.depths);
  const chains = applied.chains.filter(
    (one) => !applied.packs.some(({ chain }) => chain.id === one.chain.id),
  );

  it("say of every chain what its figure says, whichever of its things were read", () => {
    expect(chains.length).toBeGreaterThan(0);
    fc.assert(
      fc.property(
        fc.nat(chains.length - 1),
        fc.array(fc.record({ at: fc.integer({ min: -20, max: 120 }), item: fc.nat(9) }), { maxLength: 8 }),
        fc.boolean(),
        (which, takes, cannot) => {
          const chain = chains[which]!;
          const { min, max } = ends(chain.spec);
          const each = chain.chain.read.each ?? [];
          const facts = takes.map(({ at, item }) =>
            reading(
              chain,
              "found",
              0,
              Math.max(0, Math.round(min + ((max - min) * at) / 100)),
              each[item % (each.length + 1)],
            ),
          );
          if (cannot)
            facts.push(
              said({
                kind: "figure",
                of: "chain",
                id: chain.chain.id,
                phase: "found",
                cannot: "felt-only-in-order",
                note: "",
              }),
            );
          const job = fold(facts);
          const { readings, assessment, said: word, items, clocking } = worksheet(job, chain, HOUSE).found;
          const figure = figures(job, applied, HOUSE.rule, "found").find((one) => one.id === chain.chain.id);
          expect(figure).toMatchObject({ readings, assessment, said: word, items, clocking });
        },
      ),
      { seed: 61, numRuns: 60 },
    );
  });
});

describe("an end play", () => {
  const book = bookOf("marram-dunlin");
  const applied = resolve(book, {}, book.depths);
  const play = applied.chains.find((one) => !isPackChain(one) && one.inScope && one.seats.length > 0)!;
  const middle = middleOf(play.spec)!;
  const at = (facts: Fact[]) => worksheet(fold(facts), play, HOUSE);
  const read = (phase: Phase, fit: number) => [1, 2, 3].map(() => reading(play, phase, fit, middle));

  it("goes through the stages a pack goes through", () => {
    const size = play.seats[0]!.sizes[0]!;
    const fitting = (fit: number) =>
      said({
        kind: "fitting",
        seat: play.chain.id,
        fit,
        origin: fit === 0 ? "found" : "shelf",
        piece: { part: size.part, size: size.size },
      });
    const chosen = said({
      kind: "choice",
      seat: play.chain.id,
      fit: 1,
      kept: false,
      reason: "",
      predictions: [{ chain: play.chain.id, mean: middle, expanded: nm(20_000), chance: 1 }],
    });
    const found = [...read("found", 0), fitting(0)];
    const tried = [...found, ...read("built", 0)];
    const changed = [...tried, fitting(1), chosen];
    expect([
      at([]).stage,
      at(found).stage,
      at(tried).stage,
      at(changed).stage,
      at([...changed, ...read("built", 1)]).stage,
    ]).toEqual([
      { at: "found", begun: false },
      // Inside with what is in: nothing has to be chosen.
      { at: "done" },
      { at: "done" },
      { at: "read", begun: false },
      { at: "done" },
    ]);
    const out = [1, 2, 3].map(() => reading(play, "found", 0, 2 * ends(play.spec).max));
    const still = [1, 2, 3].map(() => reading(play, "built", 0, 2 * ends(play.spec).max));
    expect([at(out).stage, at([...out, ...still]).stage]).toEqual([
      { at: "trial", begun: false },
      { at: "choose" },
    ]);
    expect(at(changed).seats[0]?.fitted?.size).toBe(size.size);
  });

  it("is made anew when something is said of it instead of a reading", () => {
    const before = at([]);
    const job = fold([
      said({
        kind: "figure",
        of: "chain",
        id: play.chain.id,
        phase: "found",
        cannot: "felt-only-in-order",
        note: "",
      }),
    ]);
    expect(before.found.said).toBeNull();
    expect(worksheet(job, play, HOUSE).found.said?.body.cannot).toBe("felt-only-in-order");
  });
});

describe("what is read without the book's conditions", () => {
  const book = bookOf("marram-dunlin");
  const version = { body: "late", plate: "two" };
  const read = (close: boolean, ...met: string[][]) => {
    const play = resolve(book, version, ["full"]).chains.find(({ chain }) => chain.id === "input-end-play")!;
    const middle = middleOf(play.spec)!;
    const job = fold([
      said({ kind: "configuration", traits: version }),
      said({ kind: "scope", depths: ["full"] }),
      ...[0, 1, 0].map((off) => reading(play, "built", 0, middle + off * 10_000)),
      ...met.map((one) =>
        said({ kind: "conditions", chain: play.chain.id, phase: "built", fit: 0, met: one }),
      ),
      ...(close ? [said({ kind: "closed", rule: "proven" })] : []),
    ]);
    const applied = appliedTo(book, job, []);
    const row = specLines(job, applied, HOUSE, "mm").find(({ id }) => id === "input-end-play");
    const open = openOf(job, applied, { ...HOUSE, ...USUAL_SCHOOLS }).find(
      ({ key }) => key === "figure input-end-play",
    );
    return [row?.built.standing, row?.sheet?.stage.at, open?.words ?? ""];
  };
  const all = ["gasket in", "4 Pump bolts at 10 N·m"];

  it("does not count, says so in the sheet, and hinders closing until they are said to be kept", () => {
    expect(read(false)).toEqual([
      "conditions not said",
      "trial",
      "its conditions are not said: gasket in, 4 Pump bolts at 10 N·m",
    ]);
    expect(read(false, all.slice(0, 1))[2]).toBe("its conditions are not said: 4 Pump bolts at 10 N·m");
    expect(read(false, all)).toEqual(["inside", "done", ""]);
    // The last word holds.
    expect(read(false, all, [])[0]).toBe("conditions not said");
  });

  it("stands in a closed job as it stood", () => {
    expect(read(true)[0]).toBe("inside");
  });
});

describe("a figure the book wants read twice", () => {
  const book = bookOf("marram-whimbrel");
  const band = resolve(book, {}, book.depths).chains.find(({ chain }) => chain.id === "band-travel")!;
  const verdict = (...thous: number[]) =>
    worksheet(fold(thous.map((thou) => reading(band, "found", 0, thou * 25_400))), band, HOUSE).found
      .assessment.verdict;

  it.each<[string, number[], object]>([
    ["one reading", [118], { kind: "too few", more: 1 }],
    ["two that agree", [118, 119], { kind: "inside" }],
    ["two at the limit", [100, 101], { kind: "too close" }],
    ["two far apart", [105, 135], { kind: "too close" }],
    ["two beyond", [150, 151], { kind: "outside", side: "loose" }],
  ])("%s", (_name, thous, is) => {
    expect(verdict(...thous)).toMatchObject(is);
  });
});
