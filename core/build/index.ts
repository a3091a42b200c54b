export { airResult } from "./air";
export { faceOf, millisecondsOf, type Face } from "./face";
export {
  buildOf,
  figureMissing,
  isBuilding,
  wouldOpen,
  type Asked,
  type Build,
  type BuildStep,
} from "./plan";
export { isReady, isTooLong, timersOf, type Timer } from "./timers";
