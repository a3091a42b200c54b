import { openDB, type IDBPDatabase, type IDBPObjectStore } from "idb";
import { isRouteErrorResponse } from "react-router";
import { factsOfPage } from "~/view/job-page";
import type { Fact } from "~core/fact";
import { KEPT, stamped, unstamped, type KeptKey } from "./keys";

const STORE = "page";
let database: Promise<IDBPDatabase> | null = null;

// Async, so that a browser that refuses by throwing at once refuses like any other.
const open = async (): Promise<IDBPDatabase> =>
  await (database ??= openDB("yard-key-kept", 1, {
    upgrade(db) {
      db.createObjectStore(STORE);
    },
    terminated: () => (database = null),
  }));

/** Keeps what a page was made from, for when the server is away. Not keeping is no failure: the page stands all the same. */
export const keep = (key: KeptKey, data: unknown): Promise<void> => keepAll([[key, data]]);

/** The same of several, in one go with the browser's store: one after another thousands of them take minutes. */
async function keepAll(entries: readonly (readonly [KeptKey, unknown])[]): Promise<void> {
  if (typeof indexedDB === "undefined") return;
  await inOne((store) => {
    for (const [key, data] of entries) void store.put?.(data, stamped(key));
  }).catch(() => {});
}

/** Does something with what is kept, all of it at once. */
async function inOne(
  work: (store: IDBPObjectStore<unknown, [typeof STORE], typeof STORE, "readwrite">) => void,
): Promise<void> {
  const taken = (await open()).transaction(STORE, "readwrite");
  work(taken.store);
  await taken.done;
}

export async function kept<T>(key: KeptKey): Promise<T | undefined> {
  if (typeof indexedDB === "undefined") return undefined;
  return open()
    .then((db) => db.get(STORE, stamped(key)) as Promise<T | undefined>)
    .catch(() => undefined);
}

/** Keeps facts the server has acknowledged: what was kept of their job may be from before. */
export const keepSaid = (those: readonly { job: number; fact: Fact }[]): Promise<void> =>
  keepAll(those.map(({ job, fact }) => [KEPT.said(job, fact.id), fact] as const));

/** A job's page with what was said on this machine since it was kept. */
export async function withSaid<T extends { number: number; facts: string }>(page: T): Promise<T> {
  const said = await keptFrom<Fact>(`said/${page.number}/`).catch(() => []);
  if (said.length === 0) return page;
  const facts = factsOfPage(page.facts);
  const known = new Set(facts.map(({ id }) => id));
  const later = said.filter(({ id }) => !known.has(id));
  return later.length === 0 ? page : { ...page, facts: JSON.stringify([...facts, ...later]) };
}

/** Everything whose key begins so. */
const beginning = (start: string): IDBKeyRange =>
  IDBKeyRange.bound(stamped(start), `${stamped(start)}\uffff`);

/** The keys of everything kept that begins so. */
export async function keptKeys(start: string): Promise<string[]> {
  const keys = await (await open()).getAllKeys(STORE, beginning(start));
  return keys.flatMap((key) => ofThisBuild(key) ?? []);
}

/** Everything kept whose key begins so. */
const keptFrom = async <T>(start: string): Promise<T[]> =>
  typeof indexedDB === "undefined" ? [] : ((await (await open()).getAll(STORE, beginning(start))) as T[]);

const ofThisBuild = (key: IDBValidKey): string | null => (typeof key === "string" ? unstamped(key) : null);

/** Lets go of what another build of the application has kept. */
export async function dropOlder(): Promise<void> {
  const db = await open();
  const older = (await db.getAllKeys(STORE)).filter((key) => ofThisBuild(key) === null);
  if (older.length === 0) return;
  await inOne((store) => {
    for (const key of older) void store.delete?.(key);
  });
}

export async function drop(keys: readonly string[]): Promise<void> {
  if (keys.length === 0) return;
  await inOne((store) => {
    for (const key of keys) void store.delete?.(stamped(key));
  });
}

/** Nothing of the shop stays on a machine somebody has signed out of; what waits to be sent does. */
export const dropAll = async (): Promise<void> => (await open()).clear(STORE);

/**
 * What the server tells, or what was kept of it when the server does not answer.
 *
 * @param otherwise what does when nothing was kept.
 */
export async function loadOrKept<T>(key: KeptKey, load: () => Promise<T>, otherwise?: () => T): Promise<T> {
  try {
    const data = await load();
    void keep(key, data);
    return data;
  } catch (error) {
    const answered = isRouteErrorResponse(error) || error instanceof Response;
    if (answered && error.status < 500) throw error;
    const found = await kept<T>(key);
    if (found !== undefined) return found;
    if (otherwise) return otherwise();
    throw error;
  }
}
