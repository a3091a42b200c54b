import { services } from "~/server/context";
import { contextOf } from "~/server/job-context";
import { figuresLeft } from "~core/measure";
import { readHouse } from "~store/house";
import { leftOf } from "~store/left";
import type { Route } from "./+types/left";

/** What this shop’s last units of a kind came with and left with. */
export const loader = async ({ context, params }: Route.LoaderArgs): Promise<Response> => {
  const { pool } = context.get(services);
  const house = await readHouse(pool);
  const figures = await leftOf(pool, params.unit, (record) => {
    const { job, applied } = contextOf(record, house);
    return figuresLeft(job, applied, house);
  });
  return Response.json(figures.flat(), { headers: { "Cache-Control": "no-store" } });
};
