import type { Route } from "./+types/cover-of";
import { waysOf } from "./ways-of";

/** The ways to cover what a job needs, for its page. */
export const loader = async ({ context, params }: Route.LoaderArgs): Promise<Response> =>
  Response.json((await waysOf(context, params.number)).ways, { headers: { "Cache-Control": "no-store" } });
