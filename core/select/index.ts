export { astray, type Astray } from "./astray";
export {
  candidates,
  type SelectiveCandidate,
  type CandidateQuestion,
  type Source,
  type Stock,
} from "./candidates";
export {
  chooseJointly,
  insteads,
  proposals,
  TERMS,
  type Aim,
  type ChainPlan,
  type Instead,
  type JointChain,
  type JointPlan,
  type JointQuestion,
  type Lot,
  type Offer,
  type Relation,
  type Seat,
  type SeatPlan,
  type Term,
  type Values,
} from "./joint";
export { agrees, MICROMETER_U, sizeNear, thickness } from "./piece";
export { distance, target, type Target, type TargetSchool } from "./target";
