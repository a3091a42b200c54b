export {
  gravestFirst,
  leftWith,
  specLines,
  STANDINGS,
  type SpecLine,
  type PhaseFigure,
  type SpecLineItem,
  type Standing,
} from "./spec-lines";
export { asFound, figures, type Figure } from "./figures";
export { type ChainItem, type MeasurementItem, type ReadingSet } from "./reading-set";
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
export {
  basis,
  houseOf,
  lastAt,
  readers,
  ruleOf,
  worksheet,
  worksheetCandidates,
  worksheets,
  type House,
  type Stage,
  type Worksheet,
} from "./worksheet";
export { together, type Offered, type Together } from "./together";
