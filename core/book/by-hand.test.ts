import { describe, expect, it } from "@jest/globals";
import { bookOf, UNITS } from "../../demo/units";
import { readBook } from "../check";
import { jobOf } from "../../demo/testing";
import type { FactBody } from "../fact";
import { worksheet } from "../measure";
import { nm } from "../quantity";
import { abilityOf, bookByHand, resolve, specWords, type Origin, type PackByHand } from "./index";

const LOW: PackByHand = {
  name: "Low",
  kind: "clutch",
  frictions: 4,
  steels: 4,
  min: "0.80 mm",
  max: "1.20 mm",
  soak: "soaked",
  rings: ["1.50 mm", "1.70 mm"],
  within: "0.02 mm",
};
const written = (packs: readonly PackByHand[], from?: Origin): object =>
  bookByHand({
    ...(from ? { from } : {}),
    maker: "Fen",
    name: "Dotterel",
    family: "automatic",
    lengthUnit: "mm",
    source: "a colleague",
    checked: "2026-11-27",
    packs,
  });

describe("a unit written down by hand", () => {
  it("is a book that the check has nothing against, and judges its packs", () => {
    const read = readBook(written([LOW, { ...LOW, name: "Rev", kind: "brake", rings: [], steels: 3 }]));
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    const { packs, chains } = resolve(read.book, {}, ["full"]);
    expect(packs.map(({ pack, spec, seats }) => [pack.element, spec.min, spec.max, seats.length])).toEqual([
      ["low", 800_000, 1_200_000, 1],
      ["rev", 800_000, 1_200_000, 0],
    ]);
    expect(chains.map(({ book }) => book.source)).toEqual(["a colleague", "a colleague"]);
    const { can, cannot } = abilityOf(read.book);
    expect(can).toEqual(["judge 2 packs", "choose 1 piece", "name 4 parts"]);
    expect(cannot).toContain("tear-down steps");
  });

  it("keeps what is read of a pack that nobody has a limit for, and does not call it inside", () => {
    const read = readBook(written([{ ...LOW, min: undefined, max: undefined }]));
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    expect(abilityOf(read.book).cannot).toContain("judge a pack: no limit is known");
    const applied = resolve(read.book, {}, ["full"]);
    const [low] = applied.packs;
    if (!low) throw new Error("no pack");
    expect(specWords(low, "mm")).toBe("no limit known");
    const at = (phase: "found" | "built", fit: number, values: number[]): FactBody[] =>
      values.map((value) => ({
        kind: "reading",
        chain: low.chain.id,
        phase,
        fit,
        method: "feeler",
        state: { ...low.spec.state, facings: "new" },
        reading: { kind: "single", value: nm(value) },
        resolution: nm(10_000),
        unit: "mm",
      }));
    const readings = at("built", 0, [1_000_000, 1_010_000, 990_000]);
    const kept: FactBody[] = [
      {
        kind: "fitting",
        seat: low.chain.id,
        fit: 0,
        origin: "found",
        piece: { mark: "1.50 mm", size: nm(1_500_000) },
      },
      ...readings,
      { kind: "choice", seat: low.chain.id, fit: 0, kept: true, reason: "", predictions: [] },
    ];
    const house = { rule: "proven", target: "middle" } as const;
    expect(worksheet(jobOf(kept.slice(0, -1)), low, house).stage).toEqual({ at: "choose" });
    const done = worksheet(jobOf([...kept, ...readings]), low, house);
    expect(done.stage).toEqual({ at: "done", unlimited: true });
    const { readings: all, assessment } = done.built;
    expect([all.length, assessment.verdict.kind, assessment.estimate?.mean]).toEqual([
      6,
      "not stated",
      1_000_000,
    ]);
  });

  it("says whose its figures are where that is not the maker", () => {
    const words = (["maker", "colleague"] as const).map((from) => {
      const read = readBook(written([LOW], from));
      const low = read.ok ? resolve(read.book, {}, ["full"]).packs[0] : undefined;
      return low && specWords(low, "mm");
    });
    expect(words).toEqual(["0.80 to 1.20 mm", "0.80 to 1.20 mm, a colleague’s figure"]);
  });

  it.each(UNITS)("has all that %s can do before it", (unit) =>
    expect(abilityOf(bookOf(unit)).cannot).toEqual([]),
  );

  it("invents nothing: no thickness, no ratio, no step, no member that anything joins", () => {
    const read = readBook(written([LOW]));
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    const { packs, ranges, gearSets, elements, build, teardown } = read.book;
    expect(packs[0]?.stack.map(({ thickness }) => thickness)).toEqual([undefined, undefined]);
    expect([ranges, gearSets, elements[0]?.joins, build, teardown]).toEqual([
      [],
      [],
      undefined,
      undefined,
      undefined,
    ]);
  });
});
