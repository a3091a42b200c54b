export { tighteningOrder, type Pattern, type Place } from "./order";
export { wrenchSetting } from "./wrench";
