import { spawn, spawnSync, type ChildProcess } from "node:child_process";
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { join } from "node:path";
import { setTimeout as pause } from "node:timers/promises";

const say = (text: string): void => console.log(`· ${text}`);

/** Everything the build is made from. */
const SOURCES = [
  "app",
  "core",
  "store",
  "public",
  "package-lock.json",
  "vite.config.ts",
  "react-router.config.ts",
  "bin/service-worker.ts",
  "bin/processes.ts",
  "bin/web.ts",
  "standins",
  "package.json",
];

/** A process that was built beside the web application, as Node is told to run it. */
export const processOf = (name: "web" | "gauge" | "scan-tool" | "printer" | "supplier"): string =>
  `build/processes/${name}.js`;

function newest(path: string): number {
  const stat = statSync(path);
  if (!stat.isDirectory()) return stat.mtimeMs;
  return Math.max(0, ...readdirSync(path).map((name) => newest(join(path, name))));
}

/** Builds the web application unless the last build is of the same sources. */
export function build(): void {
  const stamp = "build/of";
  const now = String(Math.max(...SOURCES.map(newest)));
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === now) return;
  say("building (about 15 seconds) …");
  const steps: [string, string[]][] = [
    ["npx", ["--no-install", "react-router", "build"]],
    [process.execPath, ["--import", "tsx", "bin/service-worker.ts"]],
    [process.execPath, ["--import", "tsx", "bin/processes.ts"]],
  ];
  for (const [program, args] of steps) {
    const result = spawnSync(program, args, { encoding: "utf8" });
    if (result.status === 0) continue;
    console.error(result.stdout, result.stderr);
    throw new Error("the build failed; see above");
  }
  writeFileSync(stamp, now);
}

const DEFAULT_PORT = 4310;

function isFree(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const server = createServer();
    server.once("error", () => resolve(false));
    server.listen(port, "127.0.0.1", () => server.close(() => resolve(true)));
  });
}

/** `PORT`, which must be free; else the default; else the next free one, said plainly. */
export async function choosePort(): Promise<number> {
  const wanted = process.env.PORT;
  if (wanted !== undefined && wanted !== "") {
    const port = Number(wanted);
    if (!Number.isInteger(port) || port < 1 || port > 65_535)
      throw new Error(`PORT=${wanted} is not a port; use 1 to 65535`);
    if (!(await isFree(port))) throw new Error(`PORT=${port} is taken; choose another or leave PORT out`);
    return port;
  }
  for (let port = DEFAULT_PORT; port < DEFAULT_PORT + 200; port++) {
    if (await isFree(port)) {
      if (port !== DEFAULT_PORT) say(`port ${DEFAULT_PORT} is taken; using ${port}`);
      return port;
    }
  }
  throw new Error(`no free port from ${DEFAULT_PORT} on; set PORT`);
}

const DEFAULT_HTTPS_PORT = 4343;

/** `HTTPS_PORT`, which must be free; else the next free one from the default on. */
export async function chooseHttpsPort(httpPort: number): Promise<number> {
  const wanted = process.env.HTTPS_PORT;
  if (wanted) {
    const port = Number(wanted);
    if (!Number.isInteger(port) || port < 1 || port > 65_535 || port === httpPort || !(await isFree(port)))
      throw new Error(`HTTPS_PORT=${wanted} cannot be used; choose another or leave it out`);
    return port;
  }
  for (let port = DEFAULT_HTTPS_PORT; port < DEFAULT_HTTPS_PORT + 200; port++)
    if (port !== httpPort && (await isFree(port))) return port;
  throw new Error("no free port for https; set HTTPS_PORT");
}

/** A child process that is started again when it dies. */
export interface Kept {
  pid(): number | undefined;
  stop: () => Promise<void>;
}

export function keep(args: readonly string[], env: Record<string, string>, { again = true } = {}): Kept {
  let child: ChildProcess;
  let stopping = false;
  const launch = (): void => {
    child = spawn(process.execPath, [...args], {
      // The channel closes when this process dies, however it dies; the child then ends by itself and blocks no port.
      stdio: ["ignore", "inherit", "inherit", "ipc"],
      env: { ...process.env, ...env },
      // A group of its own, so that Ctrl-C reaches the keeper first and things stop in order.
      detached: true,
    });
    child.on("exit", () => {
      if (!stopping && again) setTimeout(() => !stopping && launch(), 500);
    });
  };
  launch();
  return {
    pid: () => child.pid,
    stop: async () => {
      stopping = true;
      if (child.exitCode !== null || child.signalCode !== null) return;
      const gone = new Promise((resolve) => child.once("exit", resolve));
      child.kill("SIGTERM");
      await Promise.race([gone, pause(5_000).then(() => child.kill("SIGKILL"))]);
    },
  };
}

/** Waits until a URL answers with success. */
export async function up(url: string, patience = 20_000): Promise<void> {
  const until = Date.now() + patience;
  for (;;) {
    const answer = await fetch(url).catch(() => null);
    if (answer?.ok) return;
    if (Date.now() > until) throw new Error(`${url} does not answer`);
    await pause(100);
  }
}

/**
 * Starts things and keeps them until Ctrl-C, SIGTERM or the end of whoever started this; then stops them, the last started
 * first. Whatever goes wrong on the way is told in a plain sentence, and what stood by then is stopped as well.
 *
 * @param start calls its argument with how to stop each thing it has started.
 */
export async function standing(
  start: (started: (stop: () => Promise<void>) => void) => Promise<void>,
): Promise<void> {
  const told = new Promise<void>((resolve) => {
    // `on`, not `once`: Ctrl-C comes from the terminal and again from whoever started this; the second must not cut the
    // stopping short.
    for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"] as const) process.on(signal, () => resolve());
    process.once("disconnect", () => resolve());
  });
  const stops: (() => Promise<void>)[] = [];
  try {
    await start((stop) => stops.unshift(stop));
    await told;
    console.log("\n· stopping …");
  } catch (error) {
    console.error(error instanceof Error ? error.message : String(error));
    process.exitCode = 1;
  }
  for (const stop of stops) await stop();
  say("stopped");
  process.exit();
}
