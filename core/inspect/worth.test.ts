import { describe, expect, it } from "@jest/globals";
import { finding, jobOf, unitOf } from "../../demo/testing";
import { bookOf } from "../../demo/units";
import { resolve } from "../book";
import { fold, type Fact, type FactBody } from "../fact";
import { dispositions, USUAL_SCHOOLS, worth, type Worth } from "./index";

const applied = resolve(bookOf("marram-dunlin"), { body: "late", plate: "two" }, ["full"]);
let n = 0;
function of(
  bodies: readonly FactBody[],
  prices: ReadonlyMap<string, number> = new Map(),
  metal = false,
): Worth {
  const facts = bodies.map((body): Fact => ({
    id: `w${n++}`,
    at: "2026-05-04T08:00:00.000Z",
    by: "Edda L.",
    body,
  }));
  const job = fold(facts);
  const states = dispositions(job, applied, USUAL_SCHOOLS, "proven");
  return worth(job, applied, states, { prices, rate: 9_000, comeback: 100_000, metal });
}
const offer = (
  way: "rebuild" | "reconditioned" | "used",
  cents: number,
  hours: number,
  risk: number,
): FactBody => ({
  kind: "offer",
  way,
  cents,
  hours,
  risk,
  note: "",
});

describe("rebuild or replace", () => {
  it("adds price, labour and the risk of a comeback", () => {
    const { options, best } = of([offer("rebuild", 50_000, 10, 10), offer("reconditioned", 180_000, 1, 4)]);
    expect(options.map(({ expected }) => expected)).toEqual([
      50_000 + 90_000 + 10_000,
      180_000 + 9_000 + 4_000,
      20_000,
    ]);
    expect(best?.way).toBe("rebuild");
  });

  it("breaks even where both cost the same", () => {
    const { breakEven } = of([offer("rebuild", 50_000, 10, 10), offer("used", 120_000, 1, 15)]);
    // 120 000 + 9 000 + 15 000 = 50 000 + 90 000 + r × 100 000
    expect(breakEven).toBeCloseTo(0.04, 9);
    const { options } = of([
      offer("rebuild", 50_000, 10, 100 * (breakEven ?? 0)),
      offer("used", 120_000, 1, 15),
    ]);
    expect(options[0]?.expected).toBe(options[2]?.expected);
  });

  it("says nothing of the best while only the rebuild is priced, and no break-even where none is", () => {
    expect(of([]).best).toBeNull();
    expect(of([offer("rebuild", 900_000, 10, 5), offer("used", 100, 0, 0)]).breakEven).toBeNull();
  });

  it("lets no rebuild win whose parts have no price", () => {
    const { best, breakEven, options } = of([offer("used", 120_000, 1, 15)]);
    const priced = options.filter(({ from }) => from !== null).map(({ way }) => way);
    expect([best, breakEven, priced]).toEqual([null, null, ["used"]]);
  });

  it("lists what must be new, with the prices the shelf has, and the book’s hours for what is left to do", () => {
    const steel = applied.present.parts.find(({ id }) => id === "d1-steel");
    const worn: FactBody = {
      kind: "finding",
      part: "d1-steel",
      wear: "heat-spots",
      severity: "worn",
      sure: true,
      note: "",
      there: true,
    };
    const { needs, known } = of([worn], new Map([[steel?.number ?? "", 450]]));
    expect(needs).toContainEqual({ part: "D1 steel", number: steel?.number, count: 4, cents: 450 });
    expect(known).toBe(1_800);
    const done = (applied.scoped.teardown ?? []).map(({ id }): FactBody => ({
      kind: "step",
      step: id,
      did: "done",
      reason: "",
    }));
    expect(of(done).hours).toBeLessThan(of([]).hours);
    expect(of(done).hours).toBeGreaterThan(0);
  });

  it("is priced by what the shop knows when every part has a price, and other units by theirs; an offer comes first", () => {
    const every = new Map(applied.present.parts.map(({ number }) => [number, 1_000]));
    const prices = new Map([
      ...every,
      ["marram-dunlin/reconditioned", 200_000],
      ["marram-dunlin/used", 80_000],
    ]);
    // While a part is not looked at nobody knows what a rebuild needs.
    expect(of([], prices).unseen).toBeGreaterThan(50);
    expect(of([], prices).options[0]?.from).toBeNull();
    expect(of([], prices).best?.way).not.toBe("rebuild");
    const looked: FactBody = { kind: "good", parts: applied.scoped.parts.map(({ id }) => id) };
    expect(of([looked], prices).unseen).toBe(0);
    const { options, best, known, hours } = of([looked], prices);
    expect(options.map(({ from }) => from)).toEqual(["list", "list", "list"]);
    expect(options.map(({ price }) => price)).toEqual([known, 200_000, 80_000]);
    expect(options[0]?.labour).toBe(Math.round(hours * 9_000));
    expect(best?.expected).toBe(Math.min(...options.map(({ expected }) => expected)));
    const offered = of([looked, offer("used", 60_000, 1, 15)], prices).options[2];
    expect([offered?.from, offered?.price]).toEqual(["offer", 60_000]);
    // One part without a price, and the rebuild has none.
    const first = of([looked]).needs[0]?.number ?? "";
    expect(of([looked], new Map([...prices].filter(([part]) => part !== first))).options[0]?.from).toBeNull();
  });

  it("asks for the assembly alone where a part cannot be had without it", () => {
    const godwit = unitOf("corrie-godwit", { clutch: "first" });
    const job = jobOf([finding("k1-piston", "lip-hard", "beyond-use")]);
    const states = dispositions(job, godwit, USUAL_SCHOOLS, "proven");
    const { needs } = worth(job, godwit, states, { prices: new Map(), rate: 0, comeback: 0, metal: false });
    const numbers = needs.map(({ number }) => number);
    const numberOf = (part: string) => godwit.present.parts.find(({ id }) => id === part)?.number;
    expect(numbers).toContain(numberOf("clutch-drum"));
    expect(numbers).not.toContain(numberOf("k1-piston"));
  });

  it("takes a comeback for likelier after metal everywhere", () => {
    expect(of([], new Map(), true).options[0]?.risk).toBeGreaterThan(of([]).options[0]?.risk ?? 1);
  });
});
