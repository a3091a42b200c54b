import { startTransition, useEffect, useMemo, useState, useSyncExternalStore } from "react";
import { useScripted } from "~/look/use-scripted";
import type { Fact } from "~core/fact";
import { outbox, type OutboxState, type Waiting } from "./outbox";

/** What waits to be sent and what was sent. A reading that was said is told once nothing else is to be done: nobody waits for it but its verdict. */
export function useOutbox(): OutboxState {
  useEffect(() => outbox.start(), []);
  const [state, setState] = useState(outbox.now);
  useEffect(() => {
    let shown = outbox.onServer();
    const hear = (): void => {
      const now = outbox.now();
      const isCalm = isOnlyRead(shown, now);
      shown = now;
      if (isCalm) startTransition(() => setState(now));
      else setState(now);
    };
    // What was said between the first drawing and now.
    hear();
    return outbox.subscribe(hear);
  }, []);
  // What takes over from the server’s page, be it long after the page stands, begins with what the server drew.
  return useScripted() ? state : outbox.onServer();
}

/** The same at once, readings too: for what must not say that all is sent while something waits. */
export function useOutboxNow(): OutboxState {
  useEffect(() => outbox.start(), []);
  return useSyncExternalStore(outbox.subscribe, outbox.now, outbox.onServer);
}

/** Where a job's facts come from: the server told them with the page and since then. */
export interface Told {
  job: number;
  told: readonly Fact[];
  since: readonly Fact[];
}

/** A job's facts as the server told them, and after them those said here that it has not told yet. The same array as long as nothing is added. */
export function useFacts(of: Told): readonly Fact[] {
  const state = useOutbox();
  return useMemo(() => factsWith(of, state), [of, state]);
}

/** The same, at once: for the verdict on a reading. */
export function useFactsNow(of: Told): readonly Fact[] {
  const state = useOutboxNow();
  return useMemo(() => factsWith(of, state), [of, state]);
}

/** The same, asked for from within an event. */
export const factsNow = (of: Told): readonly Fact[] => factsWith(of, outbox.now());

const saidIn = ({ sent, waiting }: OutboxState): Waiting[] => [...sent, ...waiting];

/** Whether nothing but readings was said since. */
function isOnlyRead(before: OutboxState, now: OutboxState): boolean {
  const known = new Set(saidIn(before).map(({ fact }) => fact.id));
  return saidIn(now).every(({ fact: { id, body } }) => known.has(id) || body.kind === "reading");
}

/** Of each state of the outbox, so that all who ask have the very same list. */
const known = new WeakMap<OutboxState, { of: Told; facts: readonly Fact[] }>();

function factsWith(of: Told, state: OutboxState): readonly Fact[] {
  const before = known.get(state);
  if (before?.of === of) return before.facts;
  const { job, told, since } = of;
  const seen = new Set(told.map(({ id }) => id));
  const add = (fact: Fact): Fact[] => (seen.has(fact.id) ? [] : (seen.add(fact.id), [fact]));
  const later = since.flatMap(add);
  const own = saidIn(state)
    .filter((entry) => entry.job === job)
    .flatMap(({ fact }) => add(fact));
  const now = later.length + own.length === 0 ? told : [...told, ...later, ...own];
  // Acknowledged by the server, and told again by it, a fact is still the same.
  const facts = asBefore(now);
  known.set(state, { of, facts });
  return facts;
}

let last: readonly Fact[] = [];
/** The very list of before, where it has the same facts. */
const asBefore = (now: readonly Fact[]): readonly Fact[] => (last = sameFacts(last, now) ? last : now);
const sameFacts = (a: readonly Fact[], b: readonly Fact[]): boolean =>
  a.length === b.length && a.every(({ id }, i) => id === b[i]?.id);
