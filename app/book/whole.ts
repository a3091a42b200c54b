import { ground } from "~/server/context";
import { bookById, revisionsOf } from "~store/books";
import type { Route } from "./+types/whole";

/** A whole revision, for whoever has only the part of it that the bench needs. */
export const loader = async ({ context, params }: Route.LoaderArgs): Promise<Response> => {
  const { pool } = context.get(ground);
  const revision = (await revisionsOf(pool, params.unit)).find(
    (one) => `${one.revision}` === params.revision,
  );
  if (!revision) throw new Response("There is no such book here.", { status: 404 });
  return Response.json({ book: (await bookById(pool, revision.id)).book });
};
