// The door on the core for scripts and other programs: `npm run -s key -- <verb>`, JSON in on standard input, JSON out.
// Errors go to standard error as {"errors":[{path,message,remedy}]}, exit code 2. docs/formats.md has examples of every verb.
import { text } from "node:stream/consumers";
import { run } from "./verbs";

const [verb = ""] = process.argv.slice(2);
const answer = run(verb, await text(process.stdin));
if (answer.ok) console.log(JSON.stringify(answer.result, null, 2));
else {
  console.error(JSON.stringify({ errors: answer.errors }, null, 2));
  process.exitCode = 2;
}
