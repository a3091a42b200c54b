import type { Allowances, Spec } from "../reading";
import type { Book, Chain, Pack, Series, StackEntry } from "./book";

/** Facts about this very unit: trait → value, as seen. A trait nobody has looked at yet is absent. */
export type Configuration = Readonly<Record<string, string>>;

/** A chain of a pack that applies, with everything needed to judge it. */
export interface AppliedChain {
  chain: Chain;
  pack: Pack;
  stack: StackEntry[];
  spec: Spec;
  allowances: Allowances;
  /** The series that closes the chain, if one does. */
  series: Series | null;
  /** Whether the depth of work chosen reaches it. */
  inScope: boolean;
}

/** What of a book applies to one unit and one depth of work. */
export interface Applied {
  book: Book;
  chains: AppliedChain[];
}

/** Whether an entry holds: every trait it names has that value. */
const holdsFor = (entry: { when?: Record<string, string> }, configuration: Configuration): boolean =>
  Object.entries(entry.when ?? {}).every(([trait, value]) => configuration[trait] === value);

/**
 * Book + configuration + scope → what applies now. The only place that looks at `when` and `depth`.
 *
 * @param depth one of the book's depths.
 */
export function resolve(book: Book, configuration: Configuration, depth: string): Applied {
  const reaches = (entry: { depth?: string[] }): boolean => entry.depth?.includes(depth) ?? true;
  const chains = book.chains.flatMap((chain): AppliedChain[] => {
    const pack = book.packs.find((candidate) => candidate.element === chain.of);
    if (!pack || !holdsFor(pack, configuration) || !holdsFor(chain, configuration)) return [];
    const stack = pack.stack.filter((entry) => holdsFor(entry, configuration));
    const { min, max, soak, facings = "new", wave } = chain.spec;
    const link = chain.links.find(([, kind]) => kind === "series");
    return [
      {
        chain,
        pack,
        stack,
        spec: { min, max, state: { soak, facings, wave } },
        allowances: {
          soaking: chain.soaking,
          bedding: chain.bedding,
          wave: stack.find((entry) => entry.wave)?.wave,
        },
        series: book.series.find(({ id }) => id === link?.[2]) ?? null,
        inScope: reaches(pack) && reaches(chain),
      },
    ];
  });
  return { book, chains };
}
