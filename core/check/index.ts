export { readBook, type ReadBook } from "./read-book";
