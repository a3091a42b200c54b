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
  type ReadingSet,
  type Stage,
  type Worksheet,
} from "./worksheet";
