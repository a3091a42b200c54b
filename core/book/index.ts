export {
  BOOK_FORMAT,
  readBook,
  type Book,
  type Chain,
  type Pack,
  type Series,
  type SeriesSize,
  type StackEntry,
  type Station,
  type Trait,
} from "./book";
export { resolve, type Applied, type AppliedChain, type Configuration } from "./resolve";
export { type Problem } from "./shape";
