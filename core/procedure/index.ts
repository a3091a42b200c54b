export { isOver, linesOf, type Line } from "./lines";
export { eventsOf, runOf, type Event, type Run } from "./run";
