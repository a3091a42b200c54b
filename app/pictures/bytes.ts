import { asJpeg } from "~/photos/jpeg";
import { MOST_PICTURE_BYTES, scaled, TOO_LARGE } from "~/photos/picture";
import { services } from "~/server/context";
import { mustBe } from "~/server/session";
import { check, list, object, text } from "~core/shape";
import { keepPicture, keepPictures, pictureBytes, wrongPictures } from "~store/pictures";
import type { Route } from "./+types/bytes";

/** Under this name a picture is taken in: what it is called is made of what it is. */
const NEW = "new";
/** Under this one those of another shop’s book, as they are. */
const SHARED = "shared";
const shared = list(object({ path: text, digest: text, data: text }), 0);

/** A picture of a book; it is what its name says, for ever. */
export const loader = async ({ context, params }: Route.LoaderArgs): Promise<Response> => {
  const bytes = await pictureBytes(context.get(services).pool, params.digest);
  if (!bytes) return new Response("This picture did not come with its book.", { status: 404 });
  return asJpeg(bytes);
};

/** Takes a picture in for a book: upright, brought to size, without what else was written in it. */
export const action = async ({ context, request, params }: Route.ActionArgs): Promise<Response> => {
  mustBe(context, "lead", "owner");
  const refuse = (status: number, problem: string): Response => Response.json({ problem }, { status });
  const { pool } = context.get(services);
  if (params.digest === SHARED) {
    const { value, problems } = check(shared, await request.json().catch(() => null));
    const [wrong] = problems.length > 0 ? problems : wrongPictures(value);
    if (wrong) return refuse(400, `${wrong.path} ${wrong.message}`);
    await keepPictures(pool, value);
    return Response.json({});
  }
  if (params.digest !== NEW) return refuse(405, "a picture is never changed");
  if (Number(request.headers.get("content-length") ?? 0) > MOST_PICTURE_BYTES) return refuse(413, TOO_LARGE);
  const picture = await scaled(new Uint8Array(await request.arrayBuffer()));
  if (!picture.ok) return refuse(415, picture.problem);
  const { width, height, large } = picture;
  const digest = await keepPicture(pool, large);
  return Response.json({ digest, width, height });
};
