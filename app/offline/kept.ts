import { openDB, type IDBPDatabase } from "idb";
import { isRouteErrorResponse } from "react-router";
import { factsOfPage } from "~/job/job-page";
import type { Fact } from "~core/fact";

const STORE = "page";
let database: Promise<IDBPDatabase> | null = null;

const open = (): Promise<IDBPDatabase> =>
  (database ??= openDB("yard-key-kept", 1, {
    upgrade(db) {
      db.createObjectStore(STORE);
    },
    terminated: () => (database = null),
  }));

/** Keeps what a page was made from, for when the server is away. Not keeping is no failure: the page stands all the same. */
export async function keep(key: string, data: unknown): Promise<void> {
  if (typeof indexedDB === "undefined") return;
  await open()
    .then((db) => db.put(STORE, data, key))
    .catch(() => {});
}

export async function kept<T>(key: string): Promise<T | undefined> {
  if (typeof indexedDB === "undefined") return undefined;
  return open()
    .then((db) => db.get(STORE, key) as Promise<T | undefined>)
    .catch(() => undefined);
}

/** Keeps a fact the server has acknowledged: what was kept of its job may be from before. */
export const keepSaid = (job: number, fact: Fact): Promise<void> => keep(`said/${job}/${fact.id}`, fact);

/** A job's page with what was said on this machine since it was kept. */
export async function withSaid<T extends { number: number; facts: string }>(page: T): Promise<T> {
  const keys = await keptKeys(`said/${page.number}/`).catch(() => []);
  if (keys.length === 0) return page;
  const facts = factsOfPage(page.facts);
  const known = new Set(facts.map(({ id }) => id));
  const said = await Promise.all(keys.map((key) => kept<Fact>(key)));
  const later = said.filter((fact): fact is Fact => fact !== undefined && !known.has(fact.id));
  return later.length === 0 ? page : { ...page, facts: JSON.stringify([...facts, ...later]) };
}

/** The keys of everything kept that begins so. */
export async function keptKeys(start: string): Promise<string[]> {
  const keys = await (await open()).getAllKeys(STORE, IDBKeyRange.bound(start, `${start}\uffff`));
  return keys.map(String);
}

export async function drop(keys: readonly string[]): Promise<void> {
  const db = await open();
  await Promise.all(keys.map((key) => db.delete(STORE, key)));
}

/** Nothing of the shop stays on a machine somebody has signed out of; what waits to be sent does. */
export const dropAll = async (): Promise<void> => (await open()).clear(STORE);

/**
 * What the server tells, or what was kept of it when the server does not answer.
 *
 * @param otherwise what does when nothing was kept.
 */
export async function orKept<T>(key: string, load: () => Promise<T>, otherwise?: () => T): Promise<T> {
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
