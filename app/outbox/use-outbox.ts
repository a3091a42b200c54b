import { startTransition, useEffect, useMemo, useState, useSyncExternalStore } from "react";
import { useScripted } from "~/look/use-scripted";
import type { Fact } from "~core/fact";
import { outbox, type OutboxState } from "./outbox";

/** What waits to be sent and what was sent. A reading that was said is told once nothing else is to be done: nobody waits for it but its verdict. */
export function useOutbox(): OutboxState {
  useEffect(() => outbox.start(), []);
  const [state, setState] = useState(outbox.now);
  useEffect(() => {
    const show = (): void => setState(outbox.now());
    // What was said between the first drawing and now.
    show();
    return afterVerdicts((isRead) => (isRead ? startTransition(show) : show()));
  }, []);
  // What takes over from the server’s page, be it long after the page stands, begins with what the server drew.
  return useScripted() ? state : outbox.onServer();
}

/** The same before anything else is drawn, right after the verdict: for what must not say that all is sent while something waits. */
export function useUnsent(): OutboxState {
  useEffect(() => outbox.start(), []);
  return useSyncExternalStore(afterVerdicts, outbox.now, outbox.onServer);
}

/** Who hears of what is said after the verdict on it, told whether nothing but readings was said. */
const later = new Set<(isRead: boolean) => void>();

/** Hears of all that is said: of a reading in a task of its own, so that its verdict is drawn first. */
function afterVerdicts(hear: (isRead: boolean) => void): () => void {
  later.add(hear);
  return () => later.delete(hear);
}

let heard = outbox.now();
outbox.subscribe(() => {
  const now = outbox.now();
  const isRead = isOnlyRead(heard, now);
  heard = now;
  const tell = (): void => later.forEach((hear) => hear(isRead));
  if (isRead) setTimeout(tell, 0);
  else tell();
});

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
  return useSyncExternalStore(
    outbox.subscribe,
    () => factsWith(of, outbox.now()),
    () => factsWith(of, outbox.onServer()),
  );
}

/** The same, asked for from within an event. */
export const factsNow = (of: Told): readonly Fact[] => factsWith(of, outbox.now());

/** Whether nothing but readings was said since; what is sent was said before. */
function isOnlyRead(before: OutboxState, { waiting }: OutboxState): boolean {
  const known = new Set(before.waiting.map(({ fact }) => fact));
  return waiting.every(({ fact }) => known.has(fact) || fact.body.kind === "reading");
}

/** Of each page with the outbox as it was asked last, so that all who ask have the very same list. */
const known = new WeakMap<Told, { state: OutboxState; facts: readonly Fact[] }>();

function factsWith(of: Told, state: OutboxState): readonly Fact[] {
  const before = known.get(of);
  if (before?.state === state) return before.facts;
  const { job, told, since } = of;
  const first = idsOf(told);
  const seen = new Set<string>();
  const isNew = ({ id }: Fact): boolean => !first.has(id) && !seen.has(id) && !!seen.add(id);
  const own = [...state.sent, ...state.waiting].flatMap((entry) => (entry.job === job ? [entry.fact] : []));
  const added = [...since, ...own].filter(isNew);
  const now = added.length === 0 ? told : [...told, ...added];
  // Acknowledged by the server, and told again by it, a fact is still the same.
  const facts = asBefore(now);
  known.set(of, { state, facts });
  return facts;
}

const ids = new WeakMap<readonly Fact[], ReadonlySet<string>>();
/** What the server told of a job with its page is thousands of facts, and the same at every reading. */
function idsOf(told: readonly Fact[]): ReadonlySet<string> {
  const before = ids.get(told) ?? new Set(told.map(({ id }) => id));
  ids.set(told, before);
  return before;
}

let last: readonly Fact[] = [];
/** The very list of before, where it has the same facts. */
const asBefore = (now: readonly Fact[]): readonly Fact[] => (last = sameFacts(last, now) ? last : now);
const sameFacts = (a: readonly Fact[], b: readonly Fact[]): boolean =>
  a.length === b.length && a.every(({ id }, i) => id === b[i]?.id);
