import { describe, expect, it } from "@jest/globals";
import fc from "fast-check";
import { disagreements, fold, inOrder, type Fact, type FactBody } from "./index";

const part = (is: "reuse" | "replace" | "machine", of = "pump"): FactBody => ({
  kind: "disposition",
  part: of,
  is,
  reason: "because",
});
const said = (id: string, by: string, body: FactBody, after?: string): Fact => ({
  id,
  at: "2026-05-04T08:00:00.000Z",
  by,
  body,
  ...(after === undefined ? {} : { after }),
});
const ids = (facts: readonly Fact[]): string => facts.map(({ id }) => id).join("");

describe("the order in which facts were said", () => {
  it("is that of arrival where nobody names what was seen", () => {
    const facts = [said("a", "M", part("reuse")), said("b", "T", part("replace"))];
    expect(inOrder(facts)).toBe(facts);
  });

  it("puts a late one behind what its speaker had seen: this morning's word holds", () => {
    const facts = [
      said("a", "M", { kind: "good", parts: ["pan"] }),
      said("b", "T", part("replace"), "a"),
      said("c", "M", part("reuse"), "a"),
      said("d", "R", part("machine"), "a"),
    ];
    // Three days ago, on a tablet that was away, with nothing seen but the first.
    const late = said("e", "L", part("reuse"), "a");
    const morning = said("f", "T", part("replace"), "d");
    expect(ids(inOrder([...facts, morning, late]))).toBe("abcdef".replace("ef", "ef"));
    expect(fold([...facts, morning, late]).dispositions.get("pump")?.id).toBe("f");
  });

  it("keeps what one tablet said in the order it said it, and never puts a fact before one its speaker had seen", () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ by: fc.constantFrom("M", "T", "R"), back: fc.nat(6) }), { maxLength: 14 }),
        (made) => {
          const facts = made.map(({ by, back }, i): Fact => {
            const after = back === 0 ? undefined : `${Math.max(0, i - back)}`;
            return said(`${i}`, by, part("reuse"), i === 0 ? undefined : after);
          });
          const order = inOrder(facts).map(({ id }) => Number(id));
          // The slow way: everybody stands behind everything they had seen.
          facts.forEach(({ after }, i) => {
            const seen = after === undefined ? i - 1 : Number(after);
            for (let j = 0; j <= seen; j++) expect(order.indexOf(j)).toBeLessThan(order.indexOf(i));
          });
          expect([...order].sort((a, b) => a - b)).toEqual(facts.map((_, i) => i));
        },
      ),
      { seed: 12, numRuns: 500 },
    );
  });

  it("takes a fact whose last one is not here as just arrived", () => {
    const facts = [said("a", "M", part("reuse")), said("b", "T", part("replace"), "from elsewhere")];
    expect(ids(inOrder(facts))).toBe("ab");
  });
});

describe("two who did not know of each other", () => {
  const first = said("a", "M", { kind: "good", parts: ["pan"] });
  const mira = said("b", "Mira K.", part("reuse"), "a");
  const tomas = said("c", "Tomas B.", part("replace"), "a");

  it("disagree until somebody who has seen both says which holds", () => {
    expect(disagreements([first, mira, tomas])).toMatchObject([
      { kind: "disposition", key: "pump", holds: { id: "c" }, others: [{ id: "b" }] },
    ]);
    const edda = said("d", "Edda L.", part("reuse"), "c");
    expect(disagreements([first, mira, tomas, edda])).toEqual([]);
    expect(fold([first, mira, tomas, edda]).dispositions.get("pump")?.id).toBe("d");
  });

  it("do not when they say the same, speak of other things, or one knew of the other", () => {
    expect(disagreements([first, mira, { ...tomas, body: mira.body }])).toEqual([]);
    expect(disagreements([first, mira, said("c", "Tomas B.", part("replace", "pan"), "a")])).toEqual([]);
    expect(disagreements([first, mira, said("c", "Tomas B.", part("replace"), "b")])).toEqual([]);
  });

  it("one person on one tablet knows what they said before", () => {
    expect(disagreements([first, mira, said("c", "Mira K.", part("replace"), "a")])).toEqual([]);
  });

  it("facts of before, which name nothing, disagree with nobody", () => {
    expect(disagreements([first, said("b", "M", part("reuse")), said("c", "T", part("replace"))])).toEqual(
      [],
    );
  });
});
