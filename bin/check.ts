import { spawn } from "node:child_process";

/** What is checked one after another because each builds on the one before; the rows run beside each other. */
const CHECKS: [name: string, commands: string[][]][] = [
  [
    "types",
    [
      ["react-router", "typegen"],
      ["tsc", "-p", "tsconfig.json"],
      ["tsc", "-p", "core/tsconfig.json"],
    ],
  ],
  ["lint", [["eslint", ".", "--max-warnings", "0"]]],
  ["format", [["prettier", "--check", "."]]],
];

function run(args: readonly string[]): Promise<{ ok: boolean; told: string }> {
  return new Promise((resolve) => {
    const child = spawn("npx", ["--no-install", ...args]);
    let told = "";
    child.stdout.on("data", (some) => (told += String(some)));
    child.stderr.on("data", (some) => (told += String(some)));
    child.on("close", (code) => resolve({ ok: code === 0, told }));
  });
}

/** Types, lint and format; every one is run even when another failed. */
export async function check(): Promise<boolean> {
  const all = await Promise.all(
    CHECKS.map(async ([name, commands]) => {
      for (const command of commands) {
        const { ok, told } = await run(command);
        if (ok) continue;
        console.log(`${name}:\n${told}`);
        return false;
      }
      return true;
    }),
  );
  const good = all.every(Boolean);
  console.log(good ? "· types, lint and format are in order" : "· check failed; see above");
  return good;
}

if (process.argv[1]?.endsWith("check.ts")) process.exit((await check()) ? 0 : 1);
