import { asJpeg } from "./jpeg";
import { services } from "~/server/context";
import { otherJob } from "~/server/record";
import { UUID } from "~core/shape";
import { addPhoto, hasPhoto, photoBytes } from "~store/photos";
import { isOpen, jobIdByNumber } from "~store/jobs";
import type { Route } from "./+types/bytes";
import { MOST_PICTURE_BYTES, scaled, TOO_LARGE } from "./picture";

const refuse = (status: number, problem: string): Response => Response.json({ problem }, { status });

/** A picture of a job; it never changes, so a browser keeps it. */
export const loader = async ({ context, request, params }: Route.LoaderArgs): Promise<Response> => {
  const { pool } = context.get(services);
  const job = await jobIdByNumber(pool, Number(params.number));
  const size = new URL(request.url).searchParams.get("size") === "small" ? "small" : "large";
  const bytes = job && UUID.test(params.photo) ? await photoBytes(pool, job, params.photo, size) : null;
  if (!bytes) return new Response("There is no such picture.", { status: 404 });
  return asJpeg(bytes);
};

/** Takes a picture in as it came from the camera, under the id made there; sent twice it is kept once. */
export const action = async ({ context, request, params }: Route.ActionArgs): Promise<Response> => {
  const { pool } = context.get(services);
  if (!UUID.test(params.photo)) return refuse(400, "the picture has no proper id");
  const job = await jobIdByNumber(pool, Number(params.number));
  if (!job) return refuse(404, "there is no such job");
  const astray = otherJob(request, job);
  if (astray) return refuse(409, astray);
  if (Number(request.headers.get("content-length") ?? 0) > MOST_PICTURE_BYTES) return refuse(413, TOO_LARGE);
  if (await hasPhoto(pool, job, params.photo)) return Response.json({ stored: true });
  if (!(await isOpen(pool, job))) return refuse(409, "the job is closed");
  const picture = await scaled(new Uint8Array(await request.arrayBuffer()));
  if (!picture.ok) return refuse(415, picture.problem);
  const { width, height, large, small } = picture;
  const added = await addPhoto(pool, job, { id: params.photo, width, height, large, small });
  return added ? Response.json({ stored: true }) : refuse(409, "this picture belongs to another job");
};
