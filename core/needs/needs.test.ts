import { describe, expect, it } from "@jest/globals";
import { bookOf, UNITS } from "../../demo/units";
import type { Book } from "../book";
import { appliedTo, fold, type Fact } from "../fact";
import { dispositions, USUAL_SCHOOLS, worth } from "../inspect";
import { burnt, said } from "../testing/said";
import { comparedBy, heldUpBy, needsOf, overIn, standing, type Needs } from "./index";

const traitsOf = (book: Book, last = false): Record<string, string> =>
  Object.fromEntries(book.traits.map(({ id, values }) => [id, Object.keys(values).at(last ? -1 : 0) ?? ""]));
function asked(book: Book, depths: readonly string[], facts: readonly Fact[] = [], last = false) {
  const job = fold([
    said({ kind: "scope", depths: [...depths] }),
    said({ kind: "configuration", traits: traitsOf(book, last) }),
    ...facts,
  ]);
  const applied = appliedTo(book, job, []);
  const states = dispositions(job, applied, USUAL_SCHOOLS, "proven");
  return { job, applied, states, needs: needsOf(job, applied, states) };
}
const line = ({ lines }: Needs, id: string) => lines.find((one) => one.id === id);

describe("what a unit needs", () => {
  it("is known when it is booked in: every one-time part and bolt of this version and depth, each with the step that waits", () => {
    for (const book of UNITS.map(bookOf))
      for (const depth of book.depths)
        for (const last of [false, true]) {
          const { applied, needs } = asked(book, [depth], [], last);
          const { parts, fasteners = [], build = [] } = applied.scoped;
          const ids = needs.lines.map(({ id }) => id);
          expect(new Set(ids).size).toBe(ids.length);
          for (const part of parts.filter(({ oneTime, sold }) => oneTime && sold !== "with its assembly"))
            expect([book.unit.id, depth, ids]).toEqual([
              book.unit.id,
              depth,
              expect.arrayContaining([`part ${part.id}`]),
            ]);
          for (const { id } of fasteners.filter(({ oneTime }) => oneTime))
            expect(ids).toContain(`bolts ${id}`);
          for (const { of, kind, waits } of needs.lines) {
            if (kind !== "part" && kind !== "bolts") continue;
            const takes = build.findIndex(
              ({ parts: some = [], fasteners: bolts = [] }) => some.includes(of) || bolts.includes(of),
            );
            // What no step takes comes with the assembly it is part of, or at the end.
            if (takes >= 0) expect([of, waits?.at]).toEqual([of, takes + 1]);
          }
          const places = needs.lines.map(({ waits }) => waits?.at ?? Infinity);
          expect(places).toEqual([...places].sort((a, b) => a - b));
        }
  });

  const dunlin = bookOf("marram-dunlin");

  it("grows with what is found and decided, and says who asked", () => {
    const before = asked(dunlin, ["full"]).needs;
    expect(line(before, "part d1-friction")).toBeUndefined();
    expect(before.open.some(({ part }) => part.id === "d1-friction")).toBe(true);
    const facts = [
      said(burnt("d1-friction")),
      said({ kind: "disposition", part: "pump-washer", is: "replace", reason: "blue from heat" }),
    ];
    const { needs } = asked(dunlin, ["full"], facts);
    expect(line(needs, "part d1-friction")).toMatchObject({
      count: 3,
      number: "MD-1112",
      because: ["burnt, beyond use"],
      waits: { name: "Build the D1 drum" },
    });
    expect(line(needs, "part pump-washer")?.because[0]).toContain("blue from heat");
    expect(needs.open.some(({ part }) => part.id === "d1-friction")).toBe(false);
  });

  it("takes as many plates as the packs of this version have, whatever the part’s own entry says", () => {
    const less = { ...dunlin, parts: dunlin.parts.map((part) => ({ ...part, count: undefined })) };
    for (const book of [dunlin, less]) {
      const { needs } = asked(
        book,
        ["full"],
        [said({ kind: "disposition", part: "h2-friction", is: "replace", reason: "old" })],
      );
      expect(line(needs, "part h2-friction")?.count).toBe(5);
    }
  });

  it("buys what is sold as a set once, in the list, in a rebuild’s price and in a kit", () => {
    for (const book of UNITS.map(bookOf)) {
      const sets = book.parts.filter(({ sold }) => sold === "as a set");
      const { job, applied, needs, states } = asked(
        book,
        book.depths,
        sets.map(({ id }) => said({ kind: "disposition", part: id, is: "replace", reason: "worn" })),
      );
      const priced = worth(job, applied, states, {
        prices: new Map(),
        rate: 1,
        comeback: 1,
        metal: false,
      }).needs;
      for (const { id, number } of sets.filter((part) => applied.scoped.parts.includes(part))) {
        expect([id, line(needs, `part ${id}`)?.count]).toEqual([id, 1]);
        expect(priced.find((one) => one.number === number)?.count).toBe(1);
        for (const { contents } of book.kits ?? [])
          for (const { of, count } of contents) if (of === id) expect([id, count]).toEqual([id, 1]);
      }
    }
  });

  it("takes a later part with what it brings along", () => {
    const { needs } = asked(
      dunlin,
      ["full"],
      [said({ kind: "disposition", part: "plate-one", is: "upgrade", reason: "the later one" })],
    );
    expect(line(needs, "part plate-one")).toMatchObject({
      number: "MD-9002",
      brings: "brings a sixth check ball and its spring",
    });
  });

  it("counts fluid once a room, the largest fill of those the work reaches", () => {
    const fluids = (depths: string[]) =>
      asked(dunlin, depths).needs.lines.flatMap(({ kind, amount }) => (kind === "fluid" ? [amount] : []));
    expect([fluids(["pan and body"]), fluids(["full"]), fluids(["pan and body", "full"])]).toEqual([
      ["4.8 l"],
      ["9.4 l"],
      ["9.4 l"],
    ]);
    const sanderling = asked(bookOf("selwyn-sanderling"), ["full"], [], true).needs;
    expect(sanderling.lines.filter(({ kind }) => kind === "fluid").map(({ amount }) => amount)).toEqual([
      "6.9 l",
      "0.9 l",
      "0.5 l",
    ]);
  });

  it("says what is cheap now and dear later: never what is wanted already, with all the work down to it and up again", () => {
    const { needs, applied } = asked(dunlin, ["full"]);
    const wanted = new Set(needs.lines.map(({ of }) => of));
    expect(needs.whileOpen.length).toBeGreaterThan(5);
    for (const { part, minutes } of needs.whileOpen) {
      expect(wanted.has(part.id)).toBe(false);
      const { teardown = [], build = [] } = applied.scoped;
      const all = [...teardown, ...build].reduce((sum, step) => sum + (step.minutes ?? 0), 0);
      expect(minutes).toBeGreaterThan(0);
      expect(minutes).toBeLessThanOrEqual(all);
    }
  });

  it("stands as its box, its orders and the shelf have it, the first step served first, and nothing given out twice", () => {
    const { needs } = asked(dunlin, ["full"]);
    const two = needs.lines.filter(({ number, waits }) => number !== null && waits !== null).slice(0, 2);
    const same = two.map((one) => ({ ...one, number: "X", count: 3 }));
    const late = { number: "X", pieces: 2, due: "2026-05-04", isLate: true };
    const given = { box: new Map([["X", 1]]), shelf: new Map([["X", 1]]), coming: [late] };
    const stands = standing(same, given);
    expect([...stands.values()]).toEqual([
      { box: 1, coming: 2, due: "2026-05-04", isLate: true, shelf: 0, short: 0 },
      { box: 0, coming: 0, due: null, isLate: false, shelf: 1, short: 2 },
    ]);
    expect(heldUpBy(same, stands)?.id).toBe(same[0]?.id);
    const all = standing(same, { box: new Map([["X", 7]]), shelf: new Map(), coming: [] });
    expect([
      heldUpBy(same, all),
      overIn(
        new Map([
          ["X", 7],
          ["Y", 2],
        ]),
        same,
      ),
    ]).toEqual([
      null,
      [
        { number: "X", count: 1 },
        { number: "Y", count: 2 },
      ],
    ]);
  });

  it("does not offer to the shelf what went into the unit, nor give it to another line", () => {
    const { needs } = asked(dunlin, ["full"]);
    const two = needs.lines.filter(({ number }) => number !== null).slice(0, 2);
    const same = two.map((one, i) => ({ ...one, number: "X", count: 3, isIn: i === 0 }));
    const box = new Map([["X", 4]]);
    expect(overIn(box, same)).toEqual([]);
    const stands = standing(same, { box, shelf: new Map(), coming: [] });
    expect(same.map(({ id }) => [stands.get(id)?.box, stands.get(id)?.short])).toEqual([
      [0, 0],
      [1, 2],
    ]);
  });

  it("is compared new against old by what it is, and by what looks the same", () => {
    expect(comparedBy(dunlin, "MD-1112")).toContain("thickness of the whole stack, clamped");
    for (const { number, lookAlikes = [] } of dunlin.parts)
      for (const { tell } of lookAlikes)
        expect(comparedBy(dunlin, number).some((words) => words.includes(tell))).toBe(true);
    expect(comparedBy(dunlin, "MD-9701")).toEqual(
      expect.arrayContaining(["length under the head", "O-ring under the head"]),
    );
    expect(comparedBy(dunlin, "SH-101")).toEqual(["number on the bag"]);
  });
});
