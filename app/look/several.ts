/** What stands between the values of a field that takes several. */
export const BETWEEN = "\n";

/** The values of a field that takes several, as a form keeps them. */
export const severalOf = (typed: string | undefined): string[] =>
  (typed ?? "").split(BETWEEN).filter(Boolean);
