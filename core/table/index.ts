export { recognise, TABLES, type Column, type Recognised, type TableName } from "./columns";
export { takeIn, type RowProblem, type TableRow, type TakenAs, type TakenIn } from "./take-in";
export { writeOut } from "./write-out";
