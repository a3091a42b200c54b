export { tighteningOrder, type Pattern, type Place } from "./order";
export { roundsOf, sessionOf, VERIFY, type FaceOf, type Round, type Session } from "./rounds";
export { pullVerdict, torqueReached, wrenchSetting, type PullVerdict } from "./wrench";
