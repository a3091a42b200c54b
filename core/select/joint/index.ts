export { aimed, insteads, proposals, type Aim, type Instead } from "./beside";
export { ranked, type Ranked } from "./ranked";
export { chooseJointly, type ChainPlan, type JointPlan, type SeatPlan } from "./joint";
export { unlikeliness, type Values } from "./options";
export {
  FIRST,
  termsWith,
  TERMS,
  type ChooseFirst,
  type JointChain,
  type JointQuestion,
  type Lot,
  type Offer,
  type Relation,
  type Seat,
  type Term,
} from "./question";
