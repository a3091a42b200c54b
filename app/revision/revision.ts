import { services } from "~/server/context";
import { UUID } from "~core/shape";
import { bookById, NoSuchBook } from "~store/books";
import { refOf, textOf } from "./text";
import type { Route } from "./+types/revision";

const FOR_EVER = "private, max-age=31536000, immutable";

/** One revision, whole: it never changes, so that a browser asks once. */
export const loader = async ({ context, params }: Route.LoaderArgs): Promise<Response> => {
  const none = new Response("There is no such book here.", { status: 404 });
  if (!UUID.test(params.id)) throw none;
  const { book } = await bookById(context.get(services).pool, params.id).catch((error: unknown) => {
    throw error instanceof NoSuchBook ? none : error;
  });
  if (refOf(params.id, book).digest !== params.digest) throw none;
  return new Response(textOf(params.id, book), {
    headers: { "Content-Type": "application/json", "Cache-Control": FOR_EVER },
  });
};
