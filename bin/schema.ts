// Writes what docs/ says of the formats anew from the declarations that check them: npm run schema
import { readFileSync, writeFileSync } from "node:fs";
import { format } from "oxfmt";
import { bookSchema } from "../core/book";
import { jobSchema, kindRows } from "../core/fact";

const FORMATS = "docs/formats.md";
const [BEGIN, END] = ["<!-- kinds of facts: npm run schema -->", "<!-- end -->"];

/** As `npm run format` wants it: the words of a file of this name. */
async function formatted(file: string, text: string): Promise<string> {
  const { code, errors } = await format(file, text, { printWidth: 110 });
  if (errors.length > 0) throw new Error(`${file}: ${errors.map(({ message }) => message).join("; ")}`);
  return code;
}

const json = async (file: string, schema: unknown): Promise<[file: string, text: string]> => [
  file,
  await formatted(file, JSON.stringify(schema)),
];

/** docs/formats.md with its table of facts as they are declared. */
async function formatsText(): Promise<string> {
  const before = readFileSync(FORMATS, "utf8");
  const [head = "", rest = ""] = before.split(BEGIN);
  const tail = rest.split(END)[1] ?? "";
  const rows = [["kind", "what it says", "fields", "who, where"], ["-", "-", "-", "-"], ...kindRows()];
  const table = rows.map((cells) => `| ${cells.join(" | ")} |`).join("\n");
  return formatted(FORMATS, `${head}${BEGIN}\n\n${table}\n\n${END}${tail}`);
}

/** Each derived file with what it must say. */
export const derived = async (): Promise<[file: string, text: string][]> => [
  await json("docs/book.schema.json", bookSchema()),
  await json("docs/job.schema.json", jobSchema()),
  [FORMATS, await formatsText()],
];

if (process.argv[1]?.endsWith("schema.ts"))
  for (const [file, text] of await derived()) writeFileSync(file, text);
