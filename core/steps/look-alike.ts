import type { Book, Configuration, Part } from "../book";
import type { OtherVersion } from "./counts";

/**
 * Versions whose part a builder may have in hand: those that the look-alikes of a part belong to and this configuration is not. Another version’s
 * part in a unit is an earlier builder’s mistake, or the unit is another than was thought.
 */
export const versionsOfLookAlikes = (
  book: Pick<Book, "parts">,
  { lookAlikes = [] }: Pick<Part, "lookAlikes">,
  configuration: Configuration,
): OtherVersion[] =>
  lookAlikes.flatMap(({ part: id }) =>
    Object.entries(book.parts.find((part) => part.id === id)?.when ?? {})
      .filter(([trait, values]) => !values.includes(configuration[trait] ?? ""))
      .flatMap(([trait, values]) => values.map((value): OtherVersion => ({ trait, value }))),
  );
