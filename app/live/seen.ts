/** The last fact of each job that the shop had when this browser was last told: what is said here stands behind it. */
const last = new Map<number, string>();

export const seenOf = (job: number): string | undefined => last.get(job);

export function nowSeen(job: number, fact: string | undefined): void {
  if (fact !== undefined) last.set(job, fact);
}
