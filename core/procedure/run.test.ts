import { describe, expect, it, test } from "@jest/globals";
import { bookOf, UNITS } from "../../demo/units";
import { runThrough } from "../../demo/proven";
import type { Procedure, ProcedureTurn } from "../book";
import type { Told } from "../fact";
import { dice } from "../testing/choices";
import { eventsOf, runOf, type Event } from "./index";
import { jobOf } from "../../demo/testing";

const procedures = UNITS.flatMap((unit) =>
  (bookOf(unit).procedures ?? []).map((one) => [unit, one] as const),
);
const level = bookOf("marram-dunlin").procedures?.[0];
if (!level) throw new Error("the dunlin has no procedure");
const MINUTE = 60_000;
const NOW = 100 * MINUTE;

let at = 0;
const event = (did: Event["did"], turn = "", told: Told = {}): Event => ({
  did,
  turn,
  at: (at += 10_000),
  told,
});
const cold: Told = { fluid: "22 °C", engine: "off" };
const running: Told = { engine: "running", brake: "held", lever: "P", revs: "700 rpm" };
const upTo = (turn: string): Event[] => {
  const all = [
    event("begun", "", cold),
    event("done", "fill"),
    event("done", "start", running),
    event("done", "ranges", running),
    event("held", "idle", running),
    { ...event("done", "idle", running), at: (at += 2 * MINUTE) },
    event("done", "level", { fluid: "38 °C" }),
    event("done", "close", { fluid: "44 °C" }),
  ];
  return all.slice(
    0,
    all.findIndex((one) => one.turn === turn && one.did === "done"),
  );
};
const after = (events: readonly Event[], told: Told = {}, now = at): ReturnType<typeof runOf> =>
  runOf(level, events, told, now);

describe("a procedure", () => {
  test.each(procedures)("of %s, as its book has it, comes to its end", (_unit, procedure) => {
    const run = runOf(procedure, eventsOf(jobOf(runThrough(procedure)), procedure.id), {}, NOW);
    expect([run.at, run.behind, run.why]).toEqual(["done", procedure.turns.length, ""]);
  });

  test.each<[string, readonly Event[], Told, string]>([
    [
      "warm before it is begun",
      [],
      { fluid: "40 °C", engine: "off" },
      "fluid is 40 °C, wanted: fluid at most 30 °C",
    ],
    ["nobody has read the fluid", [], { engine: "off" }, "read the fluid, wanted: fluid at most 30 °C"],
    ["in Fahrenheit, exactly at the limit", [], { fluid: "86 °F", engine: "off" }, ""],
    ["the engine runs", [], { fluid: "20 °C", engine: "running" }, "engine is running, wanted: engine off"],
    ["the brake let go", upTo("start"), { ...running, brake: "free" }, "brake is free, wanted: brake held"],
    ["what nobody reads off is said", upTo("start"), {}, ""],
    ["not held yet", upTo("idle").slice(0, -1), running, "not held yet"],
    ["below the window", upTo("level"), { fluid: "34.9 °C" }, "fluid is 34.9 °C, wanted: fluid 35 to 45 °C"],
    ["past it", upTo("level"), { fluid: "45.1 °C" }, "the window has passed"],
    [
      "past it before it is filled even",
      upTo("start"),
      { ...running, fluid: "60 °C" },
      "the window has passed",
    ],
    ["in it", upTo("level"), { fluid: "45 °C" }, ""],
  ])("may go on, or says why not: %s", (_name, events, told, why) => {
    const run = after(events, told);
    expect([run.why, run.may]).toEqual([why, why === ""]);
  });

  it("is held for its time, from the beginning where it broke", () => {
    const held = upTo("idle");
    const since = held.at(-1)?.at ?? 0;
    expect(after(held, running, since + 2 * MINUTE - 1).may).toBe(false);
    expect(after(held, running, since + 2 * MINUTE).may).toBe(true);
    const again = [...held, event("broke", "idle"), event("held", "idle", running)];
    expect(after(again, running, since + 2 * MINUTE).may).toBe(false);
    expect(after(again).until).toBe((again.at(-1)?.at ?? 0) + 2 * MINUTE);
    // Said twice, by two tablets, it does not begin anew.
    expect(after([...held, event("held", "idle", running)]).held).toBe(since);
  });

  it("hears one of two tablets, and nothing that was not due", () => {
    const twice = [
      ...upTo("ranges"),
      event("done", "start", running),
      event("done", "level", { fluid: "38 °C" }),
    ];
    expect(after(twice).turn?.id).toBe("ranges");
    expect(after([...twice, event("missed", "", { fluid: "38 °C" })]).at).toBe("going");
  });

  it("is begun anew after its window passed, and after somebody stopped it", () => {
    const missed = [...upTo("level"), event("missed", "", { fluid: "46 °C" })];
    expect(after(missed).at).toBe("missed");
    expect(after([...missed, event("done", "level", { fluid: "38 °C" })]).at).toBe("missed");
    const anew = after([...missed, event("begun", "", cold)]);
    expect([anew.at, anew.run, anew.turn?.id]).toEqual(["going", 2, "fill"]);
    expect(after([...upTo("ranges"), event("stopped")]).at).toBe("stopped");
  });
});

/** The same by plain numbers and by one look at a time, for events of one unit of measure. */
function slowly(procedure: Procedure, events: readonly Event[]): string {
  const number = (text: string | undefined): number => (text === undefined ? NaN : parseFloat(text));
  const ok = (gate: ProcedureTurn["gate"], window: Procedure["window"], told: Told): boolean => {
    const fluid = number(told.fluid);
    const revs = number(told.revs);
    if (gate?.fluid?.from && !(fluid >= number(gate.fluid.from.figure))) return false;
    if (gate?.fluid?.to && !(fluid <= number(gate.fluid.to.figure))) return false;
    if (gate?.revs && !(revs >= number(gate.revs.from.figure) && revs <= number(gate.revs.to.figure)))
      return false;
    if (window && !(fluid >= number(window.from.figure) && fluid <= number(window.to.figure))) return false;
    if (gate?.engine && told.engine && told.engine !== gate.engine) return false;
    if (gate?.brake && told.brake && told.brake !== gate.brake) return false;
    if (gate?.pedal && told.pedal && told.pedal !== gate.pedal) return false;
    return !(gate?.lever && told.lever && told.lever !== gate.lever);
  };
  let [state, run, behind, held] = ["not begun", 0, 0, null as number | null];
  for (const { did, turn, at: when, told } of events) {
    const due = procedure.turns[behind];
    const hot =
      procedure.window !== undefined &&
      procedure.turns.some((one, i) => i >= behind && one.window) &&
      number(told.fluid) > number(procedure.window.to.figure);
    if (state !== "going") {
      if (did === "begun" && ok(procedure.begin, undefined, told))
        [state, run, behind, held] = ["going", run + 1, 0, null];
    } else if (did === "stopped") [state, held] = ["stopped", null];
    else if (did === "missed" && hot) [state, held] = ["missed", null];
    else if (due?.id === turn && did === "broke") held = null;
    else if (due?.id === turn && !hot && ok(due.gate, due.window ? procedure.window : undefined, told)) {
      if (did === "held" && due.hold) held ??= when;
      const wait = due.hold ? number(due.hold.figure) * (due.hold.unit === "min" ? MINUTE : 1000) : 0;
      if (did === "done" && (!due.hold || (held !== null && when - held >= wait))) {
        behind++;
        held = null;
        if (behind === procedure.turns.length) state = "done";
      }
    }
  }
  return [state, run, behind, held].join();
}

it("in any order of what happens it is where a slow look has it, never past a gate that is not so, never stuck without saying why", () => {
  const roll = dice(4711);
  const chance = (): number => roll(1_000) / 1_000;
  const pick = <T>(list: readonly T[]): T => list[Math.floor(chance() * list.length)] as T;
  const seen = new Map<string, number>();
  for (let n = 0; n < 20_000; n++) {
    const [, procedure] = pick(procedures);
    const warm =
      procedure.window?.from.unit === "°F"
        ? ["140 °F", "150 °F", "175 °F", "176 °F"]
        : ["20 °C", "30 °C", "35 °C", "45 °C", "46 °C"];
    const told = (): Told => ({
      ...(chance() < 0.8 ? { fluid: pick(warm) } : {}),
      ...(chance() < 0.9 ? { revs: pick(["700 rpm", "750 rpm", "1500 rpm"]) } : {}),
      ...(chance() < 0.5 ? { engine: pick(["off", "running"]) } : {}),
      ...(chance() < 0.5 ? { brake: pick(["held", "held", "free"]) } : {}),
      ...(chance() < 0.5 ? { lever: pick(["P", "P", "N"]) } : {}),
    });
    // As it should go: else none would come to its end.
    const script = [
      ["begun", ""] as const,
      ...procedure.turns.flatMap(({ id, hold }) => [
        ...(hold ? [["held", id] as const] : []),
        ["done", id] as const,
      ]),
    ];
    let when = 0;
    let due = 0;
    const events = Array.from({ length: 1 + roll(20) }, (): Event => {
      when += pick([1_000, MINUTE, 3 * MINUTE, 6 * MINUTE]);
      const next = script[due];
      if (next && chance() < 0.9) {
        due++;
        const [did, turn] = next;
        const fluid = did === "begun" ? warm[0] : warm.at(-3);
        const right: Told = {
          fluid: fluid ?? "",
          ...(did === "begun" ? { engine: "off" } : { revs: "700 rpm" }),
        };
        return { did, turn, at: when, told: right };
      }
      const did = pick(["done", "held", "broke", "missed", "stopped", "begun"] as const);
      if (did === "stopped" || did === "missed") due = 0;
      return { did, turn: pick(procedure.turns).id, at: when, told: told() };
    });
    const at = told();
    const run = runOf(procedure, events, at, when + MINUTE);
    const { at: state, run: times, behind, held, may, why } = run;
    if ([state, times, behind, held].join() !== slowly(procedure, events))
      expect([procedure.name, events]).toEqual(slowly(procedure, events));
    if (may !== (why === "")) expect(run).toEqual("a reason");
    seen.set(state, (seen.get(state) ?? 0) + 1);
  }
  // It went everywhere there is to go.
  expect([...seen.keys()].sort()).toEqual(["done", "going", "missed", "not begun", "stopped"]);
  expect(Math.min(...seen.values())).toBeGreaterThan(50);
});
