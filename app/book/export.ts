import { services } from "~/server/context";
import { pictureDigests, withPictureData } from "~core/book";
import { bookById, revisionsOf } from "~store/books";
import { picturesAsData } from "~store/pictures";
import type { Route } from "./+types/export";

/** A revision as the one file it can be taken in from, its pictures in it. */
export const loader = async ({ context, params, request }: Route.LoaderArgs): Promise<Response> => {
  const { pool } = context.get(services);
  const revisions = await revisionsOf(pool, params.unit);
  const asked = Number(new URL(request.url).searchParams.get("revision") ?? revisions[0]?.revision);
  const revision = revisions.find((one) => one.revision === asked);
  if (!revision) throw new Response("There is no such book here.", { status: 404 });
  const { document } = await bookById(pool, revision.id);
  const whole = withPictureData(document, await picturesAsData(pool, pictureDigests(document)));
  return new Response(`${JSON.stringify(whole, null, 2)}\n`, {
    headers: {
      "Content-Type": "application/json",
      "Content-Disposition": `attachment; filename="${params.unit}-${revision.revision}.json"`,
    },
  });
};
