export { candidateCauses, type RankedCause, type Evidence } from "./cause";
export { unanswered, type Unanswered } from "./closing";
export {
  dispositions,
  isOfPoint,
  becomesWord,
  isWanted,
  metalEverywhere,
  unlooked,
  USUAL_SCHOOLS,
  weakPoints,
  type Because,
  type PartState,
  type PointState,
  type Schools,
} from "./disposition";
export { failed, type Failed } from "./failed";
export { LOOKED_AT } from "./seen";
export {
  OTHER_UNITS,
  otherUnit,
  otherUnitWords,
  toldOfUnit,
  warrantyWords,
  unitPart,
  worth,
  type Option,
  type OtherUnit,
  type Worth,
} from "./worth";
export { DEGREES, goodOf, wearsOf } from "./wear";
