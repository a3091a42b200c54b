/** What is told of a book under figures of it. */
interface OfBook {
  unit: { id: string; revision: number; source: string };
}

/** Where a book’s figures are from, as it stands beside them on a screen. */
export const figuresFrom = ({ unit: { source } }: { unit: { source: string } }): string =>
  `Figures: ${source}`;

/** The same at the foot of a paper: what is kept or given away is never taken for a maker’s own. */
export const bookFoot = ({ unit: { id, revision, source } }: OfBook): string =>
  `book ${id}, revision ${revision}, ${source}: not a maker’s specification. The maker’s service information comes first.`;
