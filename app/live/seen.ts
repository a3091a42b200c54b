/** What this browser knows of the jobs it has open: their ids, and the last fact the shop had when it was last told. */
const known = new Map<number, { id: string; last: string | undefined }>();

/** What is said here stands behind this fact in the order. */
export const seenOf = (job: number): string | undefined => known.get(job)?.last;

/** The id of a job that was opened here: what is said of it carries that, since a number is given anew in another database. */
export const idOf = (job: number): string | undefined => known.get(job)?.id;

export function nowSeen(job: number, id: string, fact: string | undefined): void {
  known.set(job, { id, last: fact ?? known.get(job)?.last });
}
