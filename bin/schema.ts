// Writes docs/book.schema.json anew from the shapes that read a book: npm run schema
import { writeFileSync } from "node:fs";
import { format } from "prettier";
import { bookSchema } from "../core/book";

export const SCHEMA_FILE = "docs/book.schema.json";

/** The schema as its file holds it. */
export const schemaText = (): Promise<string> =>
  format(JSON.stringify(bookSchema), { parser: "json", printWidth: 110 });

if (process.argv[1]?.endsWith("schema.ts")) writeFileSync(SCHEMA_FILE, await schemaText());
