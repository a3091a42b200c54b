import { openDB, type IDBPDatabase } from "idb";
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
export async function keep(key: KeptKey, data: unknown): Promise<void> {
  if (typeof indexedDB === "undefined") return;
  await open()
    .then((db) => db.put(STORE, data, stamped(key)))
    .catch(() => {});
}

export async function kept<T>(key: KeptKey): Promise<T | undefined> {
  if (typeof indexedDB === "undefined") return undefined;
  return open()
    .then((db) => db.get(STORE, stamped(key)) as Promise<T | undefined>)
    .catch(() => undefined);
}

/** Keeps a fact the server has acknowledged: what was kept of its job may be from before. */
export const keepSaid = (job: number, fact: Fact): Promise<void> => keep(KEPT.said(job, fact.id), fact);

/** A job's page with what was said on this machine since it was kept. */
export async function withSaid<T extends { number: number; facts: string }>(page: T): Promise<T> {
  const keys = await keptKeys(`said/${page.number}/`).catch(() => []);
  if (keys.length === 0) return page;
  const facts = factsOfPage(page.facts);
  const known = new Set(facts.map(({ id }) => id));
  const said = await Promise.all(keys.map((key) => kept<Fact>(key as KeptKey)));
  const later = said.filter((fact): fact is Fact => fact !== undefined && !known.has(fact.id));
  return later.length === 0 ? page : { ...page, facts: JSON.stringify([...facts, ...later]) };
}

/** The keys of everything kept that begins so. */
export async function keptKeys(start: string): Promise<string[]> {
  const from = stamped(start);
  const keys = await (await open()).getAllKeys(STORE, IDBKeyRange.bound(from, `${from}\uffff`));
  return keys.flatMap((key) => ofThisBuild(key) ?? []);
}

const ofThisBuild = (key: IDBValidKey): string | null => (typeof key === "string" ? unstamped(key) : null);

/** Lets go of what another build of the application has kept. */
export async function dropOlder(): Promise<void> {
  const db = await open();
  const older = (await db.getAllKeys(STORE)).filter((key) => ofThisBuild(key) === null);
  await Promise.all(older.map((key) => db.delete(STORE, key)));
}

export async function drop(keys: readonly string[]): Promise<void> {
  const db = await open();
  await Promise.all(keys.map((key) => db.delete(STORE, stamped(key))));
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
