export { JOB_FORMAT, jobDocument, type JobDocument } from "./document";
export {
  CANNOT,
  DEBRIS_AMOUNTS,
  DEBRIS_PLACES,
  FLUID_LOOKS,
  FLUID_SMELLS,
  PLACE_SORTS,
  type Booking,
  type Cannot,
  type DebrisAmount,
  type DebrisPlace,
  type FluidLook,
  type FluidSmell,
  type IntakeBody,
  type PlaceSort,
  type Fact,
  type FactBody,
  type FactKind,
  type MeasuredLink,
  type Phase,
  type ReadingBody,
} from "./fact";
export { appliedTo, depthOf } from "./applied";
export {
  gravestFirst,
  leftWith,
  rows,
  STANDINGS,
  type Row,
  type RowFigure,
  type RowItem,
  type Standing,
} from "./rows";
export { asFound, figures, type ChainItem, type Figure, type MeasurementItem } from "./figures";
export {
  ANSWERS,
  CLOCKING,
  DEPTH,
  itemsOf,
  itemsOfChain,
  judgement,
  type Item,
  type Judgement,
} from "./items";
export { Intake, type Photo } from "./intake";
export {
  CLEANING_STEPS,
  CLEANLINESS,
  FOUND_WRONG,
  IN_UNIT,
  MATCH_MARKS,
  ON_BENCH,
  SCRAPPED,
  STEP_DONE,
  type Cleanliness,
  type CleaningStep,
  type FoundWrong,
  type MatchMark,
  type StepDone,
  type WorkBody,
} from "./work-fact";
export {
  CAUSE_STANDINGS,
  DISPOSITIONS,
  SEVERITIES,
  WAYS_ON,
  type CauseStanding,
  type EarlierFigure,
  type Disposition,
  type InspectBody,
  type Severity,
  type Way,
} from "./inspect-fact";
export { Work } from "./work";
export { chainFacts, fold, type ChainFacts, type FactOf, type Job, type JobReading } from "./job";
export {
  basis,
  lastAt,
  readers,
  readyToLeave,
  ruleOf,
  stageWords,
  stepsDone,
  waitsFor,
  worksheet,
  worksheetCandidates,
  worksheets,
  type House,
  type ReadingSet,
  type Stage,
  type StepsDone,
  type Worksheet,
} from "./worksheet";
