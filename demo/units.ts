import { readFileSync } from "node:fs";
import { type Book } from "../core/book";
import { readBook } from "../core/check";

/** The units of the demo, the everyday one first. */
export const UNITS = [
  "marram-dunlin",
  "marram-whimbrel",
  "selwyn-sanderling",
  "selwyn-turnstone",
  "corrie-godwit",
  "corrie-plover",
] as const;
export type UnitId = (typeof UNITS)[number];

/** A fresh copy of a unit's document. */
export const documentOf = (id: UnitId): Record<string, unknown> =>
  JSON.parse(readFileSync(new URL(`books/${id}.json`, import.meta.url), "utf8")) as Record<string, unknown>;

const books = new Map<UnitId, Book>();
/** A unit's book, read once. @throws Error when the check refuses it. */
export function bookOf(id: UnitId): Book {
  const known = books.get(id);
  if (known) return known;
  const read = readBook(documentOf(id));
  if (!read.ok) throw new Error(`the demo book ${id} is wrong: ${JSON.stringify(read.problems)}`);
  books.set(id, read.book);
  return read.book;
}
