// The door on the core for scripts and other programs: `npm run -s key -- <verb> [FILE]`, JSON in from the file or standard input,
// JSON out. Errors go to standard error as {"errors":[{path,message,remedy}]}, exit code 2. docs/formats.md has examples of every verb.
import { readFile } from "node:fs/promises";
import { text } from "node:stream/consumers";
import { run, type Answer } from "./verbs";

const [verb = "", file] = process.argv.slice(2);

async function answered(): Promise<Answer> {
  if (file === undefined) return run(verb, await text(process.stdin));
  try {
    return run(verb, await readFile(file, "utf8"));
  } catch {
    const errors = [{ path: "", message: `${file} cannot be read`, remedy: "name a file that is there" }];
    return { ok: false, errors };
  }
}

const answer = await answered();
if (answer.ok) console.log(JSON.stringify(answer.result, null, 2));
else {
  console.error(JSON.stringify({ errors: answer.errors }, null, 2));
  process.exitCode = 2;
}
