import pg from "pg";
import type { Queryable } from "./database";

/** A job's facts as JSON text up to a place in their order. */
export interface FactsText {
  text: string;
  seq: number;
}

/** Characters kept for a database: some hundred long jobs, thousands of usual ones. */
const MOST = 32_000_000;

/**
 * What this process has read of the jobs asked for last. Facts are only added and those of one job stored one after another, so what was
 * read stays true and only what came later has to be asked for.
 */
export class KeptTexts {
  private readonly byJob = new Map<string, FactsText>();
  private size = 0;

  constructor(private readonly most = MOST) {}

  get(job: string): FactsText | undefined {
    return this.byJob.get(job);
  }

  /** Keeps what was read of a job; those not asked for the longest give way. */
  keep(job: string, read: FactsText): void {
    this.forget(job);
    if (read.text.length > this.most) return;
    this.byJob.set(job, read);
    this.size += read.text.length;
    for (const oldest of this.byJob.keys()) {
      if (this.size <= this.most) return;
      this.forget(oldest);
    }
  }

  private forget(job: string): void {
    this.size -= this.byJob.get(job)?.text.length ?? 0;
    this.byJob.delete(job);
  }
}

const byPool = new WeakMap<object, KeptTexts>();

/** @returns what is kept of a pool's database; null for one connection: what its transaction sees may never be stored. */
export function keptOf(db: Queryable): KeptTexts | null {
  if (!(db instanceof pg.Pool)) return null;
  const kept = byPool.get(db) ?? new KeptTexts();
  byPool.set(db, kept);
  return kept;
}

/** Nothing that was read of a pool's database counts any more. */
export const forgetKept = (db: object): void => void byPool.delete(db);
