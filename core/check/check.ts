import type { Book } from "../book";
import { configurations, inVersion, type Configuration, type Trait } from "../book";
import type { Condition } from "../shape";

export type Say = (path: string, message: string, remedy: string, warning?: true) => void;

/** One thing the trade would refuse in a book whose form is right. */
export interface Check {
  /** The sections it reads: when one of them has lost its form the check waits. */
  reads: readonly (keyof Book)[];
  check(book: Book, conditions: readonly Condition[], say: Say): void;
}

/** So many versions are looked at all; of more, those in which conditions meet alone and by twos. */
const ALL = 64;
const MOST = 200;

/**
 * The versions of a unit that some sections tell apart, each as what the book then says. Most sections look at one trait or none, so
 * that a unit of many versions is still looked at in a few. Where there would be too many, each trait is turned alone, then every two together,
 * and what a condition names together is turned together: the time does not double with each trait more.
 */
export function versions(
  book: Book,
  conditions: readonly Condition[],
  sections: readonly (keyof Book)[],
): { configuration: Configuration; unit: Book; words: string }[] {
  const here = conditions.filter(({ path }) => sections.some((section) => path.startsWith(section)));
  const told = new Set(here.flatMap(({ when }) => Object.keys(when)));
  const count = book.traits.reduce(
    (n, { id, values }) => n * (told.has(id) ? Object.keys(values).length : 1),
    1,
  );
  const all = count <= ALL ? configurations(book.traits, told) : covering(book.traits, told, here);
  return all.map((configuration) => {
    const words = [...told].map((trait) => `${trait} ${configuration[trait]}`).join(", ");
    return { configuration, unit: versionOf(book, configuration), words: words && ` (${words})` };
  });
}

function covering(
  traits: readonly Trait[],
  told: ReadonlySet<string>,
  conditions: readonly Condition[],
): Configuration[] {
  const usual = configurations(traits, new Set())[0] ?? {};
  const turned = traits
    .filter(({ id }) => told.has(id))
    .flatMap(({ id, values }) =>
      Object.keys(values)
        .slice(1)
        .map((value) => ({ [id]: value })),
    );
  const together = conditions.map(({ when }) =>
    Object.fromEntries(
      traits.flatMap(({ id, values }) => {
        const [value] = when[id] ?? [];
        return value !== undefined && Object.hasOwn(values, value) ? [[id, value] as const] : [];
      }),
    ),
  );
  const byTwos = turned.flatMap((one, i) =>
    turned.slice(i + 1).map((other) => Object.assign({}, one, other)),
  );
  const known = new Map<string, Configuration>();
  for (const change of [{}, ...turned, ...together, ...byTwos]) {
    if (known.size >= MOST) break;
    const configuration: Configuration = Object.assign({}, usual, change);
    known.set(JSON.stringify(configuration), configuration);
  }
  return [...known.values()];
}

const made = new WeakMap<Book, Map<string, Book>>();

/** The book of one version, made once for all who look at it. */
function versionOf(book: Book, configuration: Configuration): Book {
  const known = made.get(book) ?? new Map<string, Book>();
  made.set(book, known);
  const key = JSON.stringify(configuration);
  const unit = known.get(key) ?? inVersion(book, configuration);
  known.set(key, unit);
  return unit;
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
