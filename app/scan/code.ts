/** What a label belongs to. */
export type Target =
  | { kind: "case"; job: number }
  | { kind: "place"; job: number; place: string }
  | { kind: "part"; job: number; part: string }
  | { kind: "sub"; job: number; sub: string };

const LETTERS = { place: "t", part: "p", sub: "b" } as const;

/** The code on a label: `YK-1030`, `YK-1030-t-tray-2`, `YK-1030-p-d1-piston`, `YK-1030-b-rear` of what is put together by itself. */
export function codeOf(target: Target): string {
  const start = `YK-${target.job}`;
  switch (target.kind) {
    case "case":
      return start;
    case "place":
      return `${start}-${LETTERS.place}-${target.place}`;
    case "part":
      return `${start}-${LETTERS.part}-${target.part}`;
    case "sub":
      return `${start}-${LETTERS.sub}-${target.sub}`;
  }
}

const CODE = /^YK-(\d{1,9})(?:-(t|p|b)-([a-z0-9-]{1,80}))?$/i;

/** What a code belongs to; null when it is none of ours. */
export function targetOf(code: string): Target | null {
  const match = CODE.exec(code.trim());
  if (!match) return null;
  const [, number, letter = "", given = ""] = match;
  const job = Number(number);
  const id = given.toLowerCase();
  switch (letter.toLowerCase()) {
    case LETTERS.place:
      return { kind: "place", job, place: id };
    case LETTERS.part:
      return { kind: "part", job, part: id };
    case LETTERS.sub:
      return { kind: "sub", job, sub: id };
    default:
      return { kind: "case", job };
  }
}

/** The code in what a scanner read: bare, or the address of a page that opens it, from whatever host it was printed. */
export function codeIn(read: string): string | null {
  const text = read.trim();
  const path = URL.canParse(text) ? new URL(text).pathname : text;
  const code = /(?:^|\/scan\/)(YK-[^/\s]+)$/i.exec(path)?.[1];
  return code && targetOf(code) ? code : null;
}
