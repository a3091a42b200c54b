export { answers, type Answer } from "./find";
