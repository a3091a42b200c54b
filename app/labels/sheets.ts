/** A sheet of plain labels, in millimetres. */
export interface Sheet {
  id: string;
  name: string;
  width: number;
  height: number;
  columns: number;
  rows: number;
  /** Edge of the sheet to the first label, and one label with the gap after it. */
  left: number;
  top: number;
  pitchX: number;
  pitchY: number;
  labelWidth: number;
  labelHeight: number;
}

export const SHEETS: readonly [Sheet, ...Sheet[]] = [
  {
    id: "a4-3x8",
    name: "A4, 3 × 8",
    width: 210,
    height: 297,
    columns: 3,
    rows: 8,
    left: 0,
    top: 0.5,
    pitchX: 70,
    pitchY: 37,
    labelWidth: 70,
    labelHeight: 37,
  },
  {
    id: "a4-2x7",
    name: "A4, 2 × 7",
    width: 210,
    height: 297,
    columns: 2,
    rows: 7,
    left: 5,
    top: 15,
    pitchX: 101.6,
    pitchY: 38.1,
    labelWidth: 99.1,
    labelHeight: 38.1,
  },
  {
    id: "letter-3x10",
    name: "Letter, 3 × 10",
    width: 215.9,
    height: 279.4,
    columns: 3,
    rows: 10,
    left: 4.8,
    top: 12.7,
    pitchX: 69.85,
    pitchY: 25.4,
    labelWidth: 66.7,
    labelHeight: 25.4,
  },
  {
    id: "roll",
    name: "Label printer, 62 × 29",
    width: 62,
    height: 29,
    columns: 1,
    rows: 1,
    left: 0,
    top: 0,
    pitchX: 62,
    pitchY: 29,
    labelWidth: 62,
    labelHeight: 29,
  },
];

/** Where the n-th label goes, when so many of the first sheet are used already. */
export function placeOn(sheet: Sheet, n: number, used: number): { page: number; x: number; y: number } {
  const perPage = sheet.columns * sheet.rows;
  const at = n + used;
  const within = at % perPage;
  return {
    page: Math.floor(at / perPage),
    x: sheet.left + (within % sheet.columns) * sheet.pitchX,
    y: sheet.top + Math.floor(within / sheet.columns) * sheet.pitchY,
  };
}
