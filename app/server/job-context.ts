import { createContext, type RouterContextProvider } from "react-router";
import type { Applied } from "~core/book";
import { factsOfPage, jobOfPage } from "~/view/job-page";
import { jobWithBook, type Fact, type Job } from "~core/fact";
import { readHouse, type HouseSettings } from "~store/house";
import { jobByNumber, type JobRecord } from "~store/jobs";
import { services } from "./context";

/**
 * A job as loaders and actions see it: what is kept, what it says now, what applies to it, and how the house judges. What it says and what
 * applies are made when they are first asked for.
 */
export interface JobContext {
  readonly record: JobRecord;
  readonly job: Job;
  readonly applied: Applied;
  readonly house: HouseSettings;
}

type Context = Readonly<RouterContextProvider>;

/** Jobs read for this request: the page and the pages within it ask for the same one. */
const read = createContext<Map<number, Promise<JobRecord | null>> | null>(null);

/** What is kept of a job, read once per request; null when there is no such job. */
export function findJob(context: Context, number: number): Promise<JobRecord | null> {
  let known = context.get(read);
  if (!known) {
    known = new Map();
    context.set(read, known);
  }
  const found = known.get(number) ?? jobByNumber(context.get(services).pool, number);
  known.set(number, found);
  return found;
}

/** What was read is not what is there any more: a form without script shows its page in the same request that kept what it said. */
export const readAnew = (context: Context): void => context.set(read, null);

/**
 * What is kept of a job.
 *
 * @throws a 404 response when there is no job of this number.
 */
export async function jobRecord(context: Context, number: string | number): Promise<JobRecord> {
  const record = await findJob(context, Number(number));
  if (!record) throw new Response("There is no job of this number.", { status: 404 });
  return record;
}

/**
 * The door through which a job is read.
 *
 * @throws a 404 response when there is no job of this number.
 */
export async function jobContext(context: Context, number: string | number): Promise<JobContext> {
  const [record, house] = await Promise.all([
    jobRecord(context, number),
    readHouse(context.get(services).pool),
  ]);
  return contextOf(record, house);
}

/** What a record says, made when it is asked for. */
export function contextOf(record: JobRecord, house: HouseSettings): JobContext {
  let made: { job: Job; applied: Applied } | undefined;
  const make = (): { job: Job; applied: Applied } =>
    (made ??= jobWithBook(record.book, jobOfPage(factsOfPage(record.factsText)), record.houseValues));
  return {
    record,
    house,
    get job() {
      return make().job;
    },
    get applied() {
      return make().applied;
    },
  };
}

/** The last fact of a job that whoever reads it now has seen. */
export const lastSeen = (facts: readonly Fact[]): Pick<Fact, "after"> => {
  const after = facts.at(-1)?.id;
  return after === undefined ? {} : { after };
};
