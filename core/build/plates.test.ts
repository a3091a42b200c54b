import { describe, expect, it } from "@jest/globals";
import fc from "fast-check";
import { Bench, bench, HOURS, START } from "../../demo/bench";
import { unitOf } from "../../demo/testing";
import { UNITS } from "../../demo/units";
import { againstBook, type FactBody } from "../fact";
import { plateGroups, plates } from "../pack";
import { faceOf, recordOf, subAssembliesOf } from "./index";

describe("plates that go in one by one", () => {
  it.each(UNITS)("%s: every plate of every pack is put in by one step, in the order it lies", (unit) => {
    const shop = bench(unit);
    const put = new Map<string, string[]>();
    for (const { plates: own } of shop.build.steps)
      for (const { element, list } of own)
        put.set(element, [...(put.get(element) ?? []), ...list.map(({ part }) => part)]);
    for (const { pack, stack } of shop.applied.packs)
      expect([pack.element, put.get(pack.element)]).toEqual([
        pack.element,
        plates(stack)
          .filter(({ role }) => role !== "piston")
          .map(({ part }) => part),
      ]);
  });

  it("are asked until the last one is in, whatever else is said; what was ticked without a word of them counts as in", () => {
    const shop = bench("marram-dunlin");
    const one = () => shop.step("b-h2").asked.find(({ kind }) => kind === "plates");
    expect(one()).toMatchObject({ answer: "open", words: "0 of 11 in" });
    shop.say({ kind: "plates", step: "b-h2", element: "h2", in: 7 });
    expect(one()).toMatchObject({ answer: "open", words: "7 of 11 in" });
    shop.say({ kind: "step", step: "b-h2", did: "done", reason: "" });
    expect(shop.step("b-h2").at).toBe("unproven");
    shop.say({ kind: "plates", step: "b-h2", element: "h2", in: 11 });
    expect(one()).toMatchObject({ answer: "answered", words: "in" });
    shop.say({ kind: "plates", step: "b-h2", element: "h2", in: 10 });
    expect(one()).toMatchObject({ answer: "open" });
    const other = bench("marram-dunlin");
    other.say({ kind: "step", step: "b-h2", did: "done", reason: "" });
    expect(other.step("b-h2").asked.find(({ kind }) => kind === "plates")).toMatchObject({
      answer: "answered",
    });
  });

  it("say nothing any more once their step is undone, and stand in the record", () => {
    const shop = bench("marram-dunlin");
    for (const id of ["b-h2"]) shop.do(id);
    const lines = recordOf(shop.job, shop.applied, shop.build, [], "mm").steps.flatMap(({ lines: of }) => of);
    expect(lines).toContainEqual(
      expect.objectContaining({ kind: "plates", what: "H2, plates", said: "11 in" }),
    );
    shop.undo("b-h2");
    expect(shop.step("b-h2").asked.find(({ kind }) => kind === "plates")).toMatchObject({
      words: "0 of 11 in",
    });
  });

  it("are refused of an element that has none", () => {
    const { job, applied } = bench("marram-dunlin");
    const body: FactBody = { kind: "plates", step: "b-h2", element: "f1", in: 1 };
    const fact = { id: "x", at: job.live[0]?.at ?? "", by: "Mira K.", body };
    expect(againstBook([fact], applied.book)).toEqual([
      expect.objectContaining({ message: "f1 has no plates" }),
    ]);
  });

  it("go in as groups that leave none out: steels and frictions by turns, every other one alone", () => {
    const roles = ["waved plate", "steel", "friction", "reaction plate"] as const;
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...roles), { maxLength: 30 }), (list) => {
        const groups = plateGroups(list.map((role) => ({ role, part: role })));
        const seen = groups.flatMap(({ from, to }) => Array.from({ length: to - from }, (_, i) => from + i));
        expect(seen).toEqual(list.map((_, i) => i));
        for (const { from, to } of groups)
          expect(
            to - from === 1 || list.slice(from, to).every((role) => role === "steel" || role === "friction"),
          ).toBe(true);
      }),
    );
  });
});

describe("check balls", () => {
  it("are counted as they are laid, and once more turned over; a missing one is named", () => {
    const shop = bench("marram-dunlin");
    const step = shop.build.steps.find(({ balls }) => balls.length > 0)?.step.id ?? "";
    const asked = () => shop.step(step).asked.filter(({ kind }) => kind === "balls");
    const all = shop.step(step).balls.map(({ id }) => id);
    expect(asked().map(({ subject, answer }) => [subject, answer])).toEqual([
      ["laid", "open"],
      ["turned-over", "open"],
    ]);
    shop.say({ kind: "laid", step, round: "laid", balls: all });
    shop.say({ kind: "laid", step, round: "turned-over", balls: all.slice(1) });
    expect(asked().map(({ answer }) => answer)).toEqual(["answered", "open"]);
    expect(asked()[1]?.words).toMatch(/^missing: /);
    shop.say({ kind: "step", step, did: "done", reason: "" });
    expect(shop.step(step).at).toBe("unproven");
    shop.say({ kind: "laid", step, round: "turned-over", balls: all });
    expect(shop.step(step).open.filter(({ kind }) => kind === "balls")).toEqual([]);
    shop.undo(step);
    expect(asked().map(({ answer }) => answer)).toEqual(["open", "open"]);
  });
});

describe("a face tightened near, waited for, then full", () => {
  const shop = (): { of: Bench; face: () => ReturnType<typeof faceOf>; tight: (round: string) => void } => {
    const of = bench("selwyn-sanderling");
    const group = of.applied.scoped.fasteners?.find(({ rest }) => rest !== undefined);
    if (!group) throw new Error("no group rests");
    const places = group.places.map((_, i) => i);
    return {
      of,
      face: () => faceOf(of.job, group),
      tight: (round) => of.say({ kind: "tightened", group: group.id, round, places, did: "tight" }),
    };
  };

  it("waits before the last pass; sooner it does not count", () => {
    const { of, face, tight } = shop();
    of.now = START;
    tight("part-1");
    expect(face()).toMatchObject({ round: { id: "full" }, until: START + 60_000 + 600_000 });
    tight("full");
    expect(face()).toMatchObject({ round: { id: "full" } });
    of.now = START + 600_000;
    tight("full");
    expect(face()).toMatchObject({ round: { id: "lap" }, until: null });
  });

  it("is waited for again while it still moves", () => {
    const of = bench("marram-dunlin");
    const group = of.applied.scoped.fasteners?.find(({ retorque }) => retorque !== undefined);
    if (!group) throw new Error("no group is tightened again");
    const places = group.places.map((_, i) => i);
    const say = (round: string, did: "tight" | "moved"): void =>
      of.say({ kind: "tightened", group: group.id, round, places, did });
    const face = () => faceOf(of.job, group);
    for (const { id, kind } of face().rounds) if (kind !== "again") say(id, "tight");
    of.now += HOURS;
    say("again", "moved");
    const moved = of.now;
    expect(face()).toMatchObject({ done: false, until: moved + 600_000 });
    of.now = moved + 600_000;
    say("again", "tight");
    expect(face().done).toBe(true);
  });
});

describe("bolts that nobody undoes", () => {
  const DEPTH = ["pan and body"];
  const shop = (): Bench => new Bench(unitOf("marram-dunlin", {}, DEPTH), DEPTH);
  const asked = (of: Bench) => of.step("b-body").asked.find(({ subject }) => subject === "support-bolts");
  const say = (of: Bench, places: number[], did: "tight" | "moved", read?: string): void =>
    of.say({
      kind: "tightened",
      group: "support-bolts",
      round: "verify",
      places,
      did,
      ...(read === undefined ? {} : { read }),
    });

  it("are held against their torque before anything goes on over them; one that moved is asked for until it holds", () => {
    const of = shop();
    expect(asked(of)).toMatchObject({ answer: "open", words: "not undone: hold each against its torque" });
    const kinds = of.step("b-body").asked.map(({ kind, subject }) => `${kind} ${subject}`);
    expect(kinds.indexOf("bolts support-bolts")).toBeLessThan(kinds.indexOf("bolts body-bolts"));
    say(of, [0], "tight", "26 N·m");
    say(of, [1], "moved");
    expect(asked(of)).toMatchObject({ answer: "open", words: "place 2 missing" });
    expect(asked(of)?.remedy).toContain("moved at 2");
    say(of, [1], "tight", "20 N·m");
    expect(asked(of)).toMatchObject({ answer: "open" });
    say(of, [1], "tight", "26 N·m");
    expect(asked(of)).toMatchObject({ answer: "answered", words: "holds", remedy: "" });
  });

  it("are no matter where this work undoes them, and another round of them is refused", () => {
    expect(asked(bench("marram-dunlin"))).toBeUndefined();
    const { job, applied } = shop();
    const against = (round: string): unknown[] =>
      againstBook(
        [
          {
            id: "x",
            at: job.live[0]?.at ?? "",
            by: "Mira K.",
            body: { kind: "tightened", group: "support-bolts", round, places: [0], did: "tight" },
          },
        ],
        applied.book,
      );
    expect([against("verify"), against("verified")]).toEqual([[], [expect.anything()]]);
  });
});

describe("a sub-assembly", () => {
  it("leaves the bench with what was proven of it; opened again it is dirty and proves nothing", () => {
    const shop = bench("marram-dunlin");
    const sub = () => subAssembliesOf(shop.build).find(({ name }) => name === "Rear");
    expect(sub()).toMatchObject({ isBuilt: false, opened: null, by: [] });
    const steps = shop.build.steps.filter(({ step }) => step.sub === "Rear").map(({ step }) => step.id);
    for (const id of shop.build.steps.map(({ step }) => step.id)) {
      shop.do(id);
      if (steps.every((each) => shop.step(each).at === "done")) break;
    }
    expect(sub()).toMatchObject({ isBuilt: true, opened: null, by: ["Mira K."], step: steps[0] });
    expect(sub()?.proven).toContain("H2 with air: holds");
    shop.undo("b-h2");
    expect(sub()).toMatchObject({ isBuilt: false, step: "b-h2" });
    expect(sub()?.opened).not.toBeNull();
    expect(sub()?.proven).not.toContain("H2 with air: holds");
  });

  it("is never what is done in the vehicle", () => {
    for (const unit of UNITS)
      expect(subAssembliesOf(bench(unit).build).map(({ name }) => name)).not.toContain("In the vehicle");
  });
});
