import { jobContext } from "~/server/job-context";
import { upcastBook, difference, differenceText, holding, within } from "~core/book";
import { depthsOf } from "~core/fact";
import type { Route } from "./+types/changes";

/** What would change for a job with another version or depth: `?body=late&depth=full`, in the trade's words. */
export const loader = async ({ context, params, request }: Route.LoaderArgs): Promise<Response> => {
  const {
    record: { book, document },
    job,
  } = await jobContext(context, params.number);
  const today = upcastBook(document);
  const search = new URL(request.url).searchParams;
  const version = { ...job.configuration };
  for (const { id, values } of book.traits) {
    const value = search.get(id);
    if (value !== null && Object.hasOwn(values, value)) version[id] = value;
  }
  const depths = depthsOf(book, job);
  const asked = search.getAll("depth").filter((one) => book.depths.includes(one));
  const before = within(holding(today, job.configuration), depths);
  const after = within(holding(today, version), asked.length > 0 ? asked : depths);
  return Response.json({ lines: difference(before, after, true).map(differenceText) });
};
