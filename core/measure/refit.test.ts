import { middleOf } from "../reading";
import { describe, expect, it } from "@jest/globals";
import fc from "fast-check";
import { bookOf } from "../../demo/units";
import { resolve } from "../book";
import { fold, seatFacts, type FactBody } from "../fact";
import { nm } from "../quantity";
import { said } from "../testing/said";
import { refitOf, specLines, worksheet, type House, type Worksheet } from "./index";

const HOUSE: House = { rule: "proven", target: "middle" };
const dunlin = bookOf("marram-dunlin");
const CHAIN = "d1-clearance";

const read = (fit: number, value: number): FactBody => ({
  kind: "reading",
  chain: CHAIN,
  phase: "built",
  fit,
  method: "hand and dial",
  unit: "mm",
  resolution: nm(10_000),
  state: { soak: "soaked", facings: "new", wave: "free" },
  reading: { kind: "single", value: nm(value) },
});
const three = (fit: number, value: number): FactBody[] => [
  read(fit, value),
  read(fit, value + 10_000),
  read(fit, value - 10_000),
];
const ring = (fit: number, mark: string, size: number): FactBody => ({
  kind: "fitting",
  seat: CHAIN,
  fit,
  origin: fit === 0 ? "found" : "shelf",
  piece: { mark, size: nm(size) },
});
const choice = (fit: number, mean: number): FactBody => ({
  kind: "choice",
  seat: CHAIN,
  fit,
  kept: false,
  reason: "",
  predictions: [{ chain: CHAIN, mean: nm(mean), expanded: nm(60_000), chance: 0.99 }],
});
const out = (fit: number, was: "out" | "in-again" | "not-out", measured?: number): FactBody => ({
  kind: "taken-out",
  seat: CHAIN,
  fit,
  was,
  ...(measured === undefined ? {} : { measured: nm(measured) }),
});

const applied = resolve(dunlin, { body: "late" }, ["full"]);
const chain = applied.chains.find((one) => one.chain.id === CHAIN);
if (!chain) throw new Error("no such chain");
const MIDDLE = middleOf(chain.spec) ?? 0;
const sheetOf = (bodies: readonly FactBody[]): Worksheet => worksheet(fold(bodies.map(said)), chain, HOUSE);
const count = ({ built }: Worksheet): number => built.readings.length;

/** A ring chosen from a trial, put in, and read with it in. */
const BUILT: FactBody[] = [
  ring(0, "4", 2_000_000),
  ...three(0, MIDDLE + 400_000),
  choice(1, MIDDLE),
  ring(1, "6", 2_400_000),
  ...three(1, MIDDLE),
];

describe("a piece that came out again", () => {
  it("leaves what was read with it behind, and the trial it was chosen from in place", () => {
    const before = sheetOf(BUILT);
    expect([before.stage.at, count(before)]).toEqual(["done", 3]);
    const after = sheetOf([...BUILT, out(1, "out")]);
    expect([after.stage.at, count(after), after.trial.readings.length]).toEqual(["out", 0, 3]);
    expect(after.choice?.body.fit).toBe(1);
  });

  it("counts nothing that is said to be read while it is out", () => {
    expect(count(sheetOf([...BUILT, out(1, "out"), ...three(1, MIDDLE)]))).toBe(0);
  });

  it("is read anew once it is in again, and is then what the micrometer said", () => {
    const again = sheetOf([...BUILT, out(1, "out"), out(1, "in-again", 2_390_000)]);
    expect([again.stage, count(again)]).toEqual([{ at: "read", begun: false }, 0]);
    expect(again.seats[0]?.fitted).toMatchObject({ size: 2_400_000, measured: 2_390_000 });
    const done = sheetOf([...BUILT, out(1, "out"), out(1, "in-again"), ...three(1, MIDDLE)]);
    expect([done.stage.at, count(done)]).toEqual(["done", 3]);
  });

  it("was in all along: everything stands as it stood", () => {
    expect(sheetOf([...BUILT, out(1, "out"), out(1, "not-out")]).stage.at).toBe("done");
    expect(count(sheetOf([...BUILT, out(1, "out"), out(1, "in-again"), out(1, "not-out")]))).toBe(3);
  });

  it("of an earlier fitting says nothing of the one that is in", () => {
    expect(count(sheetOf([...BUILT, out(0, "out")]))).toBe(3);
  });

  it("is not proven on the sheet either", () => {
    const job = fold([...BUILT, out(1, "out")].map(said));
    const line = specLines(job, applied, HOUSE, "mm").find(({ id }) => id === CHAIN);
    expect(line?.built.standing).toBe("not yet");
  });

  it("is where its last word says, whatever was said twice", () => {
    type Was = "out" | "in-again" | "not-out";
    fc.assert(
      fc.property(fc.array(fc.constantFrom<Was>("out", "in-again", "not-out"), { maxLength: 9 }), (all) => {
        const { outs } = seatFacts(fold(all.map((was) => said(out(3, was)))), CHAIN);
        const told = refitOf({ outs }, 3);
        // By hand: out as long as the last that changed anything is "out".
        let isOut = false;
        for (const was of all) isOut = was === "out";
        expect(told.out !== null).toBe(isOut);
        expect(refitOf({ outs }, 2)).toEqual({ out: null, since: null });
      }),
    );
  });
});
