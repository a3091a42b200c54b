// Writes what docs/ says of the formats anew from the declarations that check them: npm run schema
import { readFileSync, writeFileSync } from "node:fs";
import { format } from "prettier";
import { bookSchema } from "../core/book";
import { jobSchema, kindRows } from "../core/fact";

const FORMATS = "docs/formats.md";
const [BEGIN, END] = ["<!-- kinds of facts: npm run schema -->", "<!-- end -->"];

const json = (schema: unknown): Promise<string> =>
  format(JSON.stringify(schema), { parser: "json", printWidth: 110 });

/** docs/formats.md with its table of facts as they are declared. */
async function formatsText(): Promise<string> {
  const before = readFileSync(FORMATS, "utf8");
  const [head = "", rest = ""] = before.split(BEGIN);
  const tail = rest.split(END)[1] ?? "";
  const rows = [["kind", "what it says", "fields", "who, where"], ["-", "-", "-", "-"], ...kindRows()];
  const table = rows.map((cells) => `| ${cells.join(" | ")} |`).join("\n");
  return format(`${head}${BEGIN}\n\n${table}\n\n${END}${tail}`, { parser: "markdown", printWidth: 110 });
}

/** Each derived file with what it must say. */
export const derived = async (): Promise<[file: string, text: string][]> => [
  ["docs/book.schema.json", await json(bookSchema())],
  ["docs/job.schema.json", await json(jobSchema())],
  [FORMATS, await formatsText()],
];

if (process.argv[1]?.endsWith("schema.ts"))
  for (const [file, text] of await derived()) writeFileSync(file, text);
