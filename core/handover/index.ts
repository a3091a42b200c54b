export { customerSheet, type CustomerSheet } from "./customer";
