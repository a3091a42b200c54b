export { astray, type Astray, type Filled } from "./astray";
export { FITTED, Offers, type Offered } from "./offers";
export { scarcityOf, USED_OVER_DAYS } from "./scarcity";
export { type Source, type Stock } from "./stock";
export {
  aimed,
  chooseJointly,
  insteads,
  proposals,
  ranked,
  FIRST,
  TERMS,
  termsWith,
  unlikeliness,
  type Aim,
  type ChooseFirst,
  type ChainPlan,
  type Instead,
  type JointChain,
  type JointPlan,
  type JointQuestion,
  type Lot,
  type Offer,
  type Ranked,
  type Relation,
  type Seat,
  type SeatPlan,
  type Term,
  type Values,
} from "./joint";
export { agrees, MICROMETER_U, sizeNear, thickness } from "./piece";
export { distance, target, type Target, type TargetSchool } from "./target";
