export { isOfPlates, strongerPlan, type StrongerPlan, type Wish } from "./plan";
export {
  bandTorque,
  forceOf,
  meanRadii,
  packTorque,
  torqueOf,
  type BandGrip,
  type Grip,
  type PackGrip,
  type RatedGrip,
} from "./grip";
export { isSprungStack, platePlans, type PlatePlan, type PlateStart } from "./plates";
export { throughParts, type Through } from "./through";
export { dragSpeed, facingSpeed, headForce, riseOf, shiftHeat, steelMass } from "./turning";
export {
  capacitiesOf,
  demandsOf,
  USUAL_MARGINS,
  type Change,
  type Demand,
  type Duty,
  type ElementCapacity,
  type Judged,
  type Margins,
  type Side,
  type Use,
} from "./unit";
