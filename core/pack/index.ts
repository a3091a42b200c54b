export { drawStack, GAP_DRAWN, type DrawnPiece, type StackDrawing } from "./drawing";
export {
  boughtOf,
  countOf,
  counts,
  piecesOf,
  plateGroups,
  plates,
  platesOf,
  thicknessOf,
  type Plate,
  type PlateGroup,
} from "./plates";
export { nominalGap, plausible } from "./stack";
