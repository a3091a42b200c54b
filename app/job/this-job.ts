import { createContext, type RouterContextProvider } from "react-router";
import { ground } from "~/server/context";
import { jobByNumber, type JobRecord } from "~store/jobs";

/** Jobs read for this request: the page and the pages within it ask for the same one. */
const read = createContext<Map<number, Promise<JobRecord | null>> | null>(null);

/** A job by its number, read once per request. */
export function thisJob(context: Readonly<RouterContextProvider>, number: number): Promise<JobRecord | null> {
  let known = context.get(read);
  if (!known) {
    known = new Map();
    context.set(read, known);
  }
  const found = known.get(number) ?? jobByNumber(context.get(ground).pool, number);
  known.set(number, found);
  return found;
}
