export {
  coverOf,
  frontOf,
  held,
  plainCover,
  SOME_DAY,
  takenOf,
  type Cover,
  type CoverQuestion,
  type SupplyOffer,
  type Take,
  type Taken,
} from "./cover";
export { solvedBy, type Solved, type SolveProgram } from "./program";
