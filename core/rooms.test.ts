// The rooms of the core, downhill: a room imports only from those before it, types too.
import { readdirSync, readFileSync } from "node:fs";
import { dirname, join, normalize } from "node:path";
import { expect, it } from "@jest/globals";

const ROOMS = [
  ...([
    "quantity",
    "shape",
    "reading",
    "torque",
    "chain",
    "book",
    "table",
    "pack",
    "find",
    "gears",
    "check",
    "capacity",
  ] as const),
  ...([
    "select",
    "fact",
    "measure",
    "steps",
    "learn",
    "diagnose",
    "inspect",
    "build",
    "procedure",
    "needs",
    "kit",
    "restock",
    "prove",
    "stage",
    "handover",
  ] as const),
];
const root = new URL(".", import.meta.url).pathname;

const files = (folder: string): string[] =>
  readdirSync(join(root, folder), { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return files(path);
    return path.endsWith(".ts") && !path.endsWith(".test.ts") ? [path] : [];
  });

it("every room of the core stands in the order, and imports downhill only", () => {
  const found = readdirSync(root, { withFileTypes: true })
    .filter((entry) => entry.isDirectory() && entry.name !== "testing")
    .map(({ name }) => name);
  expect([...found].sort()).toEqual([...ROOMS].sort());
  const uphill = ROOMS.flatMap((room, i) =>
    files(room).flatMap((file) =>
      [...readFileSync(join(root, file), "utf8").matchAll(/from "(\.\.?\/[^"]*)"/g)].flatMap(
        ([, path = ""]) => {
          const to = normalize(join(dirname(file), path)).split("/")[0] ?? "";
          const at = ROOMS.findIndex((one) => one === to);
          return to === room || (at >= 0 && at < i) ? [] : [`${file} → ${to}`];
        },
      ),
    ),
  );
  expect(uphill).toEqual([]);
});

it("every public name of a room says what it is", () => {
  const silent = ROOMS.flatMap((room) => {
    const index = readFileSync(join(root, room, "index.ts"), "utf8");
    const named = new Set(index.match(/\b[A-Za-z]\w+\b/g));
    return files(room).flatMap((file) =>
      [...readFileSync(join(root, file), "utf8").matchAll(/^(.*)\nexport (?:abstract )?\w+ (\w+)/gm)].flatMap(
        ([, before = "", name = ""]) =>
          // Of a name with several signatures the first says it.
          named.has(name) && !/\*\/\s*$|^export function/.test(before) ? [`${file}: ${name}`] : [],
      ),
    );
  });
  expect(silent).toEqual([]);
});
