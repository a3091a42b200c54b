import { describe, expect, it } from "@jest/globals";
import { bookOf, UNITS } from "../../demo/units";
import type { Book } from "../book";
import { appliedTo, becomes, checkFacts, BENCH, againstBook, fold, type Fact, type FactBody } from "../fact";
import { dispositions, USUAL_SCHOOLS } from "../inspect";
import { openOf } from "../stage";
import { Bench, counts, planOf } from "../steps";
import { burnt, said } from "../testing/said";
import { heldUpBy, needsOf, standing, type Supply } from "./index";

const NOTHING: Supply = { box: new Map(), shelf: new Map(), coming: [] };
const firstOf = (book: Book): Record<string, string> =>
  Object.fromEntries(book.traits.map(({ id, values }) => [id, Object.keys(values)[0] ?? ""]));

function asked(book: Book, facts: readonly FactBody[]) {
  const all: Fact[] = [
    said({ kind: "scope", depths: [...book.depths] }),
    said({ kind: "configuration", traits: firstOf(book) }),
    ...facts.map((body) => said(body)),
  ];
  const job = fold(all);
  const applied = appliedTo(book, job, []);
  const needs = needsOf(job, applied, dispositions(job, applied, USUAL_SCHOOLS, "proven"));
  return { job, applied, needs, line: (id: string) => needs.lines.find((one) => one.id === id) };
}
type From = Extract<FactBody, { kind: "part-source" }>;
const from = (part: string, more: Partial<From>): FactBody =>
  Object.assign({ kind: "part-source" as const, part, from: "bought" as const, of: "", here: false }, more);
const replaced = (part: string, is: "replace" | "machine" = "replace"): FactBody => ({
  kind: "disposition",
  part,
  is,
  reason: "worn",
});

/** Every part of the demo books that another goes in instead of, in the first version of each. */
const LATER = UNITS.map(bookOf).flatMap((book) =>
  book.parts.flatMap(({ id, instead = [], when }) =>
    Object.entries(when ?? {}).every(([trait, values]) => values.includes(firstOf(book)[trait] ?? ""))
      ? instead.map(({ number }) => ({ unit: book.unit.id, book, part: id, number }))
      : [],
  ),
);

describe("a later part instead", () => {
  it("is there to be tried in four books", () => {
    expect(new Set(LATER.map(({ unit }) => unit)).size).toBeGreaterThanOrEqual(4);
  });

  it.each(LATER)("$unit: $number for $part changes the unit, what it needs and how it is built", (one) => {
    const { book, part, number } = one;
    const sets = book.parts.find((each) => each.number === number)?.sets ?? {};
    expect(Object.keys(sets).length).toBeGreaterThan(0);
    const before = asked(book, [replaced(part)]);
    const after = asked(book, [replaced(part), from(part, { from: "later", number })]);
    // What is built is what a unit of that version is built of: found by asking the book of that version itself.
    const whole = fold([
      said({ kind: "scope", depths: [...book.depths] }),
      said({ kind: "configuration", traits: Object.assign(firstOf(book), sets) }),
    ]);
    const other = appliedTo(book, whole, []);
    expect(after.applied.scoped.build).toEqual(other.scoped.build);
    expect(after.applied.scoped.parts).toEqual(other.scoped.parts);
    // It is taken down as it was found.
    expect(after.applied.scoped.teardown).toEqual(before.applied.scoped.teardown);
    expect(planOf(after.job, after.applied).steps).toEqual(planOf(before.job, before.applied).steps);
    expect(counts(after.job, after.applied)).toEqual(counts(before.job, before.applied));
    // All that was not in it is wanted, and nothing of it is looked for on the bench.
    const was = new Set(before.applied.scoped.parts.map(({ id }) => id));
    const come = after.applied.scoped.parts.filter(({ id }) => !was.has(id));
    expect(come.some((each) => each.number === number)).toBe(true);
    const bench = new Bench(after.job, after.applied);
    for (const { id, sold } of come) {
      if (sold !== "with its assembly") expect(after.line(`part ${id}`)).toMatchObject({ source: null });
      expect(bench.things.has(id)).toBe(false);
    }
    const told = after.line(`part ${come.find((each) => each.number === number)?.id}`)?.brings ?? "";
    const { brings, machine, forbids } =
      book.parts.find(({ id }) => id === part)?.instead?.find((each) => each.number === number) ?? {};
    expect([brings, machine, forbids].filter((words) => !told.includes(words ?? ""))).toEqual([]);
    expect(bench.things.has(part)).toBe(true);
    // Taken back, all is as it was.
    const back = asked(book, [replaced(part), from(part, { from: "later", number }), from(part, {})]);
    expect(back.needs).toEqual(before.needs);
    expect(back.applied.asFound).toBeNull();
  });

  it("of two that change the same trait the last word holds, whichever part was spoken of first", () => {
    const book = bookOf("marram-dunlin");
    const [trait] = book.traits;
    const [early = "", late = ""] = Object.keys(trait?.values ?? {});
    const later = (id: string, value: string) => ({
      id: `${id}-later`,
      name: id,
      number: `${id}-later`,
      sets: { [trait?.id ?? ""]: value },
    });
    const parts = [later("one", early), later("other", late)];
    const go = (part: string): FactBody => from(part, { from: "later", number: `${part}-later` });
    const leftAs = (bodies: readonly FactBody[]): string | undefined =>
      becomes(Object.assign({}, book, { parts }), fold(bodies.map((body) => said(body))))[trait?.id ?? ""];
    expect(early).not.toBe(late);
    expect(leftAs([go("one"), go("other")])).toBe(late);
    expect(leftAs([go("one"), go("other"), go("one")])).toBe(early);
    expect(leftAs([go("other"), go("one"), from("one", {})])).toBe(late);
  });

  it("is one the book names", () => {
    const [one] = LATER;
    if (!one) throw new Error("no later part");
    const problems = (body: FactBody) => againstBook([said(body)], one.book);
    expect(problems(from(one.part, { from: "later", number: one.number }))).toEqual([]);
    expect(problems(from(one.part, { from: "later", number: "no-such" }))).toMatchObject([
      { remedy: expect.stringContaining(one.number) },
    ]);
    expect(problems(from("converter", { from: "later", number: one.number }))).not.toEqual([]);
  });
});

describe("a part that is not bought", () => {
  const dunlin = bookOf("marram-dunlin");
  const heldAt = (facts: readonly FactBody[]): number | undefined => {
    const { needs } = asked(dunlin, facts);
    const own = needs.lines.filter(({ source }) => source !== null);
    return heldUpBy(own, standing(own, NOTHING))?.waits?.at;
  };

  it("out of a donor unit is named with it, ordered nowhere, and holds its step until it is here", () => {
    const donor = from("converter", { from: "donor", of: "a Dunlin from the yard", distance: "92 000 km" });
    const { line } = asked(dunlin, [replaced("converter"), donor]);
    expect(line("part converter")).toMatchObject({
      number: null,
      source: { from: "donor", of: "a Dunlin from the yard, 92 000 km", isHere: false },
    });
    const step = line("part converter")?.waits?.at;
    expect(step).toBeGreaterThan(0);
    expect(heldAt([replaced("converter"), donor])).toBe(step);
    expect(heldAt([replaced("converter"), Object.assign({}, donor, { here: true })])).toBeUndefined();
    // Bought after all: the number is back.
    expect(
      asked(dunlin, [replaced("converter"), donor, from("converter", {})]).line("part converter"),
    ).toEqual(asked(dunlin, [replaced("converter")]).line("part converter"));
  });

  it("that is machined is a line of its own until it is back", () => {
    const cover = dunlin.parts.find(({ kind }) => kind === "pump cover")?.id ?? "";
    const facts = [replaced(cover, "machine")];
    const away = from(cover, { from: "machined", of: "Fenside Grinding" });
    expect(asked(dunlin, []).line(`part ${cover}`)).toBeUndefined();
    expect(asked(dunlin, facts).line(`part ${cover}`)).toMatchObject({
      number: null,
      because: ["Edda L.: worn"].map((words) => expect.stringContaining(words.slice(-4))),
      source: { from: "machined", of: "", isHere: false },
    });
    expect(heldAt([...facts, away])).toBeGreaterThan(0);
    expect(heldAt([...facts, Object.assign({}, away, { here: true })])).toBeUndefined();
  });

  it("from a donor says out of which unit", () => {
    const fact = said(from("converter", { from: "donor" }));
    expect(checkFacts([JSON.parse(JSON.stringify(fact)) as unknown], BENCH)).toMatchObject({
      ok: false,
      problems: [{ message: "no donor unit" }],
    });
  });
});

describe("another unit", () => {
  const dunlin = bookOf("marram-dunlin");
  const wayOn = (way: "used" | "reconditioned" | "rebuild"): FactBody => ({
    kind: "way-on",
    way,
    reason: "metal everywhere",
  });
  const offer: FactBody = {
    kind: "offer",
    way: "used",
    cents: 180_000,
    hours: 6,
    risk: 20,
    note: "",
    source: "Saltings Dismantlers",
    distance: "61 000 km",
    grade: "B",
    warranty: "3 months",
    renew: ["converter-seal", "filter"],
  };

  it("is the list, with what is renewed before it goes in and its fluid; nothing of the old one is wanted", () => {
    const { needs } = asked(dunlin, [replaced("d1-friction"), offer, wayOn("used")]);
    expect(needs.lines.map(({ id }) => id).sort()).toEqual(
      ["unit used", "part converter-seal", "part filter", "fluid "].sort(),
    );
    expect(needs.lines.find(({ kind }) => kind === "unit")).toMatchObject({
      name: "used Dunlin, Saltings Dismantlers, 61 000 km, grade B",
      number: "marram-dunlin/used",
      brings: "3 months",
    });
    expect(needs.open).toEqual([]);
  });

  it("asks for its version, why the old one failed, what is renewed on it and that it is proven, and for nothing else", () => {
    const openNow = (facts: readonly FactBody[]): string[] => {
      const { job, applied } = asked(dunlin, facts);
      const house = Object.assign({}, USUAL_SCHOOLS, { rule: "proven", target: "middle" } as const);
      return openOf(job, applied, house)
        .filter(({ stage }) => stage !== "prove")
        .map(({ key }) => key);
    };
    expect(openNow([burnt("d1-friction"), offer, wayOn("used")])).toEqual([
      "renew converter-seal",
      "renew filter",
      expect.stringMatching(/^cause /),
    ]);
    const fitted: FactBody = { kind: "renewed", parts: ["converter-seal", "filter"], there: true };
    expect(openNow([offer, wayOn("used"), fitted])).toEqual([]);
    expect(openNow([offer, wayOn("used"), fitted, wayOn("rebuild")]).length).toBeGreaterThan(50);
  });

  it("is not, where the unit is rebuilt after all", () => {
    const facts = [replaced("d1-friction"), offer, wayOn("used"), wayOn("rebuild")];
    expect(asked(dunlin, facts).needs).toEqual(asked(dunlin, [replaced("d1-friction")]).needs);
  });
});
