import { useEffect, useSyncExternalStore } from "react";
import type { Fact } from "~core/job";
import { outbox, type OutboxState } from "./outbox";

export function useOutbox(): OutboxState {
  useEffect(() => outbox.start(), []);
  return useSyncExternalStore(outbox.subscribe, outbox.now, outbox.onServer);
}

/** A job's facts as the server told them, and after them those said here that it has not told yet. */
export function useFacts(job: number, told: readonly Fact[]): Fact[] {
  const { waiting, sent } = useOutbox();
  const known = new Set(told.map(({ id }) => id));
  const own = [...sent, ...waiting].filter((entry) => entry.job === job && !known.has(entry.fact.id));
  return [...told, ...own.map(({ fact }) => fact)];
}
