export { codes, wordsOf, type CodeOf, type Codes } from "./codes";
export { LEADS, ROLES, type Kind, type NameOf, type Role } from "./kind";
export { KINDS } from "./kinds";
export { aboutOf, kindOf } from "./about";
export { isKind, type BodyOf, type Fact, type FactBody, type FactKind, type FactOf } from "./fact";
export {
  againstBook,
  BENCH,
  checkFacts,
  DOCUMENT,
  notAllowed,
  problemText,
  type CheckedFacts,
  type Door,
} from "./check";
export { jobDocument, jobSchema, JOB_FORMAT, kindRows, readJobDocument, type JobDocument } from "./document";
export {
  chainFacts,
  fold,
  Job,
  seatFacts,
  type ChainFacts,
  type JobReading,
  type Photo,
  type SeatFacts,
} from "./job";
export { disagreements, inOrder, type Disagreement } from "./order";
export { asAssembled, isBuilding, type Reopened } from "./assembled";
export { appliedTo, becomes, depthsOf, isLessThanAgreed, jobWithBook } from "./applied";
export { lastByKey, ofKind } from "./last";
export { upcast } from "./upcast";
export {
  CODE_SORTS,
  CONDITIONS,
  FAULTS,
  OUTCOMES,
  outcomeCode,
  outcomeWords,
  questionWords,
  ratioOf,
  type Condition,
} from "./kinds/told";
export {
  DEBRIS_AMOUNTS,
  DEBRIS_KINDS,
  DEBRIS_PLACES,
  FLUID_LOOKS,
  FLUID_SMELLS,
  READ_OUT_FROM,
  type DebrisAmount,
  type DebrisKind,
  type DebrisPlace,
  type FluidLook,
  type FluidSmell,
} from "./kinds/before";
export { CANNOT, type Cannot, type MeasuredLink, type Phase, type ReadingBody } from "./kinds/measured";
export { ORIGINS, TAKEN_OUT } from "./kinds/selected";
export {
  CLEANING_STEPS,
  CLEANLINESS,
  FOUND_WRONG,
  IN_UNIT,
  MATCH_MARKS,
  ON_BENCH,
  PLACE_SORTS,
  SCRAPPED,
  STEP_DONE,
  type Cleanliness,
  type CleaningStep,
  type FoundWrong,
  type MatchMark,
  type PlaceSort,
  type StepDone,
} from "./kinds/bench";
export {
  AIR,
  LAID,
  CHECKED,
  PLACE_DONE,
  TIMERS,
  type AirResult,
  type Checked,
  type PlaceDone,
} from "./kinds/build";
export {
  DROVE,
  FLOWED,
  HAPPENED,
  CODES_READ,
  type CodesRead,
  LEARNED,
  ON_DRIVE,
  type Happened,
  type OnDrive,
  type Told,
} from "./kinds/prove";
export {
  CAUSE_STANDINGS,
  DISPOSITIONS,
  SEVERITIES,
  type CauseStanding,
  type Disposition,
  type Severity,
} from "./kinds/inspected";
export { LESSONS, type Lesson } from "./kinds/taught";
export { OLD_PARTS, SOURCES, type Source } from "./kinds/sources";
export { USES, type Use } from "./kinds/stronger";
export { WAYS_ON, type Way } from "./kinds/ways";
export { DRIVEN, OPENED_BEFORE, WARRANTY, type EarlierFigure, type HouseKept } from "./kinds/booking";
export { mayReplace } from "./replace";
export { fieldsOf, readFact, type Empty, type ReadFact, type Says } from "./form";
