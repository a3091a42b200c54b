export { JOB_FORMAT, jobDocument, type JobDocument } from "./document";
export {
  type Fact,
  type FactBody,
  type FactKind,
  type MeasuredLink,
  type Phase,
  type ReadingBody,
} from "./fact";
export { chainFacts, fold, type ChainFacts, type FactOf, type Job, type JobReading } from "./job";
export {
  basis,
  lastAt,
  readers,
  readyToLeave,
  ruleOf,
  stageWords,
  waitsFor,
  worksheet,
  worksheetCandidates,
  worksheets,
  type House,
  type ReadingSet,
  type Stage,
  type Worksheet,
} from "./worksheet";
