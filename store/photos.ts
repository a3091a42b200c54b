import type { Queryable } from "./database";

export interface Picture {
  id: string;
  width: number;
  height: number;
  large: Buffer;
  small: Buffer;
}

/**
 * Keeps a picture of a job. The same id again leaves the first as it is: a picture sent twice is kept once.
 *
 * @returns false when the id is another job's.
 */
export async function addPhoto(db: Queryable, job: string, picture: Picture): Promise<boolean> {
  const { id, width, height, large, small } = picture;
  await db.query({
    name: "photo-add",
    text: `insert into photo (id, job, width, height, large, small) values ($1, $2, $3, $4, $5, $6)
           on conflict (id) do nothing`,
    values: [id, job, width, height, large, small],
  });
  return hasPhoto(db, job, id);
}

/** Whether a job has this picture already. */
export async function hasPhoto(db: Queryable, job: string, id: string): Promise<boolean> {
  const { rows } = await db.query<{ there: boolean }>({
    name: "photo-there",
    text: "select exists (select from photo where id = $1 and job = $2) as there",
    values: [id, job],
  });
  return rows[0]?.there ?? false;
}

/** One picture's bytes; null when the job has no such picture. */
export async function photoBytes(
  db: Queryable,
  job: string,
  id: string,
  size: "large" | "small",
): Promise<Buffer | null> {
  const { rows } = await db.query<{ bytes: Buffer }>({
    name: `photo-${size}`,
    text: `select ${size} as bytes from photo where id = $1 and job = $2`,
    values: [id, job],
  });
  return rows[0]?.bytes ?? null;
}

/** The pictures of a job, in the order they came. */
export async function photoIds(db: Queryable, job: string): Promise<string[]> {
  const { rows } = await db.query<{ id: string }>({
    name: "photo-ids",
    text: "select id from photo where job = $1 order by stored, id",
    values: [job],
  });
  return rows.map(({ id }) => id);
}

/** One picture of a job, whole; null when the job has no such picture. */
export async function photoOf(db: Queryable, job: string, id: string): Promise<Picture | null> {
  const { rows } = await db.query<Picture>({
    name: "photo-whole",
    text: "select id, width, height, large, small from photo where job = $1 and id = $2",
    values: [job, id],
  });
  return rows[0] ?? null;
}
