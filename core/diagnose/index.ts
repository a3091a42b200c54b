export { causeName, causesOf, elementName, type Fault, type Unit } from "./cause";
export { debrisQuestion, pointsAt } from "./debris";
export {
  Diagnostician,
  type CauseSet,
  type Diagnosis,
  type NextCheck,
  type Suspect,
  type Told,
} from "./diagnose";
export { Mechanics, drivingStates, type Effect, type DrivingState } from "./mechanics";
export { IN_RANGE } from "./model";
export { toldBy } from "./told";
export { DEBRIS_NAMES, OUTSIDE_NAMES, questionsOf, type Question, type QuestionKind } from "./question";
export { report, type Report } from "./report";
export { readSpeeds, type ReadSpeeds, type Speeds } from "./speeds";
export { workingOf, type Working } from "./working";
