import { jobPage } from "~/view/job-page";
import { chainPage, chosenChains, unitPage } from "~/choose/chain-page";
import { services } from "~/server/context";
import { toolsOwned } from "~store/house-values";
import { jobRecord } from "~/server/job-context";
import { listStaff } from "~store/staff";
import type { Route } from "./+types/open-job";
import type { KeptJob } from "~/offline/keep-jobs";

/** Everything the pages of one job are made from. */
export const loader = async ({ context, params }: Route.LoaderArgs): Promise<Response> => {
  const { pool } = context.get(services);
  const record = await jobRecord(context, params.number);
  const staff = listStaff(pool);
  const pages = await Promise.all(
    chosenChains(record.book).map(
      async ({ id }) => [`choose/${id}`, await chainPage(pool, record, id, staff)] as const,
    ),
  );
  const whole: KeptJob = {
    job: jobPage(record),
    pages: {
      ...Object.fromEntries(pages.filter(([, data]) => data !== null)),
      choose: await unitPage(pool, record),
      "book-in": { owned: [...(await toolsOwned(pool, [record.book.unit.id]))] },
    },
  };
  return Response.json(whole, { headers: { "Cache-Control": "no-store" } });
};
