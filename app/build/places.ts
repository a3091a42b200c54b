import type { Worksheet } from "~core/measure";

/** Where a figure is read as built, within the job. */
export const figurePlace = (sheets: readonly Worksheet[], id: string): string =>
  sheets.some(({ applied: { chain } }) => chain.id === id) ? `choose/${id}` : `measure?phase=built#row-${id}`;
