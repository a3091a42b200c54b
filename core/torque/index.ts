export { tighteningOrder, type Pattern, type Place } from "./order";
export { roundsOf, sessionOf, type FaceOf, type Round, type Session } from "./rounds";
export { pullVerdict, wrenchSetting, type PullVerdict } from "./wrench";
