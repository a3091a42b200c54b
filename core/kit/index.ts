export {
  coverOf,
  frontOf,
  plainCover,
  SOME_DAY,
  type Cover,
  type CoverQuestion,
  type SupplyOffer,
  type Take,
} from "./cover";
export { solvedBy, type Solved, type SolveProgram } from "./program";
