export { astray, type Astray } from "./astray";
export {
  candidates,
  type SelectiveCandidate,
  type CandidateQuestion,
  type Source,
  type Stock,
} from "./candidates";
export { agrees, MICROMETER_U, sizeNear, thickness } from "./piece";
export { distance, target, type Target, type TargetSchool } from "./target";
