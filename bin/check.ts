import { spawn } from "node:child_process";

/** Types of the routes come first: both the compiler and the linter read them. The rows run beside each other. */
const FIRST = ["react-router", "typegen"];
const CHECKS: [name: string, commands: string[][]][] = [
  [
    "types",
    [
      ["tsc", "-p", "tsconfig.json"],
      ["tsc", "-p", "core/tsconfig.json"],
    ],
  ],
  ["lint", [["oxlint"]]],
  ["format", [["oxfmt", "--check"]]],
];

function run(program: string, args: readonly string[]): Promise<{ ok: boolean; told: string }> {
  return new Promise((resolve) => {
    const child = spawn(program, [...args]);
    let told = "";
    child.stdout.on("data", (some) => (told += String(some)));
    child.stderr.on("data", (some) => (told += String(some)));
    child.on("close", (code) => resolve({ ok: code === 0, told }));
  });
}

/** Types, lint and format; every one is run even when another failed. */
export async function check(): Promise<boolean> {
  const made = await run("npx", ["--no-install", ...FIRST]);
  if (!made.ok) console.log(`route types:\n${made.told}`);
  const all = await Promise.all(
    CHECKS.map(async ([name, commands]) => {
      for (const command of commands) {
        const { ok, told } = await run("npx", ["--no-install", ...command]);
        if (ok) continue;
        console.log(`${name}:\n${told}`);
        return false;
      }
      return true;
    }),
  );
  const good = made.ok && all.every(Boolean);
  console.log(good ? "· types, lint and format are in order" : "· check failed; see above");
  return good;
}

/** Whether packages that are shipped have faults that are known, where a registry can say so; and plainly that none can. */
async function audit(): Promise<boolean> {
  const { told } = await run("npm", ["audit", "--json", "--omit=dev"]);
  const read = JSON.parse(told.slice(told.indexOf("{"), told.lastIndexOf("}") + 1) || "{}") as {
    metadata?: { vulnerabilities?: Record<string, number> };
  };
  const found = read.metadata?.vulnerabilities;
  if (!found) {
    console.log("· no registry answers: the packages were NOT held against known faults");
    return true;
  }
  const grave = (found.high ?? 0) + (found.critical ?? 0);
  console.log(`· packages with grave known faults: ${grave}${grave > 0 ? "; npm audit says which" : ""}`);
  return grave === 0;
}

if (process.argv[1]?.endsWith("check.ts")) {
  const good = await check();
  process.exit((await audit()) && good ? 0 : 1);
}
