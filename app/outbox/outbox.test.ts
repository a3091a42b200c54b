import "fake-indexeddb/auto";
import { afterEach, beforeEach, describe, expect, it } from "@jest/globals";
import { deleteDB } from "idb";
import type { Fact } from "~core/fact";
import { Outbox } from "./outbox";

/** What the server answers next; the ids it was sent, in order. */
let answers: (number | "away" | { refuse: string })[] = [];
let sent: string[] = [];
const boxes: Outbox[] = [];

beforeEach(() => {
  answers = [];
  sent = [];
  Object.assign(globalThis, { window: { addEventListener: () => {} } });
  globalThis.fetch = ((_url: string, { body }: { body: string }) => {
    const answer = answers.shift() ?? 200;
    if (answer === "away") return Promise.reject(new TypeError("no connection"));
    sent.push(...(JSON.parse(body) as Fact[]).map(({ id }) => id));
    if (typeof answer === "object")
      return Promise.resolve(Response.json({ problem: answer.refuse }, { status: 409 }));
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
    expect(sent).toEqual(["a", "a", "b", "c"]);
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
    await new Promise((resolve) => setTimeout(resolve, 60));
    expect(next.now().waiting).toEqual([]);
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
