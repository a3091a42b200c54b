import "fake-indexeddb/auto";
import { readFileSync } from "node:fs";
import { setTimeout as pause } from "node:timers/promises";
import sharp from "sharp";
import { v7 as newId } from "uuid";
import { Outbox } from "../app/outbox/outbox";
import type { Fact, FactBody } from "../core/fact";
import { listJobs } from "../store/jobs";
import { BARE_CARD } from "../store/testing";
import type { Shop } from "./shop";

export interface Storm {
  benches: number;
  /** Facts each bench says, and more until enough was killed. */
  each: number;
  /** How many processes are killed before the weather clears; a few unless told otherwise. */
  kills?: number;
  /** Halfway through: loses the database's server for good and has another in its place. */
  promote?: () => Promise<void>;
  seed: number;
}

export interface Weather {
  said: number;
  pictures: number;
  /** Requests that left a bench, those that never arrived, and those whose answer was lost on the way back. */
  sent: number;
  cut: number;
  unanswered: number;
  /** Facts the server was sent more than once. */
  repeated: number;
  webKills: number;
  databaseKills: number;
  promotions: number;
  browserCrashes: number;
  /** Of all facts said: how many the database has exactly once, more than once, not at all. */
  once: number;
  doubled: number;
  lost: number;
  picturesLost: number;
  /** Facts the server acknowledged that are not there. */
  acknowledgedLost: number;
  /** Facts that lie before one the same bench said earlier. */
  outOfOrder: number;
  seconds: number;
}

/** A small generator with a fixed seed. */
function chance(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

interface Bench {
  name: string;
  job: number;
  cookie: string;
  box: Outbox;
  said: Fact[];
  random: () => number;
}

/**
 * Twenty benches say facts into their outboxes – the very code of the pages, over a store that is the browser's in all but speed – while web
 * processes and the database are killed, networks are cut, answers are lost and browsers crash. When the weather clears, the
 * database is held against what was said.
 */
export async function storm(
  shop: Shop,
  { benches: count, each, seed, kills = 4, promote }: Storm,
): Promise<Weather> {
  const begun = Date.now();
  const random = chance(seed);
  const weather: Weather = {
    said: 0,
    pictures: 0,
    sent: 0,
    cut: 0,
    unanswered: 0,
    repeated: 0,
    webKills: 0,
    databaseKills: 0,
    promotions: 0,
    browserCrashes: 0,
    once: 0,
    doubled: 0,
    lost: 0,
    picturesLost: 0,
    acknowledgedLost: 0,
    outOfOrder: 0,
    seconds: 0,
  };
  let calm = false;
  const acknowledged = new Set<string>();
  const times = new Map<string, number>();
  const picture = await sharp({ create: { width: 60, height: 40, channels: 3, background: "#765" } })
    .jpeg()
    .toBuffer();

  /** The network as a bench has it: sometimes cut, sometimes an answer is lost, sometimes a request goes out twice. */
  const network = (bench: Bench): typeof fetch =>
    (async (path: string, init: RequestInit) => {
      const web = shop.webs[Math.floor(bench.random() * shop.webs.length)];
      const luck = calm ? 1 : bench.random();
      weather.sent++;
      if (luck < 0.12) {
        weather.cut++;
        throw new TypeError("network cut");
      }
      const isFacts = path.endsWith("/facts");
      const ids = isFacts ? (JSON.parse(init.body as string) as Fact[]).map(({ id }) => id) : [];
      const go = (): Promise<Response> => {
        for (const id of ids) times.set(id, (times.get(id) ?? 0) + 1);
        const origin = web?.url ?? "";
        const headers = { ...(init.headers as Record<string, string>), Cookie: bench.cookie, Origin: origin };
        return fetch(`${origin}${path}`, { ...init, headers });
      };
      // The same at the same moment: two tabs, or a proxy that tries again.
      const [answer] = luck < 0.24 ? await Promise.all([go(), go().catch(() => null)]) : [await go()];
      if (luck < 0.34) {
        weather.unanswered++;
        throw new TypeError("answer lost");
      }
      if (answer.ok) for (const id of ids) acknowledged.add(id);
      return answer;
    }) as typeof fetch;

  const { rows } = await listJobs(shop.pool, { which: "open" }, "storm", () => BARE_CARD);
  const cookie = await signIn(shop.webs[0]?.url ?? "", shop);
  const benches = Array.from({ length: count }, (_, i): Bench => {
    const bench: Bench = {
      name: `storm-${seed}-${i}`,
      job: rows[i % rows.length]?.number ?? 0,
      cookie,
      said: [],
      random: chance(seed * 1000 + i),
      box: null as unknown as Outbox,
    };
    bench.box = new Outbox(bench.name, network(bench));
    return bench;
  });

  // A fast machine is through before the weather turns: until then more is said.
  const enough = (): boolean => weather.webKills + weather.databaseKills >= kills;
  const killer = (async () => {
    for (let n = 1; !calm; n++) {
      await pause(500 + random() * 1_200);
      if (promote && weather.promotions === 0 && 2 * n > kills) {
        weather.promotions++;
        await promote();
      } else if (n % 3 === 0) {
        weather.databaseKills++;
        await killDatabase(shop);
      } else {
        const web = shop.webs[Math.floor(random() * shop.webs.length)];
        weather.webKills++;
        await web?.kill();
        await pause(random() * 600);
        // It may not come up while the database is down; whoever keeps it tries again, as here.
        await web?.start().catch(() => {});
      }
    }
  })();

  const through = (said: number): boolean => said >= each && enough();
  await Promise.all(benches.map((bench) => work(bench, through, picture, weather, network)));
  calm = true;
  await killer;
  for (const web of shop.webs)
    while (!(await fetch(`${web.url}/healthz`).catch(() => null))?.ok)
      await web.start().catch(() => pause(500));
  // What is refused stays until somebody sets it aside: it is counted as lost below.
  const goesOut = (box: Outbox): boolean => box.now().waiting.some(({ refused }) => refused === undefined);
  for (const { box } of benches) while (goesOut(box)) await pause(100);

  const said = benches.flatMap((bench) => bench.said);
  const ids = said.map(({ id }) => id);
  const { rows: kept } = await shop.pool.query<{ id: string; n: number }>(
    "select id, count(*)::int as n from fact where id = any ($1::uuid[]) group by id",
    [ids],
  );
  const counts = new Map(kept.map(({ id, n }) => [id, n]));
  weather.said = said.length;
  weather.once = ids.filter((id) => counts.get(id) === 1).length;
  weather.doubled = ids.filter((id) => (counts.get(id) ?? 0) > 1).length;
  weather.lost = ids.filter((id) => !counts.has(id)).length;
  weather.acknowledgedLost = [...acknowledged].filter((id) => !counts.has(id)).length;
  weather.repeated = [...times.values()].filter((n) => n > 1).length;
  const pictures = said.flatMap(({ body }) => (body.kind === "photo" ? [body.photo] : []));
  const { rows: stored } = await shop.pool.query<{ id: string }>(
    "select id from photo where id = any ($1::uuid[])",
    [pictures],
  );
  weather.pictures = pictures.length;
  weather.picturesLost = pictures.length - stored.length;
  const { rows: order } = await shop.pool.query<{ id: string }>(
    "select id from fact where id = any ($1::uuid[]) order by seq",
    [ids],
  );
  const place = new Map(order.map(({ id }, i) => [id, i]));
  for (const bench of benches)
    bench.said.forEach(({ id }, i) => {
      const before = bench.said[i - 1];
      if (before && (place.get(id) ?? 0) < (place.get(before.id) ?? 0)) weather.outOfOrder++;
    });
  for (const { box } of benches) await box.stop();
  weather.seconds = Math.round((Date.now() - begun) / 1000);
  return weather;
}

async function work(
  bench: Bench,
  through: (said: number) => boolean,
  picture: Buffer,
  weather: Weather,
  network: (bench: Bench) => typeof fetch,
): Promise<void> {
  const { random } = bench;
  for (let n = 0; !through(n); n++) {
    const isPhoto = random() < 0.1;
    const body: FactBody = isPhoto
      ? { kind: "photo", photo: newId(), caption: "", of: "storm" }
      : // What any unit can have: a range of one is none of another's, and is refused.
        { kind: "fluid", look: "brown", smell: "old", note: `${n}, ${Math.floor(random() * 9_000)} ml` };
    const fact: Fact = { id: newId(), at: new Date().toISOString(), by: "Mira K.", body };
    bench.said.push(fact);
    await bench.box.say(
      bench.job,
      fact,
      isPhoto ? { picture: new Blob([new Uint8Array(picture)], { type: "image/jpeg" }) } : {},
    );
    await pause(random() * 350);
    if (random() < 0.06) {
      // The browser dies and is opened again: what waited is read from its store.
      weather.browserCrashes++;
      await bench.box.stop();
      bench.box = new Outbox(bench.name, network(bench));
      bench.box.start();
    }
  }
}

/** kill -9 of the whole database server; whoever keeps the cluster starts it again. */
export async function killDatabase(shop: Shop): Promise<void> {
  const asked = await shop.pool.query<{ data_directory: string }>("show data_directory").catch(() => null);
  const folder = asked?.rows[0]?.data_directory;
  if (!folder) return;
  try {
    process.kill(Number(readFileSync(`${folder}/postmaster.pid`, "utf8").split("\n")[0]), "SIGKILL");
  } catch {
    // It is down already.
  }
}

async function signIn(url: string, shop: Shop): Promise<string> {
  const { rows } = await shop.pool.query<{ id: string }>("select id from staff where name = 'Mira K.'");
  const answer = await fetch(`${url}/sign-in`, {
    method: "POST",
    redirect: "manual",
    headers: { Origin: url, "Content-Type": "application/x-www-form-urlencoded" },
    body: new URLSearchParams({ staff: rows[0]?.id ?? "", pin: "2580" }),
  });
  return answer.headers.get("set-cookie")?.split(";")[0] ?? "";
}

Object.assign(globalThis, { window: { addEventListener: () => {} } });
