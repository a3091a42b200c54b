/** What a label belongs to. */
export type Target =
  | { kind: "case"; job: number }
  | { kind: "place"; job: number; place: string }
  | { kind: "part"; job: number; part: string };

/** The code on a label: `YK-1030`, `YK-1030-t-tray-2`, `YK-1030-p-d1-piston`. */
export function codeOf(target: Target): string {
  const start = `YK-${target.job}`;
  if (target.kind === "case") return start;
  return target.kind === "place" ? `${start}-t-${target.place}` : `${start}-p-${target.part}`;
}

const CODE = /^YK-(\d{1,9})(?:-(t|p)-([a-z0-9-]{1,80}))?$/i;

/** What a code belongs to; null when it is none of ours. */
export function targetOf(code: string): Target | null {
  const match = CODE.exec(code.trim());
  if (!match) return null;
  const [, number, sort, id = ""] = match;
  const job = Number(number);
  if (!sort) return { kind: "case", job };
  return sort.toLowerCase() === "t"
    ? { kind: "place", job, place: id.toLowerCase() }
    : { kind: "part", job, part: id.toLowerCase() };
}

/** The code in what a scanner read: bare, or the address of a page that opens it, from whatever host it was printed. */
export function codeIn(read: string): string | null {
  const text = read.trim();
  const path = URL.canParse(text) ? new URL(text).pathname : text;
  const code = /(?:^|\/scan\/)(YK-[^/\s]+)$/i.exec(path)?.[1];
  return code && targetOf(code) ? code : null;
}
