export { corrections, type Allowance, type Allowances, type Correction } from "./allowance";
export { drift, type Drift } from "./drift";
export {
  chanceInside,
  combine,
  doubledValue,
  estimate,
  isSpread,
  type Component,
  type Estimate,
  type Observation,
} from "./estimate";
export { parseReading, question, type Meaning, type Plausible } from "./plausible";
export {
  GAUGES,
  METHODS,
  stepOf,
  type Bracket,
  type Facings,
  type Gauge,
  type Method,
  type PackState,
  type Reading,
  type Single,
  type Soak,
  type Summed,
  type TakenReading,
  type Wave,
} from "./reading";
export { coverageFactor, studentCdf } from "./student";
export {
  assess,
  judge,
  READINGS_NEEDED,
  type Assessment,
  type CloseAdvice,
  type DecisionRule,
  type Mark,
  isSettled,
  type Spec,
  type Verdict,
  basisOf,
  isEnough,
} from "./verdict";
export { ends, isStated, middleOf, type Limits } from "./limits";
