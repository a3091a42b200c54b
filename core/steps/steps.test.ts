import { describe, expect, it, test } from "@jest/globals";
import { bookOf, UNITS, type UnitId } from "../../demo/units";
import { configurations, resolve, type Applied, type Configuration } from "../book";
import { fold, IN_UNIT, SCRAPPED, type Fact, type FactBody } from "../fact";
import {
  ballCount,
  counts,
  otherVersions,
  planOf,
  versionsOfLookAlikes,
  waysOf,
  type StepState,
  type Plan,
} from "./index";

let n = 0;
const fact = (body: FactBody, by = "Mira K."): Fact => ({
  id: `f${n++}`,
  by,
  body,
  at: new Date(Date.UTC(2026, 4, 4, 8, 0, n)).toISOString(),
});
const step = (id: string, did: "done" | "skipped" | "undone" = "done"): FactBody => ({
  kind: "step",
  step: id,
  did,
  reason: did === "skipped" ? "not needed" : "",
});
const lies = (place: string, ...things: string[]): FactBody => ({ kind: "lies", things, place });

const LATE: Configuration = { body: "late", plate: "two" };
const dunlin = (configuration = LATE, depth = "full"): Applied =>
  resolve(bookOf("marram-dunlin"), configuration, [depth]);
const after = (bodies: readonly FactBody[], applied = dunlin()): Plan =>
  planOf(fold(bodies.map((body) => fact(body))), applied);
const at = ({ steps }: Plan, id: string): StepState => {
  const found = steps.find((one) => one.step.id === id);
  if (!found) throw new Error(`no step ${id}`);
  return found;
};

describe("the steps", () => {
  it("are those of this configuration and scope, the first of them next", () => {
    const { steps, next } = after([]);
    expect(next?.step.id).toBe("t-read");
    expect(steps.some(({ step: { id } }) => id === "t-plate-2")).toBe(true);
    expect(steps.some(({ step: { id } }) => id === "t-plate-1")).toBe(false);
    const shallow = after([], dunlin(LATE, "pan and body"));
    expect(shallow.steps.some(({ step: { id } }) => id === "t-pump")).toBe(false);
    expect(shallow.steps.length).toBeLessThan(steps.length);
  });

  it("go on after the last one ticked, and one that was passed over says so", () => {
    const down = after([step("t-read"), step("t-converter")]);
    expect(at(down, "t-depth").at).toBe("passed over");
    expect(down.next?.step.id).toBe("t-sensors");
    expect(down.last?.step.id).toBe("t-converter");
  });

  it("undone are ahead again, their parts back in the unit", () => {
    const down = after([step("t-converter"), lies("tray-1", "converter"), step("t-converter", "undone")]);
    expect(at(down, "t-converter").at).not.toBe("done");
    expect(down.bench.things.get("converter")?.place).toBe(IN_UNIT);
  });

  it("at the end leave nothing next", () => {
    const all = (dunlin().scoped.teardown ?? []).map(({ id }) => step(id));
    const down = after(all);
    expect(down.next).toBeNull();
    expect(down.bench.nowhere.length).toBeGreaterThan(50);
  });
});

describe("what a step that is out of order blocks or spoils", () => {
  const kinds = (down: Plan, id: string): string[] => at(down, id).notices.map(({ kind }) => kind);

  it("names what still holds a part, and nothing once that is off", () => {
    const notices = at(after([]), "t-d1").notices;
    expect(notices).toContainEqual({ kind: "held", part: "d1-drum", by: "front-carrier" });
    expect(kinds(after([step("t-front-set")]), "t-d1")).not.toContain("held");
  });

  it("counts the fasteners that are still in, of this step and of those that hold its parts", () => {
    const some = after([{ kind: "out", group: "pump-bolts", places: [0, 1, 2, 3, 4] }]);
    expect(at(some, "t-pump").notices).toContainEqual({
      kind: "fasteners",
      group: "pump-bolts",
      out: 5,
      of: 7,
    });
    expect(at(some, "t-pump").notices).toContainEqual({ kind: "held", part: "pump", by: "pan-bolts" });
    const places = Array.from({ length: 16 }, (_, i) => i);
    const all = after([{ kind: "out", group: "pan-bolts", places }]);
    expect(at(all, "t-pump").notices).not.toContainEqual({ kind: "held", part: "pump", by: "pan-bolts" });
  });

  it("warns that an as-found figure is lost once its parts are off", () => {
    expect(at(after([step("t-body")]), "t-pump").notices).toContainEqual({
      kind: "spoils",
      step: "t-endplay",
      what: ["input-end-play"],
    });
    expect(kinds(after([step("t-read"), step("t-depth"), step("t-endplay")]), "t-pump")).not.toContain(
      "spoils",
    );
  });

  it("speaks of what its parts shut off, and not of all that stands earlier in the list", () => {
    // The pan shuts off neither the converter's depth nor the end play at the pump.
    const figures = (down: Plan, id: string): string[] =>
      at(down, id).notices.flatMap((one) => (one.kind === "spoils" ? one.what : []));
    expect(figures(after([step("t-read")]), "t-pan")).toEqual([]);
    expect(figures(after([step("t-read")]), "t-converter")).toEqual(["converter-depth"]);
    expect(figures(after([step("t-read")]), "t-body")).not.toContain("converter-depth");
  });

  it("says nothing more of a figure that was skipped with a reason", () => {
    const skipped = [step("t-read"), step("t-depth"), step("t-endplay", "skipped")];
    expect(kinds(after(skipped), "t-pump")).not.toContain("spoils");
  });

  it("says nothing of a step that is done", () => {
    expect(at(after([step("t-d1")]), "t-d1").notices).toEqual([]);
  });
});

describe("what lies where", () => {
  it("follows its assembly until somebody lays it elsewhere", () => {
    const { bench } = after([step("t-d1"), lies("tray-1", "d1-drum"), lies("bag-2", "d1-bushing")]);
    expect(bench.things.get("d1-piston")?.place).toBe("tray-1");
    expect(bench.things.get("d1-bushing")?.place).toBe("bag-2");
    expect(bench.at("tray-1").map(({ part }) => part.id)).toContain("d1-drum");
  });

  it("is nowhere when it is off and nobody said", () => {
    const { bench } = after([step("t-regulator")]);
    expect(bench.nowhere.map(({ part }) => part.id)).toEqual(["regulator-valve"]);
  });

  it("is laid where the step says, what must not be used again out of circulation, its bolts beside it", () => {
    const done: FactBody = { kind: "step", step: "t-pan", did: "done", reason: "", to: "tray-1" };
    const { bench } = after([done]);
    const placeOf = (id: string): string | null | undefined => bench.things.get(id)?.place;
    expect([placeOf("pan"), placeOf("magnet"), placeOf("pan-gasket")]).toEqual([
      "tray-1",
      "tray-1",
      SCRAPPED,
    ]);
    expect(bench.bolts.get("pan-bolts")?.place).toBe("tray-1");
    expect(bench.nowhere).toEqual([]);
  });

  it("stays where it was laid before its step was ticked", () => {
    const { bench } = after([lies("tray-1", "filter"), step("t-filter")]);
    expect(bench.things.get("filter")?.place).toBe("tray-1");
  });

  it("says who moved it last, and when", () => {
    const facts = [
      fact(step("t-filter")),
      fact(lies("tray-1", "filter"), "Mira K."),
      fact(lies("tray-2", "filter"), "Tomas B."),
    ];
    const { bench } = planOf(fold(facts), dunlin());
    expect(bench.things.get("filter")).toMatchObject({
      place: "tray-2",
      moved: { by: "Tomas B.", at: facts[2]?.at },
    });
  });

  it("keeps what is out of circulation apart, and asks no cleaning of it", () => {
    const { bench } = after([step("t-pan"), lies(SCRAPPED, "pan-gasket"), lies("tray-1", "pan", "magnet")]);
    expect(bench.dirtyOf(["pan", "magnet", "pan-gasket"]).map(({ part }) => part.id)).toEqual([
      "pan",
      "magnet",
    ]);
  });

  it("is dirty until it is cleaned, and again when it is opened", () => {
    const clean: FactBody = { kind: "cleaning", things: ["pan"], state: "clean", did: ["washed", "dried"] };
    const opened: FactBody = { kind: "cleaning", things: ["pan"], state: "opened", did: [] };
    const dirty = (bodies: FactBody[]): number => after(bodies).bench.dirtyOf(["pan"]).length;
    const off = [step("t-pan"), lies("tray-1", "pan")];
    expect([dirty(off), dirty([...off, clean]), dirty([...off, clean, opened])]).toEqual([1, 0, 1]);
  });
});

describe("counting", () => {
  const job = (...bodies: FactBody[]) => fold(bodies.map((body) => fact(body)));

  it("asks for plates, bearings and bolts of several lengths as this version has them", () => {
    const list = counts(job(), dunlin());
    const expected = (of: string): number | undefined => list.find((one) => one.id === of)?.expected;
    expect(expected("d1-friction")).toBe(4);
    expect(expected("h2-steel")).toBe(5);
    expect(expected("front-thrust-1")).toBe(1);
    expect(
      list.filter(({ id }) => id.startsWith("bolts:body-bolts")).map(({ expected: many }) => many),
    ).toEqual([8, 4, 1]);
    expect(list.some(({ id }) => id.startsWith("bolts:pan-bolts"))).toBe(false);
  });

  it("names the balls that are missing, and another plate under which the number would be right", () => {
    const six = dunlin();
    const five = job({ kind: "balls", there: ["ball-1", "ball-2", "ball-3", "ball-4", "ball-5"], extra: 0 });
    expect(ballCount(five, six)?.missing).toEqual(["ball-6"]);
    expect(otherVersions(five, six, LATE, ["full"], "balls")).toEqual([{ trait: "plate", value: "one" }]);
  });

  it("finds no other version when the count is the book's", () => {
    const told = job({ kind: "count", of: "d1-friction", found: 4 });
    expect(otherVersions(told, dunlin(), LATE, ["full"], "d1-friction")).toEqual([]);
  });
});

describe("every unit, version and depth", () => {
  const cases = UNITS.flatMap((unit) =>
    configurations(bookOf(unit).traits, new Set(bookOf(unit).traits.map(({ id }) => id))).flatMap(
      (configuration) =>
        bookOf(unit).depths.map((depth): [UnitId, string, Configuration] => [unit, depth, configuration]),
    ),
  );

  test.each(cases)(
    "%s, %s: in the book's order nothing is held and nothing spoiled but by skipping",
    (unit, depth, configuration) => {
      const applied = resolve(bookOf(unit), configuration, [depth]);
      const facts: FactBody[] = [];
      for (const { id, fasteners = [] } of applied.scoped.teardown ?? []) {
        for (const group of fasteners) {
          const count = applied.scoped.fasteners?.find((one) => one.id === group)?.count ?? 0;
          facts.push({ kind: "out", group, places: Array.from({ length: count }, (_, i) => i) });
        }
        expect({ id, notices: at(after(facts, applied), id).notices }).toEqual({ id, notices: [] });
        facts.push(step(id));
      }
    },
  );

  test.each(UNITS)("%s: every part has a kind, and what can sit two ways is asked about", (unit) => {
    const { parts } = bookOf(unit);
    expect(parts.filter(({ kind }) => kind === undefined).map(({ id }) => id)).toEqual([]);
    const turned = parts.filter((part) => waysOf(part).length > 1);
    expect(turned.length).toBeGreaterThan(parts.length / 5);
  });
});

describe("another-versions-part", () => {
  it("names the version its look-alike belongs to, and none where it is this one", () => {
    const book = bookOf("marram-dunlin");
    const plate = book.parts.find(({ id }) => id === "plate-two") ?? {};
    expect(versionsOfLookAlikes(book, plate, { plate: "two" })).toEqual([{ trait: "plate", value: "one" }]);
    expect(versionsOfLookAlikes(book, plate, { plate: "one" })).toEqual([]);
    // Two gaskets of one version look alike and say nothing of the version.
    const gasket = book.parts.find(({ id }) => id === "pump-gasket") ?? {};
    expect(versionsOfLookAlikes(book, gasket, { plate: "two" })).toEqual([]);
  });
});

describe("building up", () => {
  const built = (bodies: readonly FactBody[], applied = dunlin()): Plan =>
    planOf(fold(bodies.map((body) => fact(body))), applied, "build");
  const down = (dunlin().scoped.teardown ?? []).map(({ id }) => step(id));

  it("goes by the book's build steps, of this configuration and scope", () => {
    const { steps, next } = built(down);
    expect(steps.map(({ step: { id } }) => id)).toEqual((dunlin().scoped.build ?? []).map(({ id }) => id));
    expect(next).toBe(steps[0]);
  });

  test.each(UNITS)("%s: what came off is in again once every step is done, at every depth", (unit) => {
    const book = bookOf(unit);
    const all = new Set(book.traits.map(({ id }) => id));
    for (const configuration of configurations(book.traits, all).slice(0, 4))
      for (const depth of book.depths) {
        const applied = resolve(book, configuration, [depth]);
        const { teardown = [], build = [] } = applied.scoped;
        const job = fold([...teardown, ...build].map(({ id }) => fact(step(id))));
        const { bench } = planOf(job, applied, "build");
        const fitted = new Set(build.flatMap(({ parts = [] }) => parts));
        const off = [...bench.things.values()].filter(
          ({ part, place }) => fitted.has(part.id) && place !== IN_UNIT,
        );
        expect(off.map(({ part }) => part.id)).toEqual([]);
      }
  });

  test.each(UNITS)("%s: in the book's order no step shuts anything in, at every depth", (unit) => {
    const book = bookOf(unit);
    const [configuration = {}] = configurations(book.traits, new Set());
    for (const depth of book.depths) {
      const applied = resolve(book, configuration, [depth]);
      const { teardown = [], build = [] } = applied.scoped;
      const facts = [...teardown, ...build].map(({ id }) => fact(step(id)));
      for (const [i, { id }] of build.entries()) {
        const { steps } = planOf(fold(facts.slice(0, teardown.length + i)), applied, "build");
        const closes = steps
          .find((one) => one.step.id === id)
          ?.notices.filter(({ kind }) => kind === "closes");
        expect([id, closes]).toEqual([id, []]);
      }
    }
  });

  it("says what a step would shut in, and what of it is not clean", () => {
    const first = at(built(down), "b-wash");
    expect(first.notices).toEqual([]);
    const pump = (dunlin().scoped.build ?? []).find(({ parts = [] }) => parts.includes("pump"));
    const notices = at(built(down), pump?.id ?? "").notices;
    expect(notices).toContainEqual(expect.objectContaining({ kind: "closes", part: "pump" }));
    expect(notices).toContainEqual({ kind: "dirty", parts: expect.arrayContaining(["pump"]) as unknown });
    const washed = built([...down, { kind: "cleaning", things: pump?.parts ?? [], state: "clean", did: [] }]);
    expect(at(washed, pump?.id ?? "").notices.map(({ kind }) => kind)).not.toContain("dirty");
  });

  it("undone leaves things where they lay, a new part for one out of circulation nowhere", () => {
    const pan = (dunlin().scoped.build ?? []).find(({ parts = [] }) => parts.includes("pan"));
    const laid = [...down, lies("tray-1", "pan")];
    const again = built([...laid, step(pan?.id ?? ""), step(pan?.id ?? "", "undone")]);
    expect(built([...laid, step(pan?.id ?? "")]).bench.things.get("pan")?.place).toBe(IN_UNIT);
    expect(again.bench.things.get("pan")?.place).toBe("tray-1");
    const once = (pan?.parts ?? []).filter(
      (id) => dunlin().present.parts.find((part) => part.id === id)?.oneTime,
    );
    expect(once.length).toBeGreaterThan(0);
    for (const id of once) expect(again.bench.things.get(id)?.place).toBeNull();
  });

  it("puts bolts in again, and out as they were when the step is undone", () => {
    const places = Array.from({ length: 7 }, (_, i) => i);
    const out: FactBody = { kind: "out", group: "pump-bolts", places };
    const pump = (dunlin().scoped.build ?? []).find(({ fasteners = [] }) => fasteners.includes("pump-bolts"));
    const id = pump?.id ?? "";
    expect(built([out]).bench.bolts.get("pump-bolts")?.placesOut).toHaveLength(7);
    expect(built([out, step(id)]).bench.bolts.get("pump-bolts")?.placesOut).toEqual([]);
    expect(built([out, step(id), step(id, "undone")]).bench.bolts.get("pump-bolts")?.placesOut).toHaveLength(
      7,
    );
  });
});
