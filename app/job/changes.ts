import { ground } from "~/server/context";
import { difference, differenceText, holding, within } from "~core/book";
import { depthOf, fold } from "~core/job";
import { jobByNumber } from "~store/jobs";
import type { Route } from "./+types/changes";

/** What would change for a job with another version or depth: `?body=late&depth=full`, in the trade's words. */
export const loader = async ({ context, params, request }: Route.LoaderArgs): Promise<Response> => {
  const record = await jobByNumber(context.get(ground).pool, Number(params.number));
  if (!record) throw new Response("There is no job of this number.", { status: 404 });
  const { book, document, facts } = record;
  const job = fold(facts);
  const search = new URL(request.url).searchParams;
  const asked = { ...job.configuration };
  for (const { id, values } of book.traits) {
    const value = search.get(id);
    if (value !== null && value in values) asked[id] = value;
  }
  const depth = depthOf(book, job);
  const wanted = search.get("depth") ?? depth;
  const before = within(holding(document, job.configuration), depth);
  const after = within(holding(document, asked), book.depths.includes(wanted) ? wanted : depth);
  return Response.json({ lines: difference(before, after, true).map(differenceText) });
};
