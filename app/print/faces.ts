import { createRequire } from "node:module";

/** What the pages' own face draws: the Latin of the west with its punctuation, but no µ. */
const OWN = /^[\n\u0020-\u007e\u00a0-´¶-ÿ–—‘’‚“”„•…€™−]*$/;
const WEIGHTS = { plain: 400, bold: 700 } as const;
export type Weight = keyof typeof WEIGHTS;

const file = createRequire(import.meta.url).resolve;

/** What a document begins with: its own face, so that nothing of it is left to the reader's machine. */
export const FIRST_FACE = file("dejavu-fonts-ttf/ttf/DejaVuSans.ttf");

/** Makes the faces known to a document; without this `faceOf` names nothing. */
export function registerFaces(document: PDFKit.PDFDocument): void {
  for (const weight of Object.keys(WEIGHTS) as Weight[])
    document
      .registerFont(
        weight,
        file(
          `@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${WEIGHTS[weight]}-normal.woff`,
        ),
      )
      .registerFont(
        `wide ${weight}`,
        file(`dejavu-fonts-ttf/ttf/DejaVuSans${weight === "bold" ? "-Bold" : ""}.ttf`),
      );
}

/** @returns the face a whole text is printed in: the pages' own, or where that lacks a character (µ, Ω, ł, Greek, Cyrillic) one that has nearly all. */
export const faceOf = (text: string, weight: Weight): string => (OWN.test(text) ? weight : `wide ${weight}`);
