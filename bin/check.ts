import { spawnSync } from "node:child_process";

/** Types, lint, format, in this order; every one is run even when an earlier one failed. */
const CHECKS: [string, string[]][] = [
  ["types", ["npx", "--no-install", "react-router", "typegen"]],
  ["types", ["npx", "--no-install", "tsc", "-p", "tsconfig.json"]],
  ["types of core alone", ["npx", "--no-install", "tsc", "-p", "core/tsconfig.json"]],
  ["lint", ["npx", "--no-install", "eslint", ".", "--max-warnings", "0"]],
  ["format", ["npx", "--no-install", "prettier", "--check", "."]],
];

export function check(): boolean {
  let good = true;
  for (const [name, [program = "", ...args]] of CHECKS) {
    const { status, stdout, stderr } = spawnSync(program, args, { encoding: "utf8" });
    if (status === 0) continue;
    good = false;
    console.log(`${name}:\n${stdout}${stderr}`);
  }
  console.log(good ? "· types, lint and format are in order" : "· check failed; see above");
  return good;
}

if (process.argv[1]?.endsWith("check.ts")) process.exit(check() ? 0 : 1);
