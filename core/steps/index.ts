export { Bench, type Bolts, type Thing } from "./bench";
export { ballCount, counts, otherVersions, type BallCount, type Count, type OtherVersion } from "./counts";
export { versionsOfLookAlikes } from "./look-alike";
export { planOf, type Direction, type Notice, type Plan, type StepState } from "./plan";
export { waysOf, wantsMark } from "./ways";
