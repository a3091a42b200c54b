export { recognise, TABLES, type Column, type Recognised, type TableName } from "./columns";
export { takeIn } from "./take-in";
export type { RowProblem, TableRow, TakenAs, TakenIn } from "./writing";
export { writeOut } from "./write-out";
