import { randomBytes } from "node:crypto";
import { USUAL_MARGINS, type Margins } from "~core/capacity";
import { USUAL_SCHOOLS, type Schools } from "~core/inspect";
import type { House } from "~core/measure";
import type { ChooseFirst } from "~core/select";
import type { Queryable } from "./database";

/** Everything a house can set, with what holds until it does. */
export interface HouseSettings extends House, Schools {
  /** What comes first in choosing pieces once all that can be is inside and as sure as can be. */
  chooseFirst: ChooseFirst;
  /** How many times what it must carry an element should hold, by what the unit is used for. */
  margins: Margins;
  shopName: string;
  /** Whose clock moments are shown by: `Europe/Oslo`. */
  timeZone: string;
  /** What an hour of work is charged at, and what a comeback costs the shop, in cents. */
  hourCents: number;
  comebackCents: number;
  /** KeyboardEvent.key that a foot switch sends. */
  footKey: string;
  /** After so many minutes without a hand on it a bench asks who is there; 0: never. */
  lockMinutes: number;
  /** How many copies are kept. */
  copiesKept: number;
  /** The last copy that was made by itself; null while there is none. */
  copy: { at: string; bytes: number } | null;
  /** Why the last try to make one failed; empty where it did not. */
  copyProblem: string;
  /** Another one after a copy was put back: what browsers kept of the shop before is not of this one. */
  generation: string;
  /** Shown on the sign-in page of a demo shop: the code everyone has there. */
  demoPin: string | null;
}

export const DEFAULTS: HouseSettings = {
  rule: "proven",
  target: "middle",
  chooseFirst: "ready",
  margins: USUAL_MARGINS,
  ...USUAL_SCHOOLS,
  hourCents: 9_000,
  comebackCents: 120_000,
  shopName: "",
  // Where the shop’s server stands, until somebody says otherwise.
  timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  footKey: "F8",
  lockMinutes: 30,
  copiesKept: 14,
  copy: null,
  copyProblem: "",
  generation: "",
  demoPin: null,
};

export async function readHouse(db: Queryable): Promise<HouseSettings> {
  const { rows } = await db.query<{ key: string; value: unknown }>({
    name: "house-read",
    text: "select distinct on (key) key, value from house_setting where key <> 'cookie-key' order by key, seq desc",
  });
  return {
    ...DEFAULTS,
    ...(Object.fromEntries(rows.map(({ key, value }) => [key, value])) as Partial<HouseSettings>),
  };
}

/** Adds the settings that differ from what holds. */
export async function setHouse(db: Queryable, changes: Partial<HouseSettings>, by: string): Promise<void> {
  const entries = Object.entries(changes);
  await db.query(
    `insert into house_setting (key, value, by)
     select k, v, $3 from unnest($1::text[], $2::jsonb[]) as c (k, v)
      where v is distinct from (select value from house_setting h where h.key = k order by seq desc limit 1)`,
    [entries.map(([key]) => key), entries.map(([, value]) => JSON.stringify(value)), by],
  );
}

/** The key that signs cookies, the same for every web process; made by whichever comes first. */
export async function cookieKey(db: Queryable): Promise<string> {
  await db.query(
    `insert into house_setting (key, value, by)
     select 'cookie-key', to_jsonb($1::text), 'Yard Key' where not exists (select from house_setting where key = 'cookie-key')`,
    [randomBytes(32).toString("base64")],
  );
  // Two processes may both have inserted: the oldest row is the one that both read.
  const { rows } = await db.query<{ key: string }>(
    "select value #>> '{}' as key from house_setting where key = 'cookie-key' order by seq limit 1",
  );
  const key = rows[0]?.key;
  if (!key) throw new Error("no cookie key in house_setting");
  return key;
}
