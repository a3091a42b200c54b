import { useMemo, useSyncExternalStore } from "react";

export type HalfTyped = Readonly<Record<string, string>>;
const NOTHING: HalfTyped = {};
const listening = new Set<() => void>();
const subscribe = (heard: () => void) => {
  listening.add(heard);
  return () => void listening.delete(heard);
};

/** @returns what was kept under a key; nothing where it cannot be read. */
export function readHalfTyped(text: string | null): HalfTyped {
  try {
    const kept: unknown = JSON.parse(text ?? "null");
    if (typeof kept !== "object" || kept === null || Array.isArray(kept)) return NOTHING;
    return Object.fromEntries(
      Object.entries(kept).filter((entry): entry is [string, string] => typeof entry[1] === "string"),
    );
  } catch {
    return NOTHING;
  }
}

/**
 * Fields of a sheet that is said as a whole only at its end: what was typed so far is kept on this machine, so that whoever is called away, or whose
 * tablet dies, goes on where they were.
 *
 * @returns what is typed, and how to keep another; an empty record throws it away.
 */
export function useHalfTyped(key: string): [HalfTyped, (typed: HalfTyped) => void] {
  const place = `yard-key half typed ${key}`;
  const text = useSyncExternalStore(
    subscribe,
    () => localStorage.getItem(place),
    () => null,
  );
  const typed = useMemo(() => readHalfTyped(text), [text]);
  const keep = (next: HalfTyped): void => {
    const some = Object.fromEntries(Object.entries(next).filter(([, value]) => value !== ""));
    if (Object.keys(some).length === 0) localStorage.removeItem(place);
    else localStorage.setItem(place, JSON.stringify(some));
    for (const heard of listening) heard();
  };
  return [typed, keep];
}
