export {
  DRIVES,
  driveAsks,
  isSettled,
  provingOf,
  symptomsOf,
  type DriveAsk,
  type ProveGroup,
  type Proving,
  type ProvingItem,
} from "./proving";
export { provenRecord } from "./record";
export { relearnsOf, type RelearnState } from "./relearns";
export { weakestOf, toldInVehicle, type Weak } from "./weakest";
