import MiniSearch from "minisearch";
import { answers, type Answer } from "~core/find";

export { answers };

/** Searches a book's answers: every word must be met, by its beginning or nearly; titles count more than the words beside them. */
export function searcher(all: readonly Answer[]): (query: string) => Answer[] {
  const index = new MiniSearch<Answer>({
    fields: ["title", "words", "answer"],
    storeFields: [],
    searchOptions: {
      boost: { title: 4, words: 2 },
      prefix: true,
      fuzzy: (term) => (term.length > 4 ? 0.2 : false),
      combineWith: "AND",
    },
  });
  index.addAll(all);
  const byId = new Map(all.map((answer) => [answer.id, answer]));
  const found = (query: string, combineWith: "AND" | "OR"): Answer[] =>
    index.search(query, { combineWith }).flatMap(({ id }) => byId.get(id as string) ?? []);
  return (query) => {
    const strict = found(query, "AND");
    return (strict.length > 0 ? strict : found(query, "OR")).slice(0, 8);
  };
}
