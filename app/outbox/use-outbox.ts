import { useEffect, useMemo, useSyncExternalStore } from "react";
import type { Fact } from "~core/fact";
import { outbox, type OutboxState } from "./outbox";

export function useOutbox(): OutboxState {
  useEffect(() => outbox.start(), []);
  return useSyncExternalStore(outbox.subscribe, outbox.now, outbox.onServer);
}

/**
 * A job's facts as the server told them, with the page and since then, and after them those said here that it has not told yet. The same
 * array as long as nothing is added.
 */
export function useFacts(job: number, told: readonly Fact[], since: readonly Fact[]): readonly Fact[] {
  const { waiting, sent } = useOutbox();
  return useMemo(() => {
    const known = new Set(told.map(({ id }) => id));
    const add = (fact: Fact): Fact[] => (known.has(fact.id) ? [] : (known.add(fact.id), [fact]));
    const later = since.flatMap(add);
    const own = [...sent, ...waiting].filter((entry) => entry.job === job).flatMap(({ fact }) => add(fact));
    const now = later.length + own.length === 0 ? told : [...told, ...later, ...own];
    // Acknowledged by the server, and told again by it, a fact is still the same.
    return asBefore(now);
  }, [job, told, since, waiting, sent]);
}

let last: readonly Fact[] = [];
/** The very list of before, where it has the same facts. */
const asBefore = (now: readonly Fact[]): readonly Fact[] => (last = sameFacts(last, now) ? last : now);
const sameFacts = (a: readonly Fact[], b: readonly Fact[]): boolean =>
  a.length === b.length && a.every(({ id }, i) => id === b[i]?.id);
