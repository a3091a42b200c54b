export {
  hinders,
  hindersElsewhere,
  madeOf,
  openOf,
  STAGES,
  type Made,
  type Open,
  type Rule,
  type StageId,
} from "./open";
export { openByStation, stationsInScope } from "./places";
export { standingOf, waitsFor, type JobStage, type Next, type Standing } from "./stages";
export { stageWords, stepsDone, type StepsDone } from "./steps-done";
