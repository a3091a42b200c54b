import { jobPage } from "~/view/job-page";
import { packPage, stockOfPacks } from "~/pack/pack-page";
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
  const packs = record.book.chains.filter(({ kind }) => kind === "pack clearance");
  const pages = await Promise.all(
    packs.map(async ({ id }) => [`pack/${id}`, await packPage(pool, record, id, staff)] as const),
  );
  const whole: KeptJob = {
    job: jobPage(record),
    pages: {
      ...Object.fromEntries(pages.filter(([, data]) => data !== null)),
      choose: { stock: await stockOfPacks(pool, record) },
      "book-in": { owned: [...(await toolsOwned(pool, [record.book.unit.id]))] },
    },
  };
  return Response.json(whole, { headers: { "Cache-Control": "no-store" } });
};
