export { figureMissing, signedAs, type Asked, type StepPlates } from "./asks";
export { airResult } from "./air";
export { faceOf, millisecondsOf, pullOf, roundWords, wantedIn, type Face } from "./face";
export {
  buildOf,
  buildStanding,
  exchangeOpens,
  wouldOpen,
  type Build,
  type BuildStanding,
  type BuildStep,
} from "./plan";
export { recordOf, type BuildRecord, type RecordLine } from "./record";
export { subAssembliesOf, type SubAssembly } from "./sub-assembly";
export { isReady, isTooLong, timersOf, type Timer } from "./timers";
