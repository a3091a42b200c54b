// Everything that is checked: types, lint, format; Jest on core, store and the rest; the browser journeys against a production
// build. Ends with `N passed, N failed`. Arguments go to Jest: npm test -- e2e/slice
import { spawn } from "node:child_process";
import { once } from "node:events";
import { mkdirSync, readFileSync, rmSync } from "node:fs";
import { check } from "./check";
import { startCluster } from "./cluster";
import { build } from "./serve";

const say = (text: string): void => console.log(`· ${text}`);
const only = process.argv.slice(2);
const tally = { passed: 0, failed: 0 };
const count = (good: boolean): void => void (good ? tally.passed++ : tally.failed++);

interface Report {
  numPassedTests: number;
  numFailedTests: number;
  numFailedTestSuites: number;
  numRuntimeErrorTestSuites: number;
}

async function jest(
  name: string,
  projects: string[],
  extra: string[],
  env: Record<string, string>,
): Promise<void> {
  const file = `test-results/jest-${name}.json`;
  const args = [
    "node_modules/jest/bin/jest.js",
    "--selectProjects",
    ...projects,
    "--json",
    `--outputFile=${file}`,
    // What a failed test leaves open must not keep the run from ending.
    "--forceExit",
    ...extra,
    ...only,
  ];
  const node = ["--experimental-vm-modules", "--disable-warning=ExperimentalWarning"];
  // Not spawnSync: while the tests run, this process starts the database again when a test kills it.
  const child = spawn(process.execPath, [...node, ...args], {
    stdio: ["ignore", "ignore", "inherit"],
    env: { ...process.env, ...env },
  });
  const [status] = (await once(child, "exit")) as [number | null];
  try {
    const report = JSON.parse(readFileSync(file, "utf8")) as Report;
    tally.passed += report.numPassedTests;
    // A suite that could not even run counts as one failure.
    tally.failed += report.numFailedTests + report.numRuntimeErrorTestSuites;
    if (status !== 0 && report.numFailedTests + report.numRuntimeErrorTestSuites === 0) tally.failed++;
  } catch {
    if (only.length === 0) tally.failed++;
  }
}

rmSync("test-results", { recursive: true, force: true });
mkdirSync("test-results", { recursive: true });
say("starting a database for the tests …");
const cluster = await startCluster("test", { fresh: true, careless: true });
try {
  const env = { TEST_DATABASE_URL: cluster.url };
  // The linter uses one core and no more: the units go on beside it.
  const whole = only.length === 0;
  if (whole) say("checking types, lint and format …");
  const checked = whole ? check() : null;
  say("testing core, store and server …");
  await jest("units", ["core", "store"], ["--maxWorkers=2", "--passWithNoTests"], env);
  if (checked) count(await checked);
  build();
  say("going through the journeys in the browser …");
  await jest("journeys", ["e2e"], ["--maxWorkers=3", "--passWithNoTests"], env);
  say("the journeys that kill the database, by themselves …");
  await jest("alone", ["alone"], ["--runInBand", "--passWithNoTests"], env);
} finally {
  await cluster.stop();
}
if (tally.failed > 0) say("screenshots of failed journeys: test-results/*.png");
console.log(`${tally.passed} passed, ${tally.failed} failed`);
process.exit(tally.failed === 0 ? 0 : 1);
