export { drawStack, GAP_DRAWN, type DrawnPiece, type StackDrawing } from "./drawing";
export { boughtOf, countOf, counts, piecesOf, plates, platesOf, thicknessOf, type Plate } from "./plates";
export { nominalGap, plausible } from "./stack";
