// Speed as ratios within one run. Server: the job page and storing one reading, each beside its floor (the bare SQL they need +
// an empty route of the same server), with 200 and with 200 000 jobs. Browser: script sent for the pack worksheet beside an
// empty route's, and the time from the key that stores a reading to the new verdict.
import { gzipSync } from "node:zlib";
import { readFileSync } from "node:fs";
import { Agent, request } from "node:http";
import pg from "pg";
import { v7 as newId } from "uuid";
import { build as bundle } from "vite";
import { Key, Person } from "../e2e/browser";
import { openShop, type Shop } from "../e2e/shop";
import sharp from "sharp";
import { Diagnostician } from "../core/diagnose";
import { searcher } from "../app/book/answering";
import { resolve } from "../core/book";
import { answers } from "../core/find";
import { readBook } from "../core/check";
import { solveRanges } from "../core/gears";
import { bookOf, documentOf, UNITS } from "../demo/units";
import { choose, referee } from "./bench-choose";
import { kits } from "./bench-kits";
import { testDatabase } from "../store/testing";
import { shelf } from "./bench-shelf";
import { startCluster } from "./cluster";
import { build } from "./serve";

const say = (text: string): void => console.log(text);
const RUNS = 150;

const median = (values: number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;

const agent = new Agent({ keepAlive: true });

/** A plain http request on a kept connection: fetch's own cost would drown the floor. */
function ask(url: string, cookie: string, body?: string, again = true): Promise<string> {
  return new Promise((resolve, reject) => {
    const headers: Record<string, string> = { cookie, accept: body ? "application/json" : "text/html" };
    if (body) Object.assign(headers, { origin: new URL(url).origin, "content-type": "application/json" });
    const sent = request(url, { agent, method: body ? "POST" : "GET", headers }, (response) => {
      const chunks: Buffer[] = [];
      response.on("data", (chunk: Buffer) => chunks.push(chunk));
      response.on("end", () => {
        const text = Buffer.concat(chunks).toString();
        if ((response.statusCode ?? 500) >= 400)
          reject(new Error(`${url}: ${response.statusCode} ${text.slice(0, 200)}`));
        else resolve(text);
      });
    });
    sent.on("error", (error: NodeJS.ErrnoException) => {
      // The server may close a kept connection in the very moment it is used again: nothing was answered, so it is asked once more.
      if (again && sent.reusedSocket && error.code === "ECONNRESET")
        ask(url, cookie, body, false).then(resolve, reject);
      else reject(error);
    });
    sent.end(body);
  });
}

async function signIn(shop: Shop): Promise<string> {
  const { rows } = await shop.pool.query<{ id: string }>("select id from staff where name = 'Mira K.'");
  const response = await fetch(`${shop.url}/sign-in`, {
    method: "POST",
    redirect: "manual",
    headers: { origin: shop.url, "content-type": "application/x-www-form-urlencoded" },
    body: new URLSearchParams({ staff: rows[0]?.id ?? "", pin: "2580", to: "/" }),
  });
  return response.headers.get("set-cookie")?.split(";")[0] ?? "";
}

/** Fills the database up to `count` jobs with some facts each, as a shop of many years would have. */
async function fill(shop: Shop, count: number): Promise<void> {
  await shop.pool.query("set statement_timeout = 0");
  const client = new pg.Client({ connectionString: shop.databaseUrl });
  await client.connect();
  await client.query(`create temp table fresh as
    select gen_random_uuid() as id, (select id from book limit 1) as book from generate_series(1, ${count} - (select count(*) from job))`);
  await client.query(
    "insert into job (id, book, opened) select id, book, now() - random() * interval '8 years' from fresh",
  );
  await client.query(
    // A list's first page is full however many jobs there are: what grows is then what the jobs behind it cost, not how many cards are drawn.
    `insert into job_card (job, number, open, holder)
     select j.id, j.number, random() < 0.001 or row_number() over (order by j.number desc) <= 30, 'Mira K.' from job j join fresh f on f.id = j.id`,
  );
  await client.query(`insert into fact (id, job, kind, by_name, at, body)
    select gen_random_uuid(), f.id, b.body ->> 'kind', 'Mira K.', now(), b.body
      from fresh f cross join (select body from fact where job = (select id from job where number = 1030) order by seq limit 6) b
      where b.body ->> 'kind' <> 'fitting'`);
  await client.query("analyze");
  await client.end();
}

const reading = (): unknown => ({
  id: newId(),
  at: new Date().toISOString(),
  by: "Mira K.",
  body: {
    kind: "reading",
    chain: "d1-clearance",
    phase: "found",
    fit: 0,
    method: "air and dial",
    unit: "mm",
    resolution: 10_000,
    state: { soak: "soaked", facings: "run-in", wave: "free" },
    reading: { kind: "single", value: 1_450_000 },
  },
});

/** What takes how long, beside a route that answers nothing, asked in turn with it: a machine is not as quick as it was a minute ago. */
interface Server {
  page: number;
  pageFloor: number;
  list: number;
  store: number;
  storeFloor: number;
}

/** Medians of several works taken in turn, so that what disturbs the machine disturbs all of them alike. */
async function inTurn<const T extends readonly (() => Promise<unknown>)[]>(
  works: T,
  runs: number,
): Promise<{ [K in keyof T]: number }> {
  const taken = works.map((): number[] => []);
  for (let i = 0; i < runs * 1.1; i++)
    for (const [at, work] of works.entries()) {
      const begun = performance.now();
      await work();
      taken[at]?.push(performance.now() - begun);
    }
  return taken.map((times) => median(times.slice(Math.floor(runs * 0.1)))) as { [K in keyof T]: number };
}

async function server(shop: Shop, cookie: string, job: number, path = "", runs = RUNS): Promise<Server> {
  const { rows } = await shop.pool.query<{ id: string }>("select id from job where number = $1", [job]);
  const id = rows[0]?.id;
  const session = Buffer.from(cookie.split("=")[1]?.split(".")[0] ?? "", "base64").toString();
  const sessionId = /[0-9a-f-]{36}/.exec(session)?.[0] ?? newId();
  // What the page cannot do without: who is there, the house's choices, the job, its facts; a pack's page besides its rings and the leads, the
  // cause's the prices.
  const bareSql = async (): Promise<void> => {
    await shop.pool.query({
      name: "b1",
      text: "select s.id from session e join staff s on s.id = e.staff where e.id = $1",
      values: [sessionId],
    });
    await shop.pool.query({
      name: "b2",
      text: "select distinct on (key) key, value from house_setting order by key, seq desc",
    });
    await shop.pool.query({
      name: "b3",
      text: "select id, number, opened, book from job where number = $1",
      values: [job],
    });
    await shop.pool.query({
      name: "b4",
      text: "select id, at, by_name, body from fact where job = $1 order by seq",
      values: [id],
    });
    if (path === "/cause")
      await shop.pool.query({
        name: "b8",
        text: "select part, price_cents from shelf_part where price_cents is not null limit 90",
      });
    if (!path.startsWith("/choose/")) return;
    await shop.pool.query({ name: "b6", text: "select id, name, role from staff order by name" });
    await shop.pool.query({
      name: "b7",
      text: "select p.part, s.on_hand, s.piece from shelf_part p left join stock s on s.part = p.part limit 12",
    });
  };
  const empty = (): Promise<unknown> => ask(`${shop.url}/empty`, cookie);
  const [atPage, pageSql, page] = await inTurn(
    [empty, bareSql, () => ask(`${shop.url}/jobs/${job}${path}`, cookie)],
    runs,
  );
  const ofPage = { page: page / atPage, pageFloor: 1 + pageSql / atPage };
  if (path !== "" || runs !== RUNS) return { ...ofPage, list: 0, store: 0, storeFloor: 1 };
  const [atList, list] = await inTurn([empty, () => ask(`${shop.url}/`, cookie)], runs);
  const storeSql = async (): Promise<void> => {
    const fact = reading() as { id: string; body: unknown };
    await shop.pool.query({
      name: "b5",
      text: "insert into fact (id, job, kind, by_name, at, body) values ($1, $2, 'reading', 'Mira K.', now(), $3)",
      values: [fact.id, id, JSON.stringify(fact.body)],
    });
  };
  const store = (): Promise<unknown> =>
    ask(`${shop.url}/jobs/${job}/facts`, cookie, JSON.stringify([reading()]));
  const [atStore, bareStore, stored] = await inTurn([empty, storeSql, store], runs);
  return { ...ofPage, list: list / atList, store: stored / atStore, storeFloor: 1 + bareStore / atStore };
}

/** The gzip size of every script a page names, whether as module or as preload. */
async function scriptOf(shop: Shop, cookie: string, path: string): Promise<number> {
  const html = await ask(`${shop.url}${path}`, cookie);
  const files = new Set([...html.matchAll(/\/assets\/[\w.-]+\.js/g)].map(([file]) => file));
  return [...files].reduce((sum, file) => sum + gzipSync(readFileSync(`build/client${file}`)).length, 0);
}

/** More of one figure nobody takes; the first ones run a script that the browser has not made fast yet, here as on a bench. */
const READINGS = 12;
const FIRST = 3;
/** So many of one figure that what grows with them would show. */
const MANY_READINGS = 40;
const BETWEEN_MS = 250;
const SETTLES_MS = 2_500;

/**
 * From the Enter that stores a reading to the moment the new verdict stands in the page, and to the frame that shows it: the middle of all but the
 * first few of each figure.
 *
 * @param rate how many times slower the browser’s machine is made.
 * @param chains of whose figures nothing was read yet.
 * @param readings how many of each.
 */
async function keystroke(
  shop: Shop,
  rate: number,
  chains: readonly string[],
  readings: number,
): Promise<{ verdict: number; frame: number }> {
  const person = await Person.sitDown();
  try {
    await person.sitsAs(shop, "Mira K.", shop.url);
    const taken: { verdict: number; frame: number }[] = [];
    for (const chain of chains) {
      await person.slowed(1);
      await person.go(`${shop.url}/jobs/1030/choose/${chain}?show=found`);
      await person.until("return document.activeElement.id", (at) => at === "reading-value");
      await person.slowed(rate);
      await person.driver.executeScript(VERDICTS);
      // Nobody has a dial in hand as the page comes: what it still fetches is not what a reading waits for.
      await person.driver.sleep(SETTLES_MS);
      for (let i = 0; i < readings; i++) {
        // A hand takes longer than that for the next one.
        await person.driver.sleep(BETWEEN_MS);
        await person.keys(`1.${20 + (i % 7)}`, Key.ENTER);
        await person.until("return window.taken.length", (n) => n === i + 1);
      }
      taken.push(
        ...(
          await person.driver.executeScript<{ verdict: number; frame: number }[]>("return window.taken")
        ).slice(FIRST),
      );
    }
    return {
      verdict: median(taken.map((t) => t.verdict)),
      frame: median(taken.map((t) => t.frame)),
    };
  } finally {
    await person.leave();
  }
}

/** Notes in the page how long each verdict took from its Enter. */
const VERDICTS = `
  window.taken = [];
  // Of how many readings the verdict tells.
  const count = () => Number(/ of (\\d+) *count/.exec(document.querySelector('[data-verdict]')?.textContent ?? '')?.[1] ?? 0);
  document.addEventListener('keydown', (event) => {
    if (event.key !== 'Enter') return;
    const begun = performance.now();
    const counted = count();
    const seen = new MutationObserver(() => {
      if (count() === counted) return;
      const verdict = performance.now() - begun;
      seen.disconnect();
      requestAnimationFrame(() => window.taken.push({ verdict, frame: performance.now() - begun }));
    });
    seen.observe(document.querySelector('[aria-label="Verdict"]'), { subtree: true, childList: true, characterData: true, attributes: true });
  }, true);`;

/**
 * From a reading to the plan for the whole unit, as the page of choosing works it out in a browser: for the book whose unit has the most to choose.
 *
 * @param rate how many times slower the browser’s machine is made.
 */
async function planning(rate: number): Promise<number> {
  const built = await bundle({
    configFile: false,
    logLevel: "error",
    build: {
      write: false,
      lib: { entry: "core/testing/whole-unit.ts", formats: ["iife"], name: "WholeUnit" },
    },
  });
  const [made] = [built].flat();
  if (!made || !("output" in made)) throw new Error("the choice was not built");
  const document = readFileSync("demo/books/selwyn-sanderling.json", "utf8");
  const person = await Person.sitDown();
  try {
    await person.slowed(rate);
    return await person.driver.executeScript<number>(
      `${made.output[0].code}; return WholeUnit.answerTime(JSON.parse(arguments[0]), () => performance.now());`,
      document,
    );
  } finally {
    await person.leave();
  }
}

/** When the largest thing of a page is painted, in milliseconds from its asking. */
async function painted(shop: Shop, path: string, rate: number): Promise<number> {
  const person = await Person.sitDown();
  try {
    await person.sitsAs(shop, "Mira K.", shop.url);
    await person.slowed(rate);
    const times: number[] = [];
    for (let i = 0; i < 5; i++) {
      await person.go(`${shop.url}${path}`);
      await person.ready();
      times.push(
        await person.driver.executeAsyncScript<number>(`
          const done = arguments[0];
          new PerformanceObserver((list) => done(list.getEntries().at(-1).startTime))
            .observe({ type: 'largest-contentful-paint', buffered: true });`),
      );
    }
    return median(times);
  } finally {
    await person.leave();
  }
}

/** What a page costs the browser, on this machine and on one four times slower. */
async function browsing(cookie: string): Promise<void> {
  const script = {
    worksheet: await scriptOf(shop, cookie, "/jobs/1029/choose/h1-clearance"),
    empty: await scriptOf(shop, cookie, "/jobs/import"),
  };
  const kB = (bytes: number): string => `${(bytes / 1024).toFixed(0)} kB`;
  say(
    `script of the pack worksheet ${kB(script.worksheet)} gzip, ${kB(script.worksheet - script.empty)} over the simplest form’s ${kB(script.empty)} (aim ≤ 60)`,
  );
  for (const { rate, chains, readings, aim } of [
    { rate: 1, chains: ["d1-clearance", "d3-clearance"], readings: READINGS, aim: " (aim ≤ 1×)" },
    {
      rate: 4,
      chains: ["h1-clearance", "h2-clearance", "d2-clearance"],
      readings: READINGS,
      aim: " (aim ≤ 1×)",
    },
    { rate: 4, chains: ["input-end-play"], readings: MANY_READINGS, aim: "" },
  ]) {
    const key = await keystroke(shop, rate, chains, readings);
    say(
      `machine ${rate}× slower, the first ${readings} readings of a figure: from the key to the new verdict in the page ${(key.verdict / 16).toFixed(2)}× a frame of 16 ms${aim}, to the frame that shows it ${(key.frame / 16).toFixed(2)}×`,
    );
  }
  for (const rate of [1, 4])
    say(
      `machine ${rate}× slower: from a reading to the plan of all thirteen seats, proved, ${((await planning(rate)) / 16).toFixed(2)}× a frame (aim ≤ 1×)`,
    );
  const floor = await painted(shop, "/jobs/import", 4);
  const list = await painted(shop, "/", 4);
  const pack = await painted(shop, "/jobs/1029/choose/h1-clearance", 4);
  say(
    `largest paint, machine 4× slower: job list ${(list / floor).toFixed(2)}× the simplest form’s, pack page ${(pack / floor).toFixed(2)}× (${list.toFixed(0)} and ${pack.toFixed(0)} ms)`,
  );
}

/** Work on the largest book of the demo, and on one grown to 200 parts and 60 chains, as ratios to reading its JSON and to a frame. */
function books(): void {
  const largest = UNITS.map(documentOf).sort(
    (a, b) => JSON.stringify(b).length - JSON.stringify(a).length,
  )[0];
  if (!largest) return;
  const text = JSON.stringify(largest);
  const each = (work: () => unknown, times = 15): number => {
    const taken = Array.from({ length: times + 5 }, () => {
      const begun = performance.now();
      work();
      return performance.now() - begun;
    });
    return median(taken.slice(5));
  };
  const read = readBook(largest);
  if (!read.ok) throw new Error("the largest book is wrong");
  const { book } = read;
  const parse = each(() => JSON.parse(text) as unknown);
  const copies = <T extends { id: string }>(list: readonly T[], n: number): T[] =>
    Array.from({ length: n }, (_, i) => ({
      ...(list[i % list.length] as T),
      id: `${list[i % list.length]?.id}-${i}`,
    }));
  const grown = { ...book, parts: copies(book.parts, 200), chains: copies(book.chains, 60) };
  const version = Object.fromEntries(book.traits.map(({ id, values }) => [id, Object.keys(values)[0] ?? ""]));
  const applied = resolve(grown, version, ["full"]);
  const search = searcher(answers(applied, "mm"));
  const frame = (ms: number): string => `${(ms / 16).toFixed(2)}×`;
  say(
    `largest book (${book.unit.name}): the whole check ${(each(() => readBook(largest)) / parse).toFixed(0)}× reading its JSON, ` +
      `solving its ${book.ranges.length} ranges ${frame(each(() => solveRanges(book)))} a frame of 16 ms`,
  );
  say(
    `200 parts, 60 chains: resolving a version ${frame(each(() => resolve(grown, version, ["full"])))} a frame, ` +
      `making the find ${frame(each(() => searcher(answers(applied, "mm"))))}, one question ${frame(each(() => search("pump bolt torque")))} (aim ≤ 1×)`,
  );
}

/** A job as a long one is: 1 500 facts of every kind of the intake and the bench, 60 of them pictures. */
async function longJob(shop: Shop): Promise<number> {
  const { rows } = await shop.pool.query<{ id: string; book: string }>(
    "select id, book from job where number = 1030",
  );
  const job = newId();
  await shop.pool.query("insert into job (id, book) values ($1, $2)", [job, rows[0]?.book]);
  const { rows: made } = await shop.pool.query<{ number: number }>("select number from job where id = $1", [
    job,
  ]);
  const number = made[0]?.number ?? 0;
  await shop.pool.query("insert into job_card (job, number) values ($1, $2)", [job, number]);
  const picture = await sharp({ create: { width: 1600, height: 1200, channels: 3, background: "#876" } })
    .jpeg()
    .toBuffer();
  const small = await sharp(picture).resize(320).jpeg().toBuffer();
  const ranges = ["1", "2", "3", "4", "5", "6", "R"];
  const bodies: unknown[] = [
    { kind: "booking", vehicle: "Skerry 400", customer: "", words: "slips", odometer: "" },
    { kind: "configuration", traits: { body: "late" } },
    { kind: "scope", depths: ["full"] },
  ];
  for (let i = 0; bodies.length < LONG_JOB; i++) {
    const range = ranges[i % 7];
    if (i % 25 === 0 && i < 1500) {
      const id = newId();
      await shop.pool.query(
        "insert into photo (id, job, width, height, large, small) values ($1, $2, 1600, 1200, $3, $4)",
        [id, job, picture, small],
      );
      bodies.push({ kind: "photo", photo: id, caption: `photo ${i}`, of: "job" });
    } else if (i % 3 === 0) {
      bodies.push({
        kind: "answer",
        question: `range:${range}`,
        outcome: i % 2 ? "slips" : "fine",
        conditions: [],
        there: i % 5 > 1,
      });
    } else if (i % 3 === 1) {
      // As a long job has them: several runs on every pack, not one endless run.
      const chain = ["d1", "d2", "d3", "h1", "h2"][i % 5];
      bodies.push({ ...(reading() as { body: object }).body, chain: `${chain}-clearance` });
    } else bodies.push({ kind: "debris", where: "pan", what: "friction", amount: i % 2 ? "some" : "none" });
  }
  await shop.pool.query(
    `insert into fact (id, job, kind, by_name, at, body)
     select gen_random_uuid(), $1, b ->> 'kind', 'Mira K.', now(), b from jsonb_array_elements($2::jsonb) b`,
    [job, JSON.stringify(bodies)],
  );
  await shop.pool.query("analyze");
  return number;
}

const BENCH_PAGES = ["/teardown", "/bench", "/inspect", "/cause", "/measure"];

/** Facts of a long job: one that was built up, taken apart again and built once more. */
const LONG_JOB = 3_000;

/** The pages of a long job beside their floor, and what the browser does with it. */
async function longPages(shop: Shop, cookie: string): Promise<void> {
  const number = await longJob(shop);
  const ratios: string[] = [];
  for (const path of [
    "",
    "/symptoms",
    "/before",
    "/fault",
    "/photos",
    "/labels",
    "/choose/d1-clearance",
    ...BENCH_PAGES,
  ]) {
    const { page, pageFloor } = await server(shop, cookie, number, path, 100);
    ratios.push(`${path.slice(1) || "job"} ${(page / pageFloor).toFixed(2)}×`);
  }
  say(`a job of 3 000 facts and 60 photos, its pages beside their floor (aim ≤ 2×): ${ratios.join(", ")}`);
}

/** One diagnosis with all its next checks, and the making of one, beside a frame. */
function diagnosing(): void {
  for (const id of ["marram-dunlin", "corrie-godwit"] as const) {
    const book = bookOf(id);
    const told = book.ranges
      .slice(0, 6)
      .map((range, i) => ({ question: `range:${range.id}`, outcome: i % 2 ? "slips" : "fine" }));
    const each = (work: () => unknown): number =>
      median(
        Array.from({ length: 15 }, () => {
          const begun = performance.now();
          work();
          return performance.now() - begun;
        }),
      );
    const made = new Diagnostician(book);
    made.diagnose(told);
    say(
      `diagnosis of ${book.unit.name}, in a worker: made ${(each(() => new Diagnostician(book).diagnose(told)) / 16).toFixed(1)}× a frame of 16 ms, ` +
        `asked again ${(each(() => made.diagnose(told)) / 16).toFixed(1)}×`,
    );
  }
}

async function everything(cookie: string): Promise<void> {
  books();
  await browsing(cookie);
  await fill(shop, 200);
  const small = await server(shop, cookie, 1029);
  say("· filling the database up to 200 000 jobs …");
  await fill(shop, 200_000);
  const large = await server(shop, cookie, 1028);
  const times = (ratio: number): string => `${ratio.toFixed(2)}×`;
  for (const [words, { page, pageFloor, store, storeFloor }] of [
    ["200 jobs", small],
    ["200 000 jobs", large],
  ] as const) {
    say(
      `${words}: job page ${times(page / pageFloor)} its floor (aim ≤ 2×), storing a reading ${times(store / storeFloor)} its floor (aim ≤ 3×)`,
    );
  }
  const growth = (what: "page" | "list" | "store"): string => times(large[what] / small[what]);
  say(
    `growth from 200 to 200 000 jobs: job page ${growth("page")} (aim ≤ 1.5×), list ${growth("list")} (aim ≤ 1.2×), storing ${growth("store")}`,
  );
}

// `npm run bench -- choose`, `-- kits`, `-- long`, `-- shelf` or `-- browser` for one part alone; `-- referee` for small choices held against another solver.
const only = process.argv[2];
if (!only || only === "choose") await choose(say);
if (!only || only === "kits") await kits(say);
if (only === "referee") await referee(say);
if (only === "choose" || only === "referee" || only === "kits") process.exit(0);
const cluster = await startCluster("bench", { fresh: true });
process.env.TEST_DATABASE_URL = cluster.url;
if (!only || only === "shelf") {
  const filled = await testDatabase();
  await shelf(filled.url, say);
  await filled.drop();
}
if (only === "shelf") {
  await cluster.stop();
  process.exit(0);
}
build();
const shop = await openShop();
try {
  const cookie = await signIn(shop);
  if (!only || only === "long") await longPages(shop, cookie);
  if (!only || only === "long") diagnosing();
  if (only === "browser") await browsing(cookie);
  if (!only || only === "pages") await everything(cookie);
} finally {
  await shop.close();
  await cluster.stop();
}
process.exit(0);
