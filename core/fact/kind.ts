import type { Book } from "../book";
import { oneOf, type Problem, type Shape } from "../shape";
import type { Codes } from "./codes";

/** What somebody of the shop may do; a lead answers for other people’s work. */
export const ROLES = ["builder", "parts", "lead", "owner"] as const;
/** What somebody is in the shop. */
export type Role = (typeof ROLES)[number];
/** Roles that answer for others: whoever signs, closes and decides. */
export const LEADS: readonly Role[] = ["lead", "owner"];

/** Says in words what is meant by an id of the book. */
export type NameOf = (id: string) => string;

/** One kind of fact, declared: everything else about it is derived from here. */
export interface Kind<N extends string = string, B = unknown> {
  readonly name: N;
  /** Its fields, without `kind` itself. */
  readonly shape: Shape<B>;
  /** What it is for, for docs/formats.md. */
  readonly means: string;
  /**
   * What it is about: of several facts of the kind about the same thing the last word holds. Null where each stands for itself, as readings do.
   */
  readonly about: ((body: B) => string | readonly string[]) | null;
  /** Who may say it; absent for everybody who is signed in. */
  readonly who?: readonly Role[];
  /** Whether it may come from the bench as it is. What has a door of its own is checked there. */
  readonly bench: boolean | ((body: B) => boolean);
  /** Whether lists of jobs are made from it: from everything that can change what a job waits for. */
  readonly onCard: boolean;
  /** The sentence that describes it, short. */
  readonly sentence: (body: B, nameOf: NameOf) => string;
  /** What its shape cannot say: held against the book of the job. */
  readonly against?: (body: B, book: Book) => Omit<Problem, "warning">[];
}

/** What a declaration says besides its shape; the usual is left out. */
type Rest<B> = Pick<Kind<string, B>, "means" | "about" | "sentence"> &
  Partial<Pick<Kind<string, B>, "who" | "bench" | "onCard" | "against">>;

/**
 * Declares a kind of fact.
 *
 * @param name as stored.
 * @param shape its fields.
 * @param rest what it means, what it is about, who may say it, its sentence.
 */
export const kind = <const N extends string, B>(name: N, shape: Shape<B>, rest: Rest<B>): Kind<N, B> => ({
  bench: true,
  onCard: true,
  ...rest,
  name,
  shape,
});

/** The value is one of these codes. */
export const coded = <C extends string>({ codes }: Codes<C>): Shape<C> => oneOf(...codes);
