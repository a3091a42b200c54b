export { readyToLeave, stageWords, stepsDone, waitsFor, type StepsDone } from "./waits";
