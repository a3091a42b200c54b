import { services } from "~/server/context";
import { openJobStates } from "~store/jobs";
import type { Route } from "./+types/open-jobs";

/** The open jobs and a word for the state of each, so that a machine keeps anew only those that changed. */
export const loader = async ({ context }: Route.LoaderArgs): Promise<Response> =>
  Response.json(
    { jobs: await openJobStates(context.get(services).pool) },
    { headers: { "Cache-Control": "no-store" } },
  );
