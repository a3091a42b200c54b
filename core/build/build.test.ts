import { describe, expect, it } from "@jest/globals";
import fc from "fast-check";
import { documentOf, UNITS, type UnitId } from "../../demo/units";
import { Bench, bench, HOURS, HOUSE, START, usual } from "../../demo/bench";
import { good, jobOf } from "../../demo/testing";
import { buildUp, tornDown } from "../../demo/work";
import { behindOf, type FastenerGroup } from "../book";
import { againstBook, type FactBody } from "../fact";
import { dispositions } from "../inspect";
import { specLines } from "../measure";
import { nm } from "../quantity";
import {
  buildStanding,
  buildOf,
  exchangeOpens,
  faceOf,
  isReady,
  recordOf,
  wouldOpen,
  type BuildStep,
} from "./index";
import { samples } from "../testing/samples";

/** What must be behind each step, found out slowly and from the document alone; with it what began a soak it waits for, where that is asked. */
function slowlyBehind(unit: UnitId, soaks = false): Map<string, Set<string>> {
  const book = documentOf(unit) as {
    build: {
      id: string;
      after?: string[];
      parts?: string[];
      fasteners?: string[];
      chains?: string[];
      airChecks?: string[];
      starts?: string[];
      waits?: string[];
    }[];
    parts: { id: string; heldBy?: string[] }[];
    chains: { id: string; of?: string; kind: string }[];
    packs: { element: string; stack: { part: string }[] }[];
  };
  const things = (step: (typeof book.build)[number]): string[] => [
    ...(step.parts ?? []),
    ...(step.fasteners ?? []),
  ];
  const behind = new Map(book.build.map(({ id }) => [id, new Set<string>()]));
  book.build.forEach((later, l) =>
    book.build.slice(0, l).forEach((earlier) => {
      const holds = book.parts.some(
        ({ id, heldBy = [] }) =>
          earlier.parts?.includes(id) === true && heldBy.some((holder) => things(later).includes(holder)),
      );
      const plates = book.packs.some(
        ({ element, stack }) =>
          stack.some(({ part }) => earlier.parts?.includes(part)) &&
          (later.airChecks?.includes(element) === true ||
            book.chains.some(
              ({ id, of, kind }) =>
                of === element && kind === "pack clearance" && later.chains?.includes(id) === true,
            )),
      );
      const soaked = soaks && later.waits?.some((id) => earlier.starts?.includes(id)) === true;
      if (holds || plates || soaked || later.after?.includes(earlier.id) === true)
        behind.get(later.id)?.add(earlier.id);
    }),
  );
  return behind;
}

/** Everything that stands on a step, by asking again until nothing is added. */
function slowlyOn(behind: ReadonlyMap<string, ReadonlySet<string>>, step: string): Set<string> {
  const on = new Set([step]);
  for (let before = 0; before !== on.size;) {
    before = on.size;
    for (const [id, of] of behind) if ([...of].some((one) => on.has(one))) on.add(id);
  }
  on.delete(step);
  return on;
}

describe("the plan of a build", () => {
  it.each(UNITS)("%s: is done in any order it allows, and breaks nothing", (unit) => {
    const behind = slowlyBehind(unit);
    fc.assert(
      fc.property(fc.array(fc.nat(), { minLength: 45, maxLength: 45 }), (picks) => {
        const shop = bench(unit);
        const planned = new Set(shop.build.steps.map(({ step }) => step.id));
        const done: string[] = [];
        for (const pick of picks) {
          const may = shop.build.steps.filter(({ at }) => at === "next" || at === "ahead");
          const one = may[pick % Math.max(1, may.length)];
          if (!one) break;
          for (const id of behind.get(one.step.id) ?? []) if (planned.has(id)) expect(done).toContain(id);
          shop.do(one.step.id);
          done.push(one.step.id);
          expect(shop.step(one.step.id).at).toBe("done");
        }
        expect([...done].sort()).toEqual([...planned].sort());
        expect(shop.build).toMatchObject({ next: null, minutesLeft: 0 });
      }),
      { numRuns: samples(1), seed: 7 },
    );
  });

  it("names what has to be behind a step, and goes on with what does not wait", () => {
    const shop = bench("marram-dunlin");
    expect(shop.step("b-ring").waits.map(({ key }) => key)).toEqual(["behind b-h2"]);
    expect(shop.step("b-h2").waits.map(({ key }) => key)).toEqual(["behind b-wash", "soak soak-frictions"]);
    shop.do("b-wash");
    expect(shop.build.next?.step.id).toBe("b-bush-rear");
    // The pump goes together beside the drums.
    shop.do("b-bush-front");
    expect(shop.step("b-pump").at).toBe("ahead");
  });

  it("has a step that hangs on a disposition only where it is so", () => {
    const shop = bench("marram-dunlin");
    const planned = (): boolean => shop.build.steps.some(({ step }) => step.id === "b-sleeve");
    expect(planned()).toBe(false);
    shop.say({ kind: "disposition", part: "body", is: "machine", reason: "bore worn" });
    expect(planned()).toBe(true);
    expect(shop.step("b-body").waits.map(({ key }) => key)).toContain("behind b-sleeve");
  });
});

describe("a step", () => {
  it("is not done by saying so: what it asks is answered, or stands open", () => {
    const shop = bench("marram-dunlin");
    shop.say({ kind: "step", step: "b-wash", did: "done", reason: "" });
    expect(shop.step("b-wash")).toMatchObject({ at: "unproven" });
    expect(shop.step("b-wash").open.map(({ subject }) => subject)).toEqual([
      "every-passage-passes-air",
      "no-lint-left",
    ]);
    shop.say({ kind: "check", step: "b-wash", check: "every-passage-passes-air", said: "yes", note: "" });
    shop.say({ kind: "check", step: "b-wash", check: "no-lint-left", said: "no", note: "" });
    const [left] = shop.step("b-wash").open;
    expect(left).toMatchObject({
      answer: "not so",
      remedy: "Blow it out again; no rag goes near it from now on.",
    });
    shop.say({
      kind: "check",
      step: "b-wash",
      check: "no-lint-left",
      said: "cannot-see",
      note: "blown twice",
    });
    expect(shop.step("b-wash").at).toBe("done");
  });

  it("is done otherwise with a reason, but not where nothing may stand for it", () => {
    const shop = bench("marram-dunlin");
    shop.say({ kind: "disposition", part: "body", is: "machine", reason: "bore worn" });
    shop.say({ kind: "step", step: "b-sleeve", did: "done", reason: "" });
    for (const { key } of shop.step("b-sleeve").open)
      shop.say({ kind: "deviation", step: "b-sleeve", instead: key, reason: "in a hurry", there: true });
    expect(shop.step("b-sleeve").open.map(({ subject, bars }) => [subject, bars])).toEqual([
      ["passages-taped-bores-packed", true],
    ]);
    expect(
      shop.step("b-sleeve").asked.find(({ subject }) => subject === "valve-falls-both-ways"),
    ).toMatchObject({
      answer: "otherwise",
      words: "in a hurry",
    });
  });

  it("waits for what stands in fluid, which is ready by itself, and counts from when it began", () => {
    const shop = bench("marram-dunlin");
    shop.do("b-wash");
    const soaks = () => shop.step("b-h2").waits.map(({ key, words }) => [key, words]);
    expect(soaks()).toEqual([["soak soak-frictions", "not begun"]]);
    for (const step of ["b-soak", "b-soak-rear"])
      shop.say({ kind: "timer", step, soak: "soak-frictions", did: "started" });
    expect(soaks()).toEqual([["soak soak-frictions", "still in it"]]);
    const [timer] = shop.build.timers.filter(({ step }) => step.id === "b-soak-rear");
    expect(timer && isReady(timer, (timer.ready ?? 0) - 1)).toBe(false);
    expect(timer && (timer.ready ?? 0) - Date.parse(timer.started?.at ?? "")).toBe(30 * 60_000);
    shop.now += HOURS;
    expect(soaks()).toEqual([]);
    // Taken out too soon, it does not count, however late it is.
    shop.say({ kind: "timer", step: "b-soak", soak: "soak-frictions", did: "started" });
    shop.say({ kind: "timer", step: "b-soak", soak: "soak-frictions", did: "ended" });
    shop.now += 5 * HOURS;
    expect(soaks()).toEqual([["soak soak-frictions", "taken out too soon"]]);
  });

  it("waits for a part that nobody has answered for, and asks for the new one of what is replaced", () => {
    const shop = bench("marram-dunlin");
    shop.say({ kind: "disposition", part: "f1", is: "measure-first", reason: "rollers dull" });
    expect(shop.step("b-f1").waits.map(({ key }) => key)).toContain("part f1");
    shop.say({ kind: "disposition", part: "f1", is: "replace", reason: "rollers galled" });
    expect(shop.step("b-f1").open.map(({ key }) => key)).toContain("part f1");
    shop.say({ kind: "renewed", parts: ["f1"], there: true });
    expect(shop.step("b-f1").asked.find(({ key }) => key === "part f1")?.answer).toBe("answered");
  });

  it("takes a one-time part twice only with a lead's name", () => {
    const shop = bench("marram-dunlin");
    shop.say({
      kind: "deviation",
      step: "b-tail",
      instead: "part tail-gasket",
      reason: "looks good",
      there: true,
    });
    expect(shop.step("b-tail").open.map(({ key }) => key)).toContain("part tail-gasket");
    shop.say({ kind: "sign-off", of: ["renew tail-gasket"], reason: "none to be had", signedBy: "Edda L." });
    expect(shop.step("b-tail").asked.find(({ key }) => key === "part tail-gasket")?.answer).toBe("answered");
  });

  it("that fails with air names what to look at, in the order it was put together", () => {
    const shop = bench("marram-dunlin");
    shop.say({ kind: "air", element: "d1", result: "leaks", how: "heard", note: "" });
    const one = shop.step("b-d1-late").asked.find(({ kind }) => kind === "air");
    expect(one).toMatchObject({ answer: "not so" });
    expect(one?.remedy).toMatch(/piston.*rings/i);
  });
});

describe("a groove that takes another pack’s ring too", () => {
  const shop = bench("marram-dunlin");
  const ask = (): BuildStep["asked"][number] | undefined =>
    shop.step("b-h1").asked.find(({ key }) => key === "check ring-in-h1-groove");
  const answer = (said: "yes" | "no"): void =>
    shop.say({ kind: "check", step: "b-h1", check: "ring-in-h1-groove", said, note: "" });

  it("asks which ring went in; the wrong one has to come out", () => {
    expect(ask()).toMatchObject({
      answer: "open",
      name: "H1: a case ring is in, its mark read; a drum ring goes into this groove too",
    });
    expect(shop.step("b-d1").asked.some(({ key }) => key.startsWith("check ring-in"))).toBe(false);
    answer("no");
    expect(ask()).toMatchObject({
      answer: "not so",
      remedy: expect.stringContaining("the other pack has its ring"),
    });
    answer("yes");
    expect(ask()?.answer).toBe("answered");
  });

  it("asks again when another ring went in, and takes no answer to a question the step has not", () => {
    shop.say({
      kind: "fitting",
      seat: "h1-clearance",
      fit: 1,
      origin: "shelf",
      piece: { mark: "x", size: nm(1_800_000) },
    });
    expect(ask()?.answer).toBe("open");
    const { book } = shop.applied;
    const wrong: FactBody = {
      kind: "check",
      step: "b-d1",
      check: "ring-in-h1-groove",
      said: "yes",
      note: "",
    };
    const right: FactBody = { ...wrong, step: "b-h1" };
    const told = (body: FactBody): string[] =>
      againstBook([{ id: "x", at: new Date(START).toISOString(), by: "Mira K.", body }], book).map(
        ({ message }) => message,
      );
    expect(told(wrong)).toEqual([expect.stringContaining('b-d1 has no check "ring-in-h1-groove"')]);
    expect(told(right)).toEqual([]);
  });
});

describe("how far a build is", () => {
  it.each(UNITS)("%s: of one nobody began is what looking at every step says", (unit) => {
    const { job, applied } = bench(unit);
    const parts = dispositions(job, applied, HOUSE, HOUSE.rule);
    const lines = specLines(job, applied, HOUSE, applied.present.unit.lengthUnit);
    const quick = buildStanding(job, applied, HOUSE, { parts, lines });
    const whole = buildOf(job, applied, HOUSE, Infinity);
    expect(quick.left.map(({ step }) => step.id)).toEqual(whole.steps.map(({ step }) => step.id));
    expect(quick).toMatchObject({ done: 0, total: whole.steps.length, minutesLeft: whole.minutesLeft });
    expect(quick.next?.id).toBe(whole.next?.step.id);
  });
});

describe("a whole build", () => {
  it.each(UNITS)("%s: goes to the last bolt with its figures read as they should be", (unit) => {
    const applied = usual(unit);
    const bodies: FactBody[] = [...tornDown(applied, 1), good(...applied.scoped.parts.map(({ id }) => id))];
    buildUp(
      applied,
      HOUSE,
      1,
      (body) => bodies.push(body),
      () => jobOf(bodies),
    );
    const built = buildOf(jobOf(bodies), applied, HOUSE, Infinity);
    expect(
      built.steps.flatMap(({ step, at, asked }) => (at === "done" ? [] : [[step.id, at, asked]])),
    ).toEqual([]);
    expect(built.bench.nowhere).toEqual([]);
  });
});

describe("a place the wrench speaks of", () => {
  it("is tight when what was read is, whatever was said", () => {
    const shop = bench("marram-dunlin");
    const group = shop.applied.scoped.fasteners?.find(({ id }) => id === "pump-cover-bolts") as FastenerGroup;
    const pulled = (read?: string): number[] => {
      shop.say({
        kind: "tightened",
        group: group.id,
        round: "full",
        places: [2],
        did: "tight",
        ...(read === undefined ? {} : { read }),
      });
      return [...(faceOf(shop.job, group).left.get("full") ?? [])];
    };
    expect(pulled()).not.toContain(2);
    expect(pulled("9.8 N·m")).toContain(2);
    expect(pulled("14 N·m")).toContain(2);
    expect(pulled("12.1 N·m")).not.toContain(2);
    // The house’s torque is what counts where it has one.
    const house = [{ of: "fastener", id: group.id, torque: "10 N·m", reason: "", by: "", at: "" } as const];
    expect(faceOf(shop.job, group, house).left.get("full")).toContain(2);
  });
});

describe("a face that is tightened once more", () => {
  it("is so after its wait, across midnight too; sooner it does not count", () => {
    const applied = usual("marram-dunlin");
    const shop = new Bench(applied);
    const group = applied.scoped.fasteners?.find(({ retorque }) => retorque !== undefined);
    const places = (group?.places ?? []).map((_, i) => i);
    const tight = (round: string): void =>
      shop.say({ kind: "tightened", group: group?.id ?? "", round, places, did: "tight" });
    const face = () => faceOf(shop.job, group as NonNullable<typeof group>);
    shop.now = Date.UTC(2026, 4, 4, 23, 54);
    for (const { id } of face().rounds) if (id !== "again") tight(id);
    expect(new Date(face().until ?? 0).toISOString()).toBe("2026-05-05T00:07:00.000Z");
    tight("again");
    expect(face()).toMatchObject({ done: false, round: { id: "again" } });
    shop.now = Date.UTC(2026, 4, 5, 0, 6);
    tight("again");
    expect(face()).toMatchObject({ done: true, round: null });
  });
});

describe("the build and time", () => {
  it("stands otherwise by itself at no moment but those it says", () => {
    const shop = bench("marram-dunlin");
    const group = shop.applied.scoped.fasteners?.find(({ retorque }) => retorque !== undefined);
    shop.say({ kind: "timer", step: "b-soak", soak: "soak-frictions", did: "started" });
    for (const { id } of group ? faceOf(shop.job, group).rounds : [])
      if (id !== "again")
        shop.say({
          kind: "tightened",
          group: group?.id ?? "",
          round: id,
          places: (group?.places ?? []).map((_, i) => i),
          did: "tight",
        });
    shop.say({ kind: "timer", step: "b-soak-rear", soak: "soak-frictions", did: "started" });
    const { job, applied } = shop;
    const at = (now: number) => buildOf(job, applied, HOUSE, now);
    const told = (now: number) =>
      at(now).steps.flatMap(({ asked }) => asked.map(({ key, words }) => key + words));
    let now = START;
    const differ: boolean[] = [];
    for (let { until } = at(now); Number.isFinite(until); { until } = at(now)) {
      const before = told(now);
      for (const share of [0.3, 0.7]) expect(told(now + share * (until - now))).toEqual(before);
      expect(told(until - 1)).toEqual(before);
      differ.push(told(until).join() !== before.join());
      now = until;
    }
    expect(told(now + 24 * HOURS)).toEqual(told(now));
    // The first of two soaks changes nothing: the other is still in its fluid.
    expect(differ.sort()).toEqual([false, true, true]);
  });
});

describe("the as-built record", () => {
  it("has every answer each time it was given, and every pull, whatever came of it", () => {
    const shop = bench("marram-dunlin");
    const checked = (said: "yes" | "no"): FactBody => ({
      kind: "check",
      step: "b-wash",
      check: "no-lint-left",
      said,
      note: "",
    });
    const pull = (did: "loose" | "tight", read: string): FactBody => ({
      kind: "tightened",
      group: "pump-cover-bolts",
      round: "full",
      places: [1],
      did,
      read,
    });
    const tried = (result: "leaks" | "holds"): FactBody => ({
      kind: "air",
      element: "d3",
      result,
      how: "heard",
      note: "",
    });
    shop.say(checked("no"), checked("yes"), pull("loose", "9 N·m"), pull("tight", "12 N·m"));
    shop.say(tried("leaks"), tried("holds"));
    const lines = specLines(shop.job, shop.applied, HOUSE, "mm");
    const { steps } = recordOf(shop.job, shop.applied, shop.build, lines, "mm");
    const of = (step: string, kind: string): string[] =>
      steps
        .find((one) => one.step === step)
        ?.lines.flatMap((line) => (line.kind === kind ? [line.said] : [])) ?? [];
    expect(of("b-wash", "check")).toEqual(["not so", "so"]);
    expect(of("b-pump", "torque")).toEqual(["place 2 not tight, read 9 N·m", "place 2 tight, read 12 N·m"]);
    expect(of("b-d3", "air")).toEqual(["leaks", "applies, holds, lets go"]);
  });
});

describe("what is undone", () => {
  it.each(UNITS)("%s: lays open exactly what stands on it", (unit) => {
    const shop = bench(unit);
    for (const { step } of shop.build.steps) shop.do(step.id);
    const all = shop.build.steps.map(({ step }) => step.id);
    expect(shop.build.steps.filter(({ at }) => at !== "done").map(({ step }) => step.id)).toEqual([]);
    const behind = slowlyBehind(unit, true);
    for (const id of all) {
      const on = slowlyOn(behind, id);
      const planned = all.filter((one) => on.has(one));
      expect(wouldOpen(shop.applied, shop.build, id).map(({ step }) => step.id)).toEqual(planned);
      const after = new Bench(shop.applied);
      after.facts.splice(0, after.facts.length, ...shop.facts);
      after.now = shop.now;
      after.undo(id);
      const open = after.build.steps.filter(({ at }) => at !== "done").map(({ step }) => step.id);
      expect(open).toEqual(all.filter((one) => one === id || on.has(one)));
      // None of what was said of them counts: they ask for everything again.
      for (const one of planned)
        expect(after.step(one).asked.filter(({ kind, fact }) => kind === "check" && fact !== null)).toEqual(
          [],
        );
    }
  });

  it("is known by what opened it, and done again counts again", () => {
    const shop = bench("marram-dunlin");
    for (const { step } of shop.build.steps) shop.do(step.id);
    shop.undo("b-d3");
    expect(shop.step("b-load").reopened).toMatchObject({ step: "b-d3", by: { body: { did: "undone" } } });
    for (const { step, at } of shop.build.steps) if (at !== "done") shop.do(step.id);
    expect(shop.build.next).toBeNull();
    expect(shop.step("b-load").reopened).toBeNull();
  });

  it("says of what nobody had begun that nothing of it was opened", () => {
    const shop = bench("marram-dunlin");
    shop.do("b-wash");
    shop.do("b-park");
    shop.undo("b-wash");
    expect([...shop.job.reopened.keys()].sort()).toEqual(["b-park", "b-wash"]);
  });

  it("lays open what was read as built, not what was found", () => {
    const shop = bench("marram-dunlin");
    const reading = (phase: "found" | "built"): FactBody => ({
      kind: "reading",
      chain: "input-end-play",
      phase,
      fit: 0,
      method: "dial",
      reading: { kind: "single", value: nm(500_000) },
      resolution: nm(10_000),
      unit: "mm",
    });
    shop.say(reading("found"), reading("built"), { kind: "step", step: "b-h2", did: "done", reason: "" });
    const count = (): number => shop.job.chains.get("input-end-play")?.readings.length ?? 0;
    expect(count()).toBe(2);
    shop.undo("b-pump");
    expect(count()).toBe(1);
    shop.say(reading("built"));
    expect(count()).toBe(2);
  });

  it("a piece that came out opens it too, one that never did does not", () => {
    const shop = bench("marram-dunlin");
    for (const { step } of shop.build.steps) shop.do(step.id);
    const was = (how: "out" | "not-out" | "in-again"): void =>
      shop.say({ kind: "taken-out", seat: "d3-clearance", fit: 0, was: how });
    was("out");
    expect(shop.step("b-load").reopened).toMatchObject({ step: "b-d3" });
    was("not-out");
    expect(shop.step("b-load").at).toBe("done");
    was("out");
    was("in-again");
    expect(shop.step("b-load").at).not.toBe("done");
  });

  it("what another piece would open is known before it is exchanged", () => {
    const shop = bench("marram-dunlin");
    const opens = (): string[] =>
      exchangeOpens(shop.applied, shop.build, "d3-clearance").map(({ step }) => step.id);
    expect(opens()).toEqual([]);
    for (const { step } of shop.build.steps) shop.do(step.id);
    const told = opens();
    expect(told).toEqual(expect.arrayContaining(["b-d3", "b-load", "b-pump-in", "b-converter"]));
    shop.say({
      kind: "fitting",
      seat: "d3-clearance",
      fit: 1,
      origin: "shelf",
      piece: { mark: "2", size: nm(2_000_000) },
    });
    expect(shop.build.steps.filter(({ at }) => at !== "done").map(({ step }) => step.id)).toEqual(told);
  });

  it("a piece exchanged opens what stands on its drum, once that was done; before, it is part of building it", () => {
    const shop = bench("marram-dunlin");
    const fitting = (fit: number): FactBody => ({
      kind: "fitting",
      seat: "d3-clearance",
      fit,
      origin: "shelf",
      piece: { mark: "2", size: nm(2_000_000) },
    });
    shop.say({ kind: "step", step: "b-load", did: "done", reason: "" }, fitting(1));
    expect(shop.job.reopened.size).toBe(0);
    shop.say({ kind: "step", step: "b-d3", did: "done", reason: "" });
    shop.say({ kind: "air", element: "d3", result: "holds", how: "heard", note: "" });
    expect(shop.job.airs.has("d3")).toBe(true);
    shop.say(fitting(2));
    expect(shop.job.airs.has("d3")).toBe(false);
    expect(shop.job.steps.get("b-load")?.body.did).toBeUndefined();
    expect(shop.job.reopened.get("b-load")).toMatchObject({
      step: "b-d3",
      by: { body: { kind: "fitting" } },
    });
    // Its own step stays ticked, and asks again for what is seen to last.
    expect(shop.step("b-d3").at).toBe("unproven");
  });
});

describe("what stands behind what", () => {
  it.each(UNITS)("%s: is what the document says, in every version", (unit) => {
    const slow = slowlyBehind(unit);
    const { direct } = behindOf(bench(unit).applied.book);
    for (const [id, steps] of direct) expect([id, new Set(steps)]).toEqual([id, slow.get(id)]);
  });
});
