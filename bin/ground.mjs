// The first thing every command runs: plain Node, no packages. Sees that what the command needs is on the machine, says what it
// is doing, then hands over to bin/<command>.ts.
import { spawn, spawnSync } from "node:child_process";
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { fileURLToPath } from "node:url";

const root = fileURLToPath(new URL("..", import.meta.url));
process.chdir(root);

const [command, ...rest] = process.argv.slice(2);
const NEEDS = {
  demo: ["packages", "postgresql"],
  start: ["packages", ...(process.env.DATABASE_URL ? [] : ["postgresql"])],
  test: ["packages", "postgresql", "chromium"],
  check: ["packages"],
  bench: ["packages", "postgresql", "chromium"],
  shots: ["packages", "postgresql", "chromium"],
  storm: ["packages", "postgresql"],
  backup: ["packages", "postgresql"],
  restore: ["packages", "postgresql"],
};
if (!(command in NEEDS)) {
  console.error(`usage: node bin/ground.mjs ${Object.keys(NEEDS).join("|")}`);
  process.exit(2);
}

const say = (text) => console.log(`· ${text}`);

function run(program, args, env = {}) {
  const result = spawnSync(program, args, {
    stdio: ["ignore", "pipe", "pipe"],
    encoding: "utf8",
    env: { ...process.env, ...env },
  });
  if (result.status === 0) return;
  console.error(result.stdout?.slice(-2000) ?? "", result.stderr?.slice(-2000) ?? String(result.error));
  console.error(`“${program} ${args.join(" ")}” failed; see above.`);
  process.exit(1);
}

function packages() {
  // The lock that was installed, kept beside the packages: comparing contents survives checkouts that touch every file's time.
  const installed = "node_modules/.yard-key-lock";
  const lock = readFileSync("package-lock.json", "utf8");
  if (existsSync(installed) && readFileSync(installed, "utf8") === lock) return;
  say("installing packages (npm ci, about a minute the first time) …");
  run("npm", ["ci", "--no-audit", "--no-fund", "--loglevel=error"]);
  writeFileSync(installed, lock);
}

const isRoot = process.getuid?.() === 0;
function apt(args) {
  const env = ["DEBIAN_FRONTEND=noninteractive"];
  if (isRoot) run("env", [...env, "apt-get", ...args]);
  else if (spawnSync("sudo", ["-n", "true"]).status === 0) run("sudo", ["env", ...env, "apt-get", ...args]);
  else {
    console.error(`Not root and no sudo: ask for “apt-get ${args.join(" ")}” once, then run this again.`);
    process.exit(1);
  }
}
let updated = false;
function debian(what, names, prepare) {
  if (!updated) {
    say("reading Debian's package list …");
    apt(["update", "-qq"]);
    updated = true;
  }
  say(`installing ${what} from Debian's packages …`);
  prepare?.();
  apt(["install", "-y", "-qq", "--no-install-recommends", "-o", "Dpkg::Options::=--force-confold", ...names]);
}

function postgresql() {
  const folder = "/usr/lib/postgresql";
  const has =
    existsSync(folder) && readdirSync(folder).some((v) => existsSync(`${folder}/${v}/bin/postgres`));
  if (has) return;
  debian("PostgreSQL", ["postgresql"], () => {
    // Without this the package starts a cluster of its own, which nobody asked for.
    const file = "/etc/postgresql-common/createcluster.conf";
    const script = `test -e ${file} || { mkdir -p /etc/postgresql-common && echo 'create_main_cluster = false' > ${file}; }`;
    if (isRoot) run("sh", ["-c", script]);
    else run("sudo", ["sh", "-c", script]);
  });
}

function chromium() {
  const programs = ["chromium", "chromium-headless-shell", "chromedriver"];
  if (programs.every((name) => existsSync(`/usr/bin/${name}`))) return;
  debian("Chromium and its driver", ["chromium", "chromium-headless-shell", "chromium-driver"]);
}

mkdirSync(".yard-key", { recursive: true });
const steps = { packages, postgresql, chromium };
for (const need of NEEDS[command]) steps[need]();

const child = spawn(process.execPath, ["--import", "tsx", `bin/${command}.ts`, ...rest], {
  stdio: ["inherit", "inherit", "inherit", "ipc"],
});
// A terminal's Ctrl-C reaches the child by itself; a signal sent to this process alone must be passed on.
for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"]) process.on(signal, () => child.kill(signal));
child.on("exit", (code, signal) => process.exit(code ?? (signal ? 130 : 1)));
