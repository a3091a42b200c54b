import { describe, expect, it } from "@jest/globals";
import fc from "fast-check";
import { bookOf } from "../../demo/units";
import { jobOf } from "../../demo/testing";
import { readFileSync } from "node:fs";
import { bookByHand, resolve } from "../book";
import { readBook } from "../check";
import type { FactBody, FactOf } from "../fact";
import { nm } from "../quantity";
import { planOf } from "../steps";
import { learn, learnedOf } from "./index";

type Act = FactOf<"came-off">["body"];
const blank = (): object =>
  bookByHand({
    name: "Dotterel",
    family: "automatic",
    lengthUnit: "mm",
    source: "by doing",
    checked: "2026-11-28",
    packs: [],
  });
const act = (what: string, more: Partial<Act> = {}): Act => ({
  kind: "came-off",
  act: what.toLowerCase(),
  there: true,
  what,
  count: 1,
  way: "",
  to: "bench",
  at: [],
  ...more,
});
const PAN = act("Pan", {
  way: "dent to the front",
  bolts: { count: 2, size: "M6", length: nm(20_000_000) },
  at: [
    [100, 200],
    [900, 800],
  ],
});
const BODY = act("Valve body", {
  part: "valve body",
  balls: { count: 2, size: nm(6_350_000) },
  at: [
    [250, 500],
    [750, 500],
  ],
});
const LOW = act("Low pack", {
  plates: {
    pack: "Low",
    frictions: 4,
    steels: 4,
    friction: nm(1_600_000),
    steel: nm(1_800_000),
    clearance: nm(1_320_000),
  },
});

describe("a unit recorded by doing it", () => {
  it("makes a book that the check has nothing against: down in that order, up the other way round", () => {
    const { document, words } = learn(blank(), { acts: [PAN, BODY, LOW], skipped: [] }, 1031);
    const read = readBook(document);
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    const { teardown = [], build = [], fasteners, checkBalls, packs, chains, parts } = read.book;
    expect(teardown.map(({ name }) => name)).toEqual(["Pan off", "Valve body off", "Low pack off"]);
    expect(build.map(({ name }) => name)).toEqual(["Low pack in", "Valve body in", "Pan in"]);
    expect(build[2]?.fit).toEqual([{ part: "pan", round: "dent to the front" }]);
    expect(fasteners).toMatchObject([
      { count: 2, size: "M6", length: 20_000_000, places: [{ at: [10, 20] }, { at: [90, 80] }] },
    ]);
    expect(fasteners?.[0]?.torque).toBeUndefined();
    expect(
      readBook(
        learn(blank(), { acts: [act("Cover", { bolts: { count: 14, size: "" } })], skipped: [] }, 1).document,
      ),
    ).toMatchObject({
      ok: true,
      book: { fasteners: [{ note: expect.stringMatching(/not known/) }] },
    });
    expect(checkBalls?.map(({ at, size }) => [at, size])).toEqual([
      [[25, 50], 6_350_000],
      [[75, 50], 6_350_000],
    ]);
    expect(packs[0]?.stack.map(({ role, count, thickness }) => [role, count, thickness])).toEqual([
      ["steel", 4, 1_800_000],
      ["friction", 4, 1_600_000],
    ]);
    // What was measured once is told, and is no limit.
    expect(chains[0]).toMatchObject({
      spec: [{}],
      read: { how: "As found 1.32 mm on job 1031: one unit, no limit." },
    });
    expect(parts.map(({ id }) => id)).toEqual(["pan", "valve-body", "low-steel", "low-friction"]);
    expect(words).toHaveLength(4);
  });

  it("is worked by on the second job, and learns what that does otherwise", () => {
    const first = learn(blank(), { acts: [PAN, BODY], skipped: [] }, 1031).document;
    const read = readBook(first);
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    const applied = resolve(read.book, {}, ["full"]);
    const said: FactBody[] = [
      { kind: "step", step: "t-pan", did: "done", reason: "", to: "bench" },
      { ...act("Filter", { after: "t-pan" }) },
      { ...act("Magnet", { after: "t-pan" }) },
      { ...act("Dropped", { there: false, after: "t-pan" }) },
      { kind: "step", step: "t-valve-body", did: "skipped", reason: "off already" },
    ];
    const job = jobOf(said);
    expect(planOf(job, applied).steps.map(({ at }) => at)).toEqual(["done", "skipped"]);
    const { document, words } = learn(first, learnedOf(job), 1032);
    const again = readBook(document);
    if (!again.ok) throw new Error(JSON.stringify(again.problems));
    expect(again.book.teardown?.map(({ name }) => name)).toEqual([
      "Pan off",
      "Filter off",
      "Magnet off",
      "Valve body off",
    ]);
    expect(again.book.build?.map(({ name }) => name)).toEqual([
      "Valve body in",
      "Magnet in",
      "Filter in",
      "Pan in",
    ]);
    expect(again.book.teardown?.[3]?.how).toBe("Job 1032 passed it over: off already.");
    expect(words).toHaveLength(3);
    // Offered twice it says nothing twice of what was passed over.
    expect(learn(document, { ...learnedOf(job), acts: [] }, 1032).words).toEqual([]);
  });

  it("of any acts is a book of as many steps each way, and building is the reverse of taking down", () => {
    const words = fc.stringMatching(/^[A-Za-z][A-Za-z0-9 -]{0,20}$/);
    const acts = fc.array(
      fc.record({
        what: words,
        count: fc.integer({ min: 1, max: 3 }),
        way: fc.constantFrom("", "dish up"),
        bolts: fc.option(
          fc.record({ count: fc.integer({ min: 1, max: 12 }), size: fc.constantFrom("", "M8") }),
          { nil: undefined },
        ),
        balls: fc.option(fc.record({ count: fc.integer({ min: 1, max: 4 }) }), { nil: undefined }),
      }),
      { minLength: 1, maxLength: 8 },
    );
    fc.assert(
      fc.property(acts, (list) => {
        const all = list.map(({ what, bolts, balls, ...more }, i) =>
          act(what, { ...more, act: `${i}`, ...(bolts ? { bolts } : {}), ...(balls ? { balls } : {}) }),
        );
        const read = readBook(learn(blank(), { acts: all, skipped: [] }, 1).document, "kept");
        if (!read.ok) throw new Error(JSON.stringify(read.problems));
        const { teardown = [], build = [] } = read.book;
        expect(teardown.map(({ name }) => name)).toEqual(list.map(({ what }) => `${what} off`));
        expect(build.map(({ parts }) => parts)).toEqual(teardown.map(({ parts }) => parts).reverse());
        expect(new Set([...teardown, ...build].map(({ id }) => id)).size).toBe(2 * list.length);
      }),
      { numRuns: 100 },
    );
  });

  it("leaves the six books as good as they were", () => {
    const document = JSON.parse(readFileSync("demo/books/marram-dunlin.json", "utf8")) as object;
    const book = bookOf("marram-dunlin");
    const after = book.teardown?.[2]?.id ?? "";
    const taught = learn(document, { acts: [act("Deflector", { after })], skipped: [] }, 1);
    const read = readBook(taught.document);
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    expect(read.book.teardown?.[3]?.name).toBe("Deflector off");
  });
});
