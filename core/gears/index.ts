export { isListed } from "./listed";
export { loadsOf, type Load, type Loads } from "./loads";
export { ratioText, solveRanges, type SolvedRange } from "./ranges";
export { pinionsCollide, teethDoubt } from "./teeth";
export {
  baseOfTrain,
  behave,
  membersOf,
  renamed,
  slipAt,
  type Behaviour,
  type PulleyEnd,
  type Train,
} from "./train";
