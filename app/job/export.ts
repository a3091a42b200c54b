import { Readable } from "node:stream";
import { createReadableStreamFromReadable } from "@react-router/node";
import { services } from "~/server/context";
import { jobDocument, type JobDocument } from "~core/fact";
import { jobRecord } from "~/server/job-context";
import { pictureDigests, withPictureData } from "~core/book";
import { picturesAsData } from "~store/pictures";
import type { Pool } from "~store/database";
import { photoOf, photoIds } from "~store/photos";
import type { Route } from "./+types/export";

/** The whole job as `yard-key/job@1` (docs/formats.md), written as it is read: a picture at a time, however many there are. */
export const loader = async ({ context, params }: Route.LoaderArgs): Promise<Response> => {
  const { pool } = context.get(services);
  const { id, number, opened, document, facts } = await jobRecord(context, params.number);
  const book = withPictureData(document, await picturesAsData(pool, pictureDigests(document)));
  const whole = jobDocument({ id, number, opened, book, facts });
  const text = Readable.from(written(whole, pool), { objectMode: false });
  return new Response(createReadableStreamFromReadable(text), {
    headers: {
      "Content-Type": "application/json",
      "Content-Disposition": `attachment; filename="job-${number}.json"`,
    },
  });
};

async function* written(whole: JobDocument, pool: Pool): AsyncGenerator<string> {
  const ids = await photoIds(pool, whole.id);
  const text = JSON.stringify(whole);
  if (ids.length === 0) {
    yield text;
    return;
  }
  // Before the bracket that closes the document.
  yield text.slice(0, -1);
  yield `,"pictures":[`;
  let between = "";
  for (const id of ids) {
    const picture = await photoOf(pool, whole.id, id);
    if (!picture) continue;
    const { large, small, ...rest } = picture;
    const packed = { ...rest, large: large.toString("base64"), small: small.toString("base64") };
    yield `${between}\n${JSON.stringify(packed)}`;
    between = ",";
  }
  yield "]}";
}
