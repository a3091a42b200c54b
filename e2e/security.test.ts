import { request } from "node:http";
import { afterAll, beforeAll, describe, expect, it } from "@jest/globals";
import { voucherFor } from "../app/server/voucher";
import type { JobDocument } from "../core/fact";
import { cookieKey } from "../store/house";
import { openShop, type Shop } from "./shop";

/** One grey point as a PNG. */
const PIXEL = Buffer.from(
  "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAAAAAA6fptVAAAACklEQVR4nGNoAAAAggCBd81ytgAAAABJRU5ErkJggg==",
  "base64",
);

let shop: Shop;
beforeAll(async () => {
  shop = await openShop();
}, 60_000);
afterAll(() => shop.close());

const staffId = async (name: string): Promise<string> =>
  (await shop.pool.query<{ id: string }>("select id from staff where name = $1", [name])).rows[0]?.id ?? "";

/** Sends a form as a page without script does. */
const post = (
  path: string,
  fields: Record<string, string>,
  headers: Record<string, string> = {},
): Promise<Response> =>
  fetch(`${shop.url}${path}`, {
    method: "POST",
    redirect: "manual",
    headers: { origin: shop.url, "content-type": "application/x-www-form-urlencoded", ...headers },
    body: new URLSearchParams(fields),
  });

async function cookieOf(name: string): Promise<string> {
  const response = await post("/sign-in", { staff: await staffId(name), pin: "2580", to: "/" });
  return response.headers.get("set-cookie")?.split(";")[0] ?? "";
}

describe("the door", () => {
  it("signs in with a signed, same-site, http-only cookie and leads only to places of its own", async () => {
    const response = await post("/sign-in", {
      staff: await staffId("Mira K."),
      pin: "2580",
      to: "//elsewhere.example",
    });
    expect(response.status).toBe(302);
    expect(response.headers.get("location")).toBe("/");
    const cookie = response.headers.get("set-cookie") ?? "";
    expect(cookie).toMatch(/HttpOnly/i);
    expect(cookie).toMatch(/SameSite=Lax/i);
    const [pair = ""] = cookie.split(";");
    const visit = (value: string): Promise<Response> =>
      fetch(`${shop.url}/shelf`, { headers: { cookie: value }, redirect: "manual" });
    expect((await visit(pair)).status).toBe(200);
    // The signature's first letter: all six of its bits are signed, those of the last are not.
    const forged = pair.replace(
      /\.(%2B|%2F|[A-Za-z0-9])/,
      (_, first: string) => `.${first === "A" ? "B" : "A"}`,
    );
    expect(forged).not.toBe(pair);
    expect((await visit(forged)).status).toBe(302);
    expect((await visit("")).headers.get("location")).toBe("/sign-in?to=%2Fshelf");
  });

  it("limits tries across the shop and says so", async () => {
    const staff = await staffId("Joost W.");
    const statuses: number[] = [];
    for (let i = 0; i < 6; i++)
      statuses.push((await post("/sign-in", { staff, pin: "0000", to: "/" })).status);
    expect(statuses).toEqual([400, 400, 400, 400, 429, 429]);
    const right = await post("/sign-in", { staff, pin: "2580", to: "/" });
    expect(right.status).toBe(429);
    expect(await right.text()).toContain("Too many tries");
  });

  it("hands out a revision under its digest, for ever, and under no other name", async () => {
    const cookie = await cookieOf("Mira K.");
    const page = await (await fetch(`${shop.url}/jobs/1030`, { headers: { cookie } })).text();
    const [path = "", id = ""] = /\/revisions\/([0-9a-f-]{36})\/[\w-]{22}/.exec(page) ?? [];
    const ask = (at: string, as = cookie): Promise<Response> =>
      fetch(`${shop.url}${at}`, { headers: { cookie: as }, redirect: "manual" });
    const answer = await ask(path);
    expect(answer.headers.get("cache-control")).toMatch(/private.*immutable/);
    expect(await answer.json()).toMatchObject({ format: "yard-key/book@1", unit: { id: "marram-dunlin" } });
    expect((await ask(path, "")).status).toBe(302);
    for (const wrong of [
      path.slice(0, -2),
      `/revisions/${id.replace(/.$/, (c) => (c === "0" ? "1" : "0"))}/x`,
      "/revisions/x/y",
    ])
      expect((await ask(wrong)).status).toBe(404);
  });

  it("keeps strangers out of every place", async () => {
    for (const path of [
      "/",
      "/jobs/new",
      "/jobs/1030",
      "/jobs/1030/export.json",
      "/jobs/1030/sheet.pdf",
      "/jobs/1030/teardown",
      "/jobs/1030/measure.csv",
      "/jobs/1030/measure.pdf",
      "/shelf",
      "/house",
      "/gauge/stream",
      "/empty",
    ]) {
      const response = await fetch(`${shop.url}${path}`, { redirect: "manual" });
      expect([path, response.status]).toEqual([path, 302]);
    }
    const facts = await fetch(`${shop.url}/jobs/1030/facts`, {
      method: "POST",
      headers: { origin: shop.url, accept: "application/json" },
      body: "[]",
    });
    expect(facts.status).toBe(401);
  });
});

describe("every action", () => {
  it("wants an origin, and its own", async () => {
    const cookie = await cookieOf("Mira K.");
    const bare = await fetch(`${shop.url}/jobs/1030/facts`, {
      method: "POST",
      headers: { cookie },
      body: "[]",
    });
    expect(bare.status).toBe(403);
    const foreign = await post(
      "/house",
      { intent: "person" },
      { cookie, origin: "http://elsewhere.example" },
    );
    expect(foreign.status).toBe(403);
  });

  it("takes no more than any form or file of ours is long", async () => {
    const response = await post("/sign-in", { pin: "2".repeat(26_000_000) });
    expect(response.status).toBe(413);
  });

  it("asks for the role on the server, not only in the page", async () => {
    const builder = await cookieOf("Mira K.");
    const parts = await cookieOf("Ines R.");
    const lead = await cookieOf("Edda L.");
    const receive = (cookie: string): Promise<Response> =>
      post("/shelf", { id: crypto.randomUUID(), part: "MD-2220", quantity: "1" }, { cookie });
    const settings = {
      rule: "plain",
      target: "middle",
      chooseFirst: "ready",
      steels: "always new",
      bushings: "on measurement",
      hourCents: "90.00",
      comebackCents: "1200",
      shopName: "Mine now",
      footKey: "F8",
      copiesKept: "14",
      lockMinutes: "30",
      timeZone: "UTC",
      "standstill-usual": "1.15",
      "shifting-usual": "1.3",
      "standstill-towing": "1.3",
      "shifting-towing": "1.5",
      "standstill-high-output": "1.4",
      "shifting-high-output": "1,8",
    };
    expect((await receive(builder)).status).toBe(403);
    expect((await receive(parts)).status).toBe(200);
    expect((await post("/house", settings, { cookie: builder })).status).toBe(403);
    expect((await post("/house", settings, { cookie: parts })).status).toBe(403);
    expect((await post("/house", settings, { cookie: lead })).status).toBe(200);
    const decide = (cookie: string): Promise<Response> =>
      fetch(`${shop.url}/jobs/1027/facts`, {
        method: "POST",
        headers: { cookie, origin: shop.url, "content-type": "application/json" },
        body: JSON.stringify([
          {
            id: crypto.randomUUID(),
            at: new Date().toISOString(),
            by: "anyone",
            body: { kind: "way-on", way: "used", reason: "cheaper" },
          },
        ]),
      });
    expect((await decide(builder)).status).toBe(403);
    expect((await decide(lead)).status).toBe(200);
    const { rows } = await shop.pool.query("select from house_setting where key = 'rule'");
    expect(rows).toHaveLength(1);
  });

  it("does not let a bench fact choose, sign or close", async () => {
    const cookie = await cookieOf("Mira K.");
    for (const body of [
      { kind: "closed", rule: "proven" },
      { kind: "waiver", chain: "d1-clearance", reason: "because", signedBy: "Edda L." },
      {
        kind: "choice",
        chain: "d1-clearance",
        fit: 1,
        kept: false,
        reason: "",
        prediction: { mean: 1, expanded: 1, chance: 1 },
      },
      { kind: "fitting", chain: "d1-clearance", fit: 1, origin: "shelf", piece: { size: 1 } },
    ]) {
      const response = await fetch(`${shop.url}/jobs/1030/facts`, {
        method: "POST",
        headers: { cookie, origin: shop.url, "content-type": "application/json", accept: "application/json" },
        body: JSON.stringify([
          { id: crypto.randomUUID(), at: new Date().toISOString(), by: "Mira K.", body },
        ]),
      });
      expect([body.kind, response.status]).toEqual([body.kind, 400]);
    }
  });

  it("stores facts under the name signed in, whatever they claim", async () => {
    const cookie = await cookieOf("Mira K.");
    const id = crypto.randomUUID();
    const body = { kind: "scope", depth: "full" };
    await fetch(`${shop.url}/jobs/1030/facts`, {
      method: "POST",
      headers: { cookie, origin: shop.url, "content-type": "application/json", accept: "application/json" },
      body: JSON.stringify([{ id, at: new Date().toISOString(), by: "Edda L.", body }]),
    });
    const { rows } = await shop.pool.query<{ by_name: string }>("select by_name from fact where id = $1", [
      id,
    ]);
    expect(rows[0]?.by_name).toBe("Mira K.");
  });

  it("a reading typed into a page whose script never loaded is checked and stored the same, once", async () => {
    const cookie = await cookieOf("Mira K.");
    const id = crypto.randomUUID();
    const path = "/jobs/1028/choose/d3-clearance";
    const send = (value: string): Promise<Response> =>
      post(path, { intent: "read", id, phase: "found", unit: "mm", value }, { cookie });
    const wrong = await send("43");
    expect(wrong.status).toBe(400);
    const page = await wrong.text();
    expect(page).toContain("cannot be this pack");
    expect(page).toContain('value="43"');
    expect((await send("1.25")).status).toBe(200);
    expect((await send("1.25")).status).toBe(200);
    const { rowCount } = await shop.pool.query("select from fact where id = $1", [id]);
    expect(rowCount).toBe(1);
  });
});

describe("a stranger", () => {
  /** Sends a body piece by piece, without saying how long it will be. */
  const chunked = (path: string, piece: string, times: number): Promise<number> =>
    new Promise((resolve, reject) => {
      const sent = request(
        `${shop.url}${path}`,
        {
          method: "POST",
          headers: { origin: shop.url, "content-type": "application/x-www-form-urlencoded" },
        },
        (response) => {
          response.resume();
          resolve(response.statusCode ?? 0);
        },
      );
      // The server hangs up on what it does not want.
      sent.on("error", (error: NodeJS.ErrnoException) =>
        error.code === "EPIPE" || error.code === "ECONNRESET" ? undefined : reject(error),
      );
      for (let i = 0; i < times; i++) sent.write(piece);
      sent.end();
    });

  it("sends nothing without saying how much, and little before the door", async () => {
    expect(await chunked("/sign-in", "x".repeat(10_000), 20)).toBe(411);
    expect(await chunked("/jobs/import", "x".repeat(10_000), 20)).toBe(411);
    const many = Object.fromEntries(Array.from({ length: 3_000 }, (_, i) => [`field-${i}`, "1"]));
    expect((await post("/sign-in", many)).status).toBe(413);
    expect((await post("/first-run", { shop: "x".repeat(17_000) })).status).toBe(413);
    const cookie = await cookieOf("Mira K.");
    expect(
      (await post("/jobs/1030/say", { kind: "fluid", note: "x".repeat(400_000) }, { cookie })).status,
    ).toBe(413);
  });

  it("who makes a first account again and again keeps nobody waiting", async () => {
    const cookie = await cookieOf("Mira K.");
    const form = { shop: "Mine", name: "Me", pin: "123456", again: "123456" };
    const tries = Array.from({ length: 40 }, () => post("/first-run", form));
    const page = await fetch(`${shop.url}/shelf`, { headers: { cookie } });
    expect(page.status).toBe(200);
    for (const one of await Promise.all(tries))
      expect([one.status, one.headers.get("location")]).toEqual([302, "/sign-in"]);
    const { rowCount } = await shop.pool.query("select from staff where name = 'Me'");
    expect(rowCount).toBe(0);
  });

  it("what no database keeps is refused with its place, and not tried again for ever", async () => {
    const cookie = await cookieOf("Mira K.");
    for (const note of ["a\u0000b", "half \ud83d", "\udd27 half"]) {
      const body = { kind: "fluid", look: "black", smell: "burnt", note };
      const response = await fetch(`${shop.url}/jobs/1030/facts`, {
        method: "POST",
        headers: { cookie, origin: shop.url, "content-type": "application/json", accept: "application/json" },
        body: JSON.stringify([{ id: crypto.randomUUID(), at: new Date().toISOString(), by: "x", body }]),
      });
      const told = (await response.json()) as { problem: string };
      expect([response.status, told.problem]).toEqual([400, expect.stringContaining("note")]);
    }
  });

  it("adds no picture to a closed job, nor under another job’s id", async () => {
    const cookie = await cookieOf("Mira K.");
    const put = (job: number, id: string): Promise<Response> =>
      fetch(`${shop.url}/jobs/${job}/photos/${id}`, {
        method: "POST",
        headers: { cookie, origin: shop.url, "content-type": "image/png", accept: "application/json" },
        body: new Uint8Array(PIXEL),
      });
    const id = crypto.randomUUID();
    expect((await put(1010, id)).status).toBe(409);
    expect((await put(1030, id)).status).toBe(200);
    expect((await put(1030, id)).status).toBe(200);
    expect((await put(1029, id)).status).toBe(409);
    expect((await put(1030, "abc")).status).toBe(400);
  });

  it("asks for places there are not, and is told so", async () => {
    const cookie = await cookieOf("Mira K.");
    for (const path of [
      "/drafts/abc",
      "/jobs/1e9",
      "/jobs/-1",
      "/revisions/a/b",
      "/books/nothing",
      "/scan/%00",
    ]) {
      const response = await fetch(`${shop.url}${path}`, { headers: { cookie }, redirect: "manual" });
      expect([path, response.status]).toEqual([path, 404]);
    }
  });
});

describe("nobody speaks for another", () => {
  const send = (
    path: string,
    cookie: string,
    body: unknown,
    more: Record<string, string> = {},
  ): Promise<Response> =>
    fetch(`${shop.url}${path}`, {
      method: "POST",
      headers: {
        cookie,
        origin: shop.url,
        "content-type": "application/json",
        accept: "application/json",
        ...more,
      },
      body: JSON.stringify(body),
    });
  const fact = (body: object, more: object = {}): object => ({
    id: crypto.randomUUID(),
    at: new Date().toISOString(),
    by: "anyone",
    body,
    ...more,
  });
  const exported = async (number: number, cookie: string): Promise<JobDocument> =>
    (await (
      await fetch(`${shop.url}/jobs/${number}/export.json`, { headers: { cookie } })
    ).json()) as JobDocument;
  async function take(document: unknown, cookie: string): Promise<{ status: number; text: string }> {
    const form = new FormData();
    form.set("file", new File([JSON.stringify(document)], "job.json", { type: "application/json" }));
    const response = await fetch(`${shop.url}/jobs/import`, {
      method: "POST",
      redirect: "manual",
      // What is refused before all of it was read may lose its connection: the next one begins its own.
      headers: { cookie, origin: shop.url, connection: "close" },
      body: form,
    });
    return { status: response.status, text: await response.text() };
  }
  const factCount = async (number: number): Promise<number> =>
    (
      await shop.pool.query<{ n: number }>(
        "select count(*)::int as n from fact f join job j on j.id = f.job where j.number = $1",
        [number],
      )
    ).rows[0]?.n ?? 0;

  it("a job of this shop takes nothing by a file that it does not have; only a lead brings jobs in", async () => {
    const [builder, lead] = [await cookieOf("Mira K."), await cookieOf("Edda L.")];
    const document = await exported(1028, lead);
    const before = await factCount(1028);
    expect((await take(document, builder)).status).toBe(403);
    expect((await take(document, lead)).status).toBe(302);
    const signed = { kind: "waiver", chain: "d1-clearance", reason: "as it is", signedBy: "Edda L." };
    for (const more of [
      signed,
      { kind: "closed", rule: "proven" },
      { kind: "holder", name: "Mira K.", staff: null },
    ]) {
      const forged = { ...document, facts: [...document.facts, fact(more, { by: "Edda L." })] };
      const answer = await take(forged, lead);
      expect([more.kind, answer.status]).toEqual([more.kind, 400]);
      expect(answer.text).toContain("is here already, as 1028");
    }
    expect(await factCount(1028)).toBe(before);
  });

  it("one from elsewhere keeps its names and who brought it in; its book is its own and offered to nobody", async () => {
    const lead = await cookieOf("Edda L.");
    const document = await exported(1027, lead);
    const book = document.book as { unit: { revision: number; source: string } };
    const foreign = {
      ...document,
      id: crypto.randomUUID(),
      number: 77,
      facts: document.facts
        .filter(
          ({ replaces, body }) =>
            replaces === undefined && body.kind !== "photo" && body.kind !== "photo-mark",
        )
        .map(({ at, by, body }) => ({ id: crypto.randomUUID(), at, by, body }))
        .filter(({ body }) => body.kind !== "leave-out"),
      book: { ...book, unit: { ...book.unit, revision: 40, source: "another shop’s own" } },
      pictures: [],
    };
    expect(await take(foreign, lead)).toMatchObject({ status: 302 });
    const { rows } = await shop.pool.query<{ number: number; by: string; offered: boolean }>(
      `select distinct j.number, f.by_name as by, b.offered from job j join fact f on f.job = j.id join book b on b.id = j.book where j.id = $1`,
      [foreign.id],
    );
    expect(rows.map(({ offered }) => offered)).not.toContain(true);
    for (const { by } of rows) expect(by).toMatch(/^.+, brought in by Edda L\.$/);
    const page = async (path: string): Promise<string> =>
      (await fetch(`${shop.url}${path}`, { headers: { cookie: lead } })).text();
    expect(await page("/books/marram-dunlin")).not.toContain("another shop’s own");
    expect(await page("/jobs/1030")).not.toContain("Revision 40 of this book is out");
    expect(await page(`/jobs/${rows[0]?.number}`)).toContain("another shop’s own");
  });

  it("a correction stands only in the place of its own like", async () => {
    const cookie = await cookieOf("Mira K.");
    const { rows } = await shop.pool.query<{ id: string; kind: string }>(
      `select f.id, f.kind from fact f join job j on j.id = f.job where j.number = 1029 and f.kind in ('booking', 'choice', 'holder')`,
    );
    expect(new Set(rows.map(({ kind }) => kind))).toEqual(new Set(["booking", "choice", "holder"]));
    for (const { id, kind } of rows) {
      const body = { kind: "fluid", look: "black", smell: "burnt", note: "" };
      const response = await send("/jobs/1029/facts", cookie, [fact(body, { replaces: id })]);
      expect([kind, response.status]).toEqual([kind, 409]);
    }
  });

  it("a voucher speaks for nobody who may more, not for ever, and not for one who is not vouched for", async () => {
    const [builder, key] = [await cookieOf("Mira K."), await cookieKey(shop.pool)];
    const [edda, tomas] = [await staffId("Edda L."), await staffId("Tomas B.")];
    const decision = { kind: "way-on", way: "rebuild", reason: "says the lead" };
    const count = { kind: "fluid", look: "black", smell: "burnt", note: "" };
    const sent = async (body: object, voucher: string): Promise<number> =>
      (await send("/jobs/1026/facts", builder, [fact(body)], { "x-said-by": voucher })).status;
    expect(await sent(decision, voucherFor(key, edda))).toBe(403);
    expect(await sent(count, voucherFor("another key", tomas))).toBe(403);
    expect(await sent(count, voucherFor(key, tomas, Date.now() - 8 * 24 * 3600 * 1000))).toBe(403);
    expect((await send("/jobs/1026/facts", builder, [fact(count)], { "x-said-by": "nonsense" })).status).toBe(
      403,
    );
    const { rowCount } = await shop.pool.query(
      "select from fact f join job j on j.id = f.job where j.number = 1026 and f.kind in ('way-on')",
    );
    expect(rowCount).toBe(0);
  });

  it("less work on a unit that is open is a lead’s to decide", async () => {
    const [builder, lead] = [await cookieOf("Mira K."), await cookieOf("Edda L.")];
    const less = { kind: "scope", depths: ["pan and body"] };
    expect((await send("/jobs/1029/facts", builder, [fact(less)])).status).toBe(403);
    expect(
      (await send("/jobs/1029/facts", builder, [fact({ kind: "scope", depths: ["full"] })])).status,
    ).toBe(200);
    expect((await send("/jobs/1029/facts", lead, [fact(less)])).status).toBe(200);
    expect((await send("/jobs/1029/facts", lead, [fact({ kind: "scope", depths: ["full"] })])).status).toBe(
      200,
    );
  });

  it("a form that has opened a job opens no other, and adds nothing to it", async () => {
    const cookie = await cookieOf("Mira K.");
    const { rows } = await shop.pool.query<{ id: string }>(
      "select id from book where unit = 'marram-dunlin' and offered order by revision desc limit 1",
    );
    const form = {
      id: crypto.randomUUID(),
      book: rows[0]?.id ?? "",
      vehicle: "Skerry 300 van",
      customer: "",
      words: "slips in third",
      odometer: "",
      depth: "full",
      "trait-body": "late",
      "trait-plate": "two",
    };
    const first = await post("/jobs/new", form, { cookie });
    expect(first.status).toBe(302);
    const number = Number(first.headers.get("location")?.split("/").at(-1));
    const before = await factCount(number);
    const again = await post("/jobs/new", form, { cookie });
    expect([again.status, again.headers.get("location")]).toEqual([302, `/jobs/${number}`]);
    const other = await post("/jobs/new", { ...form, vehicle: "Linnet estate" }, { cookie });
    expect(other.status).toBe(409);
    expect(await other.text()).toContain(`opened job ${number} already`);
    expect(await factCount(number)).toBe(before);
  });
});

describe("what is sent", () => {
  it("has a content-security policy without inline anything, and no powered-by", async () => {
    const response = await fetch(`${shop.url}/sign-in`);
    const policy = response.headers.get("content-security-policy") ?? "";
    expect(policy).toMatch(/script-src 'self' 'nonce-[^']+'/);
    expect(policy).not.toContain("unsafe");
    expect(policy).toContain("frame-ancestors 'none'");
    expect(response.headers.get("x-content-type-options")).toBe("nosniff");
    expect(response.headers.get("x-powered-by")).toBeNull();
    expect(response.headers.get("permissions-policy")).toMatch(/camera=\(self\).*microphone=\(\)/);
    const nonce = /nonce-([^']+)/.exec(policy)?.[1];
    const again = (await fetch(`${shop.url}/sign-in`)).headers.get("content-security-policy");
    expect(again).not.toContain(nonce);
  });

  it("tells the health of the database, and 404 of what is not there", async () => {
    expect(await (await fetch(`${shop.url}/healthz`)).json()).toEqual({ database: "answers" });
    const cookie = await cookieOf("Mira K.");
    for (const path of ["/jobs/999999", "/jobs/abc", "/jobs/1030/choose/none", "/nowhere"]) {
      const response = await fetch(`${shop.url}${path}`, { headers: { cookie } });
      expect([path, response.status]).toEqual([path, 404]);
    }
  });
});
