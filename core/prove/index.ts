export {
  DRIVES,
  driveAsks,
  isSettled,
  slipRead,
  provingOf,
  symptomsOf,
  type DriveAsk,
  type ProveGroup,
  type Proving,
  type ProvingItem,
} from "./proving";
export { codesAt, foreignCodes, type CodesStanding } from "./codes";
export { provenRecord } from "./record";
export { relearnsOf, type RelearnState } from "./relearns";
export { weakestOf, toldInVehicle, type Weak } from "./weakest";
