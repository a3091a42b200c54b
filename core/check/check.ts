import type { Book } from "../book";
import { configurations, holding, type Configuration } from "../book";
import type { Condition } from "../shape";

export type Say = (path: string, message: string, remedy: string, warning?: true) => void;

/** One thing the trade would refuse in a book whose form is right. */
export interface Check {
  /** The sections it reads: when one of them has lost its form the check waits. */
  reads: readonly (keyof Book)[];
  check(book: Book, conditions: readonly Condition[], say: Say): void;
}

/**
 * The versions of a unit that some sections tell apart, each as what the book then says. Most sections look at one trait or none, so
 * that a unit of many versions is still looked at in a few.
 */
export function versions(
  book: Book,
  conditions: readonly Condition[],
  sections: readonly (keyof Book)[],
): { configuration: Configuration; unit: Book; words: string }[] {
  const told = new Set(
    conditions
      .filter(({ path }) => sections.some((section) => path.startsWith(section)))
      .flatMap(({ when }) => Object.keys(when)),
  );
  return configurations(book.traits, told).map((configuration) => {
    const words = [...told].map((trait) => `${trait} ${configuration[trait]}`).join(", ");
    return { configuration, unit: holding(book, configuration), words: words && ` (${words})` };
  });
}

/** Says each thing once, though several versions show it. */
export function once(say: Say): Say {
  const said = new Set<string>();
  return (path, message, remedy, warning) => {
    const key = `${path}\n${remedy}`;
    if (said.has(key)) return;
    said.add(key);
    say(path, message, remedy, warning);
  };
}
