export {
  gravestFirst,
  leftWith,
  specLines,
  STANDINGS,
  wrongOrders,
  type SpecLine,
  type PhaseFigure,
  type SpecLineItem,
  type Standing,
} from "./spec-lines";
export { isBeyondStop } from "./stop";
export { asFound, figures, type Figure } from "./figures";
export { ofAssemblyNow, ofStackNow, refitOf, type Refit } from "./restacked";
export { isPackChain, specIn, type ChainItem, type MeasurementItem, type ReadingSet } from "./reading-set";
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
  chosenSheets,
  houseOf,
  isPackSheet,
  lastAt,
  leavesWith,
  readers,
  ruleOf,
  standsNow,
  titleOf,
  worksheet,
  worksheets,
  type House,
  type PackSheet,
  type Prediction,
  type SeatState,
  type Stage,
  type Worksheet,
} from "./worksheet";
export { startsOf } from "./starts";
export { movedSinceFound, type Moved } from "./moved";
export { nextReading, type NextReading } from "./next-reading";
export { outsides, type Outside, type WayOut } from "./ways-out";
export { across, shares, type JobAsked, type JobShare, type Share } from "./across";
export { jointChain, together, togetherAll, type OpenSeat, type Together, type Unit } from "./together";
export {
  askedFor,
  decided,
  seatCandidates,
  swapsOf,
  type Asked,
  type Decided,
  type SelectiveCandidate,
} from "./candidates";
export { figuresLeft, spreadOf, spreadsOf, versionOf, type FigureLeft, type Spread } from "./left";
