import { createContext, use } from "react";
import { useOutletContext } from "react-router";
import { versionSearch } from "~/book/version-search";
import { factsNow, useFactsNow, type Told } from "~/outbox/use-outbox";
import type { Applied, Book, UnitSystem } from "~core/book";
import type { Fact, Job } from "~core/fact";
import type { Worksheet } from "~core/measure";
import type { HouseSettings } from "~store/house";

/** A job as the pages within it see it: the server's facts and those still waiting here, folded and resolved. */
export interface JobView {
  number: number;
  opened: string;
  book: Book;
  job: Job;
  depths: readonly string[];
  applied: Applied;
  /** Of every figure that something is chosen for, packs first. */
  sheets: Worksheet[];
  unit: UnitSystem;
  /** What the shop has chosen. */
  house: HouseSettings;
}

/** What of a job stays as it is while facts come: who asks for no more is not drawn again with each of them. */
export type JobAt = Pick<JobView, "number" | "book" | "unit">;
export const JobAtContext = createContext<JobAt | null>(null);
export function useJobAt(): JobAt {
  const at = use(JobAtContext);
  if (!at) throw new Error("there is no job here");
  return at;
}

/** The job with what was said a moment ago, before the page is drawn with it: for what a hand waits for. */
export function useJobNow(): JobView {
  const now = useNow();
  return now.viewOf(useFactsNow(now.from));
}

/** Asks for the same from within an event: where what a key means depends on what the key before it said, the page may not be drawn with that yet. */
export function useJobAsked(): () => JobView {
  const now = useNow();
  return () => now.viewOf(factsNow(now.from));
}

function useNow(): JobNow {
  const now = use(JobNowContext);
  if (!now) throw new Error("there is no job here");
  return now;
}
interface JobNow {
  from: Told;
  viewOf: (facts: readonly Fact[]) => JobView;
}
export const JobNowContext = createContext<JobNow | null>(null);

export const useJobView = (): JobView => useOutletContext<JobView>();

/** The book's page for this very unit: its revision, its version, its depth. */
export const bookAt = ({ book, job, depths }: JobView, page: string): string =>
  bookPage(book, versionSearch(book, job.configuration, depths).toString(), page);

export const bookPage = (book: Book, search: string, page: string): string =>
  `/books/${book.unit.id}${page && `/${page}`}?${search}`;
