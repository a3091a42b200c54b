export { drawStack, GAP_DRAWN, type DrawnPiece, type StackDrawing } from "./drawing";
export { counts, nominalGap, plates, plausible, thicknessOf, type Plate } from "./stack";
