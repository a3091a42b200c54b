/** Pages of a job whose data are kept each by itself. */
export type JobPage =
  | "sheet"
  | "build"
  | "prove"
  | "comeback"
  | "customer"
  | "labels"
  | "cause"
  | "fault"
  | "book-in"
  | "choose"
  | "parts"
  | "stronger"
  | `choose/${string}`;

/** Everything that is kept on a machine for when the server is away, by its key. Nothing is kept under a key that is not here. */
export const KEPT = {
  inside: "inside",
  look: "look",
  before: "before",
  list: (search = "") => `list${search}` as const,
  job: (number: number | string) => `job/${number}` as const,
  page: (number: number | string, page: JobPage) => `job/${number}/${page}` as const,
  state: (number: number | string) => `state/${number}` as const,
  book: (digest: string) => `book/${digest}` as const,
  said: (number: number | string, fact: string) => `said/${number}/${fact}` as const,
} as const;

type Made<T> = T extends (...given: never[]) => infer R ? R : T;
export type KeptKey = Made<(typeof KEPT)[keyof typeof KEPT]>;

/** Facts are facts whichever build kept them; what pages are made from is that build's own. */
const OF_EVERY_BUILD = /^said\//;

/**
 * The build this page came from. What another build kept is not read: its pages were made from other data, and are fetched anew when the
 * server answers.
 */
const build = (): string =>
  (globalThis as { __reactRouterManifest?: { version?: string } }).__reactRouterManifest?.version ?? "dev";

/** A key as the browser's store has it. */
export const stamped = (key: string): string => (OF_EVERY_BUILD.test(key) ? key : `${build()}|${key}`);
/** The key within it, where it is of this build; null for another's. */
export function unstamped(stored: string): string | null {
  if (OF_EVERY_BUILD.test(stored)) return stored;
  const [of, ...key] = stored.split("|");
  return of === build() ? key.join("|") : null;
}
