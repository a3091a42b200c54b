export { evaluate, predict, type Link, type Swap, type Thickness } from "./chain";
export { fitOf, type Fit, type Point } from "./fit";
export type { Piece } from "./piece";
