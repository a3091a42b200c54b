import { ground } from "~/server/context";
import { upcastBook, difference, differenceText, holding, within } from "~core/book";
import { depthsOf, fold } from "~core/fact";
import { jobByNumber } from "~store/jobs";
import type { Route } from "./+types/changes";

/** What would change for a job with another version or depth: `?body=late&depth=full`, in the trade's words. */
export const loader = async ({ context, params, request }: Route.LoaderArgs): Promise<Response> => {
  const record = await jobByNumber(context.get(ground).pool, Number(params.number));
  if (!record) throw new Response("There is no job of this number.", { status: 404 });
  const { book, document, facts } = record;
  const job = fold(facts);
  const today = upcastBook(document);
  const search = new URL(request.url).searchParams;
  const version = { ...job.configuration };
  for (const { id, values } of book.traits) {
    const value = search.get(id);
    if (value !== null && value in values) version[id] = value;
  }
  const depths = depthsOf(book, job);
  const asked = search.getAll("depth").filter((one) => book.depths.includes(one));
  const before = within(holding(today, job.configuration), depths);
  const after = within(holding(today, version), asked.length > 0 ? asked : depths);
  return Response.json({ lines: difference(before, after, true).map(differenceText) });
};
