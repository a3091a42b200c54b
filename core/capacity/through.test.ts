import { describe, expect, it } from "@jest/globals";
import { bookOf, UNITS } from "../../demo/units";
import { resolve, type Book } from "../book";
import { baseOf, measureOf, toNumber } from "../quantity";
import { demandsOf, throughParts } from "./index";

const present = (unit: (typeof UNITS)[number]): Book =>
  resolve(bookOf(unit), {}, bookOf(unit).depths).present;
const taking = (book: Book, takes: NonNullable<Book["parts"][number]["takes"]>): Book => ({
  ...book,
  parts: book.parts.map((part, i) => (i === 0 ? { ...part, takes } : { ...part, takes: undefined })),
});
const torque = measureOf("500 N·m", "torque");

describe("what runs through shafts and hubs", () => {
  it("by hand: the input shaft carries the engine’s torque as the converter makes it, held back where it is", () => {
    // 300 N·m, 1.8 times at a standstill, held to 0.85 in first and 0.6 in reverse: 459 in 1, 324 in R, 300 in the others.
    const [shaft] = throughParts(taking(present("marram-dunlin"), { torque, member: "input" }), {
      torque: 300,
      stall: 1.8,
    });
    expect(shaft).toMatchObject({ range: "1", takes: 500 });
    expect(shaft?.torque).toBeCloseTo(459, 6);
    expect(shaft?.margin).toBeCloseTo(500 / 459, 6);
    expect(shaft?.judged).toBe("thin");
  });

  it.each(UNITS)(
    "%s: the output carries the input’s torque times the ratio, and an element’s hub what it holds",
    (unit) => {
      const book = present(unit);
      const duty = { torque: 200, stall: 1 };
      const [out] = throughParts(taking(book, { torque, member: book.train.output }), duty);
      const held = book.unit.behind?.held ?? {};
      const most = Math.max(
        ...book.ranges
          .filter(({ applied }) => applied.length > 0)
          .map(({ id, ratio }) => 200 * (held[id] ?? 1) * Math.abs(ratio)),
      );
      if (out) expect(out.torque).toBeCloseTo(most, 6);
      for (const [element, [worst]] of demandsOf(book, duty)) {
        const [hub] = throughParts(taking(book, { torque, element }), duty);
        expect(hub?.torque ?? 0).toBeCloseTo(worst?.torque ?? 0, 6);
      }
    },
  );

  it("a stronger part takes what its way says, and is judged by that", () => {
    const book = present("marram-whimbrel");
    const duty = { torque: toNumber(baseOf(measureOf("700 lbf·ft", "torque"))), stall: 2.1 };
    const stock = throughParts(book, duty).find(({ part }) => part.id === "link-drum");
    const hard = throughParts(book, duty, book.stronger).find(({ part }) => part.id === "link-drum");
    expect([stock?.judged, hard?.way?.id]).toEqual(["slips", "hard-shell"]);
    expect((hard?.margin ?? 0) / (stock?.margin ?? 1)).toBeCloseTo(2100 / 1400, 9);
  });

  it("of what nobody says what it takes, nothing is said", () => {
    expect(throughParts(present("selwyn-turnstone"), { torque: 200, stall: 1 })).toEqual([]);
  });
});
