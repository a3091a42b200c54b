import { createHash } from "node:crypto";
import type { PictureData, Problem } from "~core/book";
import type { Queryable } from "./database";
import { photoOf } from "./photos";

/** Larger than any that was brought to size. */
const MOST_BYTES = 4_000_000;
const JPEG = [0xff, 0xd8, 0xff];

/** Keeps a picture of a book by its digest; the same one again is kept once. */
export async function keepPicture(db: Queryable, bytes: Buffer): Promise<string> {
  const digest = digestOf(bytes);
  await db.query({
    name: "picture-keep",
    text: "insert into picture (digest, bytes) values ($1, $2) on conflict (digest) do nothing",
    values: [digest, bytes],
  });
  return digest;
}

/** Keeps a picture of a job for the book of its unit; null where the job has no such picture. */
export async function keepPhoto(
  db: Queryable,
  job: string,
  photo: string,
): Promise<{ digest: string; width: number; height: number } | null> {
  const found = await photoOf(db, job, photo);
  if (!found) return null;
  return { digest: await keepPicture(db, found.large), width: found.width, height: found.height };
}

const digestOf = (bytes: Buffer): string => createHash("sha256").update(bytes).digest("hex");

/** The bytes of a book’s picture; null where it is not here: it did not come with the book. */
export async function pictureBytes(db: Queryable, digest: string): Promise<Buffer | null> {
  const { rows } = await db.query<{ bytes: Buffer }>({
    name: "picture-bytes",
    text: "select bytes from picture where digest = $1",
    values: [digest],
  });
  return rows[0]?.bytes ?? null;
}

/** Pictures as a shared file carries them, by digest; those that are not here are left out. */
export async function picturesAsData(
  db: Queryable,
  digests: readonly string[],
): Promise<Map<string, string>> {
  if (digests.length === 0) return new Map();
  const { rows } = await db.query<{ digest: string; data: string }>({
    name: "pictures-as-data",
    text: "select digest, translate(encode(bytes, 'base64'), E'\\n', '') as data from picture where digest = any ($1)",
    values: [digests],
  });
  return new Map(rows.map(({ digest, data }) => [digest, data]));
}

/** What is wrong with pictures of a shared file: each must be a JPEG, of a size, and the very one that its digest says. */
export function wrongPictures(pictures: readonly PictureData[]): Problem[] {
  return pictures.flatMap(({ path, digest, data }): Problem[] => {
    const bytes = Buffer.from(data, "base64");
    const wrong = (message: string, remedy: string): Problem[] => [{ path: `${path}.data`, message, remedy }];
    if (JPEG.some((byte, i) => bytes[i] !== byte)) return wrong("is no JPEG", "share the book again");
    if (bytes.length > MOST_BYTES) return wrong("is over 4 MB", "take it in smaller");
    if (digestOf(bytes) !== digest)
      return wrong("is not the picture that its digest says", "share the book again");
    return [];
  });
}

/** Keeps the pictures that came with a shared file, after {@link wrongPictures} found nothing. */
export async function keepPictures(db: Queryable, pictures: readonly PictureData[]): Promise<void> {
  for (const { data } of pictures) await keepPicture(db, Buffer.from(data, "base64"));
}
