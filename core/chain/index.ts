export { evaluate, predict, type Link, type Swap, type Thickness } from "./chain";
