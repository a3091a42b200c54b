/**
 * Values that facts keep are codes: lower-case words with dashes, which never change. What people read stands beside them, in one table, and
 * may be worded anew at any time.
 */
export interface Codes<C extends string = string> {
  readonly codes: readonly C[];
  readonly words: Readonly<Record<C, string>>;
}

/**
 * A table of stable codes with their words.
 *
 * @param words what is shown for each code; the code is what is stored.
 */
export const codes = <const W extends Readonly<Record<string, string>>>(
  words: W,
): Codes<keyof W & string> => ({ codes: Object.keys(words), words });
/** Every code with its words, in their order. */
export const wordsOf = <C extends string>({
  codes: all,
  words,
}: Codes<C>): readonly (readonly [C, string])[] => all.map((code) => [code, words[code]] as const);
/** A code of a table made by `codes`. */
export type CodeOf<T> = T extends Codes<infer C> ? C : never;
