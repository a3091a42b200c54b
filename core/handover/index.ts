export { comebackOf, type Build as EarlierBuild, type Comeback } from "./comeback";
export { customerSheet, type CustomerSheet } from "./customer";
