export { airResult } from "./air";
export { faceOf, millisecondsOf, pullOf, roundWords, wantedIn, type Face } from "./face";
export {
  buildOf,
  buildStanding,
  exchangeOpens,
  figureMissing,
  signedAs,
  wouldOpen,
  type Asked,
  type Build,
  type BuildStanding,
  type BuildStep,
} from "./plan";
export { recordOf, type BuildRecord, type RecordLine } from "./record";
export { isReady, isTooLong, timersOf, type Timer } from "./timers";
