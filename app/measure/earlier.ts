import { unitName } from "~core/book";
import { services } from "~/server/context";
import { contextOf, findJob } from "~/server/job-context";
import type { EarlierFigure } from "~core/fact";
import { leftWith } from "~core/measure";
import { readHouse } from "~store/house";
import { earlierVisits, type Visit } from "~store/jobs";
import type { Route } from "./+types/earlier";

/** What a job is asked about the unit’s earlier visits: which there may be, or what the unit left with at one of them. */
export type Earlier =
  | { visits: Visit[] }
  | { job: number; left: string; figures: EarlierFigure[] }
  | { problem: string };

export const loader = async ({ context, params, request }: Route.LoaderArgs): Promise<Response> => {
  const { pool } = context.get(services);
  const number = Number(params.number);
  const of = new URL(request.url).searchParams.get("of");
  const answer = (told: Earlier): Response =>
    Response.json(told, { headers: { "Cache-Control": "no-store" } });
  if (of === null) return answer({ visits: await earlierVisits(pool, number) });
  const [now, before, house] = await Promise.all([
    findJob(context, number),
    findJob(context, Number(of)),
    readHouse(pool),
  ]);
  if (!now || !before || before.number === now.number)
    return answer({ problem: `There is no other job ${of}. Look at the number on its build sheet.` });
  if (before.book.unit.id !== now.book.unit.id)
    return answer({
      problem: `Job ${of} was a ${unitName(before.book.unit)}: another kind of unit.`,
    });
  const { job, applied } = contextOf(before, house);
  const figures = leftWith(job, applied, house);
  return answer({ job: before.number, left: job.closed?.at ?? before.opened, figures });
};
