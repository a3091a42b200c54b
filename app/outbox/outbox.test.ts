import "fake-indexeddb/auto";
import { afterEach, beforeEach, describe, expect, it } from "@jest/globals";
import { deleteDB } from "idb";
import type { Fact } from "~core/fact";
import { Outbox } from "./outbox";

/** What the server answers next; the ids it was sent, in order. */
let answers: (number | "away" | { refuse: string })[] = [];
let sent: string[] = [];
/** The ids the server breaks over, and whether it is well otherwise. */
let breaksOver: string[] = [];
let well = true;
let headers: Record<string, string> = {};
/** The id it refuses; the ids it has stored, and how many requests came. */
let refuses = "";
let taken: string[] = [];
let requests = 0;
const boxes: Outbox[] = [];

beforeEach(() => {
  answers = [];
  sent = [];
  breaksOver = [];
  well = true;
  [refuses, taken, requests] = ["", [], 0];
  Object.assign(globalThis, { window: { addEventListener: () => {} } });
  globalThis.fetch = ((
    url: string,
    { body, headers: given }: { body: string } & { headers: typeof headers },
  ) => {
    if (url === "/healthz") return Promise.resolve(Response.json({}, { status: well ? 200 : 503 }));
    headers = given;
    requests++;
    const ids = (JSON.parse(body) as Fact[]).map(({ id }) => id);
    if (ids.some((id) => breaksOver.includes(id))) {
      sent.push(...ids);
      return Promise.resolve(new Response("broke", { status: 500 }));
    }
    const answer = ids.includes(refuses) ? { refuse: "not this one" } : (answers.shift() ?? 200);
    if (answer === "away") return Promise.reject(new TypeError("no connection"));
    sent.push(...ids);
    if (typeof answer === "object")
      return Promise.resolve(Response.json({ problem: answer.refuse }, { status: 409 }));
    if (answer === 200) taken.push(...ids);
    return Promise.resolve(Response.json({}, { status: answer }));
  }) as unknown as typeof fetch;
});
afterEach(async () => {
  for (const box of boxes.splice(0)) await box.stop();
  await deleteDB("yard-key");
});

const page = (): Outbox => {
  const box = new Outbox();
  boxes.push(box);
  return box;
};
const fact = (id: string): Fact => ({
  id,
  at: "2026-05-04T08:00:00.000Z",
  by: "Mira K.",
  body: { kind: "scope", depths: ["full"] },
});
async function until(true_: () => boolean): Promise<void> {
  for (let i = 0; i < 400 && !true_(); i++) await new Promise((resolve) => setTimeout(resolve, 10));
  expect(true_()).toBe(true);
}

describe("the outbox", () => {
  it("shows a fact at once and sends it", async () => {
    const box = page();
    const said = box.say(1030, fact("a"));
    expect(box.now().waiting.map((entry) => entry.fact.id)).toEqual(["a"]);
    await said;
    await until(() => box.now().waiting.length === 0);
    expect(sent).toEqual(["a"]);
    expect(box.now().sent.map((entry) => entry.fact.id)).toEqual(["a"]);
  });

  it("keeps the order while the server is away, and sends again until it is back", async () => {
    answers = ["away", "away", 503];
    const box = page();
    for (const id of ["a", "b", "c"]) await box.say(1030, fact(id));
    expect(box.now().away).toBe(true);
    await until(() => box.now().waiting.length === 0);
    // The one answered with 503 reached the server, which may or may not have stored it: it is sent again under the same id.
    expect(sent.slice(-3)).toEqual(["a", "b", "c"]);
    expect(box.now().away).toBe(false);
  });

  it("hands what still waits to the next page", async () => {
    answers = ["away", "away"];
    const first = page();
    await first.say(1030, fact("a"));
    await first.say(1030, fact("b"));
    await first.stop();
    const second = page();
    second.start();
    await until(() => second.now().waiting.length === 0 && sent.length === 2);
    expect(sent).toEqual(["a", "b"]);
  });

  it("can be let go at any moment of sending", async () => {
    answers = ["away"];
    const box = page();
    await box.say(1030, fact("a"));
    await until(() => box.now().away);
    box.subscribe(() => {
      if (box.now().waiting.length === 0) void box.stop();
    });
    await expect(box.flush()).resolves.toBeUndefined();
  });

  it("sets what the server will never take apart and goes on with the rest", async () => {
    answers = [{ refuse: "the job is closed" }];
    const box = page();
    await box.say(1030, fact("a"));
    await box.say(1031, fact("b"));
    await until(() => sent.length === 2);
    await until(() => box.now().waiting.length === 1);
    const [entry] = box.now().waiting;
    expect(entry).toMatchObject({ job: 1030, refused: "the job is closed" });
    if (entry) await box.setAside(entry);
    expect(box.now().waiting).toEqual([]);
    await box.stop();
    const next = page();
    next.start();
    await until(() => next.now().aside.length === 1);
    expect([next.now().waiting, next.now().aside[0]?.fact.id, sent]).toEqual([[], "a", ["a", "b"]]);
    // Tried again it goes under the same id; nothing of it stays.
    const [again] = next.now().aside;
    if (again) await next.tryAgain(again);
    await until(() => sent.length === 3);
    expect(sent[2]).toBe("a");
    await until(() => next.now().waiting.length === 0);
    expect(next.now().aside).toEqual([]);
  });

  it("throws away what was set aside only when it is told to", async () => {
    answers = [{ refuse: "the job is closed" }];
    const box = page();
    await box.say(1030, fact("a"));
    await until(() => box.now().waiting[0]?.refused !== undefined);
    const [entry] = box.now().waiting;
    if (entry) await box.setAside(entry);
    const [aside] = box.now().aside;
    if (aside) await box.throwAway(aside);
    await box.stop();
    const next = page();
    await next.say(1030, fact("b"));
    await until(() => next.now().waiting.length === 0);
    expect([next.now().aside, sent]).toEqual([[], ["a", "b"]]);
  });

  it("goes on with other jobs when the server breaks over one fact, keeps the order of that job, and comes back to it", async () => {
    breaksOver = ["a"];
    const box = page();
    for (const [job, id] of [
      [1030, "a"],
      [1030, "b"],
      [1031, "c"],
      [1031, "d"],
    ] as const)
      await box.say(job, fact(id));
    await until(() => taken.includes("d"));
    expect([taken, box.now().away]).toEqual([["c", "d"], false]);
    await until(() => box.now().waiting.length === 2);
    expect(box.now().waiting.map((entry) => entry.fact.id)).toEqual(["a", "b"]);
    await until(() => (box.now().waiting[0]?.failed ?? 0) >= 2);
    breaksOver = [];
    await until(() => box.now().waiting.length === 0);
    expect(taken).toEqual(["c", "d", "a", "b"]);
  });

  it("goes on in the same job when what the server breaks over is set aside", async () => {
    breaksOver = ["a"];
    const box = page();
    await box.say(1030, fact("a"));
    await box.say(1030, fact("b"));
    await until(() => box.now().waiting[0]?.failed !== undefined);
    const [entry] = box.now().waiting;
    if (entry) await box.setAside(entry);
    await until(() => box.now().waiting.length === 0);
    expect(taken).toEqual(["b"]);
    expect(box.now().aside.map(({ fact: { id } }) => id)).toEqual(["a"]);
  });

  it("holds everything when the server is not well, whatever it answers", async () => {
    well = false;
    breaksOver = ["a"];
    const box = page();
    await box.say(1030, fact("a"));
    await box.say(1031, fact("b"));
    await until(() => box.now().away);
    expect([sent.includes("b"), box.now().waiting[0]?.failed]).toEqual([false, undefined]);
    [breaksOver, well] = [[], true];
    await until(() => box.now().waiting.length === 0);
    expect(sent.slice(-2)).toEqual(["a", "b"]);
  });

  it("sends what a weekend left in a few requests, in order, and one with a picture by itself", async () => {
    const many = Array.from({ length: 400 }, (_, i) => `f${i}`);
    answers = Array.from({ length: 2_000 }, () => "away" as const);
    const box = page();
    for (const id of many) await box.say(1030, fact(id));
    await box.stop();
    [answers, sent, requests] = [[], [], 0];
    const next = page();
    next.start();
    await until(() => next.now().waiting.length === 0 && sent.length > 0);
    expect([sent, requests]).toEqual([many, 8]);
  });

  it("finds the one among many that the server refuses, and the others go through", async () => {
    refuses = "b";
    const box = page();
    for (const id of ["a", "b", "c", "d"]) await box.say(1030, fact(id));
    await until(() => box.now().waiting.length === 1 && box.now().waiting[0]?.refused !== undefined);
    expect([box.now().waiting[0]?.fact.id, new Set(taken)]).toEqual(["b", new Set(["a", "c", "d"])]);
  });

  it("says with each fact which job it means", async () => {
    const box = page();
    await box.say(1030, fact("a"), { jobId: "0195f2c0-0000-7000-8000-000000000001" });
    await until(() => box.now().waiting.length === 0);
    expect(headers["X-Job"]).toBe("0195f2c0-0000-7000-8000-000000000001");
  });

  it("sends from the page itself where the browser refuses to keep anything, in order, and says so", async () => {
    const kept = globalThis.indexedDB;
    Object.assign(globalThis, {
      indexedDB: {
        open: () => {
          throw new DOMException("private window", "SecurityError");
        },
      },
    });
    try {
      answers = ["away"];
      const box = page();
      for (const id of ["a", "b"]) await box.say(1030, fact(id));
      expect(box.now().waiting.map(({ unkept }) => unkept)).toEqual([true, true]);
      await until(() => box.now().waiting.length === 0);
      expect(sent).toEqual(["a", "b"]);
    } finally {
      Object.assign(globalThis, { indexedDB: kept });
    }
  });

  it("waits for a new sign-in without losing anything", async () => {
    answers = [401];
    const box = page();
    await box.say(1030, fact("a"));
    await until(() => box.now().signedOut);
    expect(box.now().waiting).toHaveLength(1);
    await box.flush();
    await until(() => box.now().waiting.length === 0);
    expect(box.now().signedOut).toBe(false);
  });

  it("tells whoever listens, until they stop listening", async () => {
    const box = page();
    let told = 0;
    const leave = box.subscribe(() => told++);
    await box.say(1030, fact("a"));
    await until(() => box.now().waiting.length === 0);
    expect(told).toBeGreaterThan(1);
    leave();
    const before = told;
    await box.say(1030, fact("b"));
    expect(told).toBe(before);
  });
});
