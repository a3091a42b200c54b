export { hinders, hindersElsewhere, openOf, type Open, type Rule } from "./open";
export { readyToLeave, stageWords, stepsDone, waitsFor, type StepsDone } from "./waits";
