import { spawn, type ChildProcess } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { createCookie } from "react-router";
import { loadShop } from "../demo/load";
import { cookieKey } from "../store/house";
import { beginSession, listStaff } from "../store/staff";
import { webDatabases } from "../store/web-role";
import { testDatabase } from "../store/testing";
import { openPool, type Pool } from "../store/database";
import { freePort } from "../bin/cluster";
import { processOf, up } from "../bin/serve";

/** A process of the shop that can be killed and started again on the same port. */
export interface Part {
  url: string;
  kill: () => Promise<void>;
  start: () => Promise<void>;
}

/** The demo shop, or an empty one, on a database of its own, served by the production build. */
export interface Shop {
  webs: Part[];
  gauge: Part;
  scanTool: Part;
  printer: Part;
  /** The supplier with a computer: Tidewater Parts. */
  supplier: Part;
  /** Where the label printer keeps what it would have printed. */
  printed: string;
  url: string;
  pool: Pool;
  /** The cookie of a session of this person’s, as `name=value`. */
  cookieOf: (name: string) => Promise<string>;
  databaseUrl: string;
  close: () => Promise<void>;
}

export async function openShop({
  webs: count = 1,
  empty = false,
  devices = [],
  standbys = [],
}: {
  webs?: number;
  empty?: boolean;
  /** Which stand-ins are switched on. */
  devices?: readonly ("gauge" | "scan tool" | "printer" | "supplier")[];
  /** Servers that follow the tests' own: the web processes know them too. The database then goes with its clusters. */
  standbys?: readonly string[];
} = {}): Promise<Shop> {
  mkdirSync("test-results", { recursive: true });
  const database = await testDatabase(empty ? undefined : { name: "demo_shop", fill: loadShop });
  const gauge = part(await freePort(), "", (port) =>
    run([processOf("gauge")], { PORT: `${port}`, SEED: "42" }),
  );
  const scanTool = part(await freePort(), "", (port) => run([processOf("scan-tool")], { PORT: `${port}` }));
  const printed = mkdtempSync(join(tmpdir(), "yard-key-printed-"));
  const printer = part(await freePort(), "/printed", (port) =>
    run([processOf("printer")], { PORT: `${port}`, OUT: printed }),
  );
  const supplier = part(await freePort(), "/taken", (port) =>
    run([processOf("supplier")], { PORT: `${port}`, CATALOGUE: "demo/prices.csv" }),
  );
  if (devices.includes("supplier")) await supplier.start();
  if (devices.includes("gauge")) await gauge.start();
  if (devices.includes("scan tool")) await scanTool.start();
  if (devices.includes("printer")) await printer.start();
  // As at the start command: the web processes may not change what is kept.
  const { pathname } = new URL(database.url);
  const owners = [database.url, ...standbys.map((url) => Object.assign(new URL(url), { pathname }).href)];
  const webUrl = await webDatabases(owners.join(" "));
  const pool = standbys.length > 0 ? openPool(owners.join(" "), () => {}) : database.pool;
  const webs: Part[] = [];
  for (let i = 0; i < count; i++) {
    const env = {
      NODE_ENV: "production",
      LOG_LEVEL: "error",
      YARD_KEY_GALLERY: "1",
      ...(empty ? { FIRST_RUN_CODE } : {}),
      DATABASE_URL: webUrl,
      GAUGE_URL: gauge.url,
      SCAN_TOOL_URL: scanTool.url,
      PRINTER_URL: printer.url,
      ...(devices.includes("supplier")
        ? { SUPPLIERS: `Tidewater Parts=${supplier.url}`, SUPPLIERS_RETRY: "1", SUPPLIERS_ASK: "2" }
        : {}),
    };
    const web = part(await freePort(), "/healthz", (port) =>
      run([processOf("web")], { ...env, PORT: `${port}` }),
    );
    await web.start();
    webs.push(web);
  }
  return {
    webs,
    gauge,
    scanTool,
    printer,
    supplier,
    printed,
    url: webs[0]?.url ?? "",
    pool,
    cookieOf: (name) => sessionCookie(pool, name),
    databaseUrl: database.url,
    close: async () => {
      for (const web of webs) await web.kill();
      await Promise.all([gauge.kill(), scanTool.kill(), printer.kill(), supplier.kill()]);
      rmSync(printed, { recursive: true, force: true });
      if (standbys.length === 0) await database.drop();
      else await Promise.all([pool.end(), database.pool.end()]);
    },
  };
}

/** What the console of an empty shop shows. */
export const FIRST_RUN_CODE = "7KX4QP29";

async function sessionCookie(pool: Pool, name: string): Promise<string> {
  const person = (await listStaff(pool)).find((one) => one.name === name);
  if (!person) throw new Error(`nobody here is called ${name}`);
  const cookie = createCookie("yard-key", { secrets: [await cookieKey(pool)] });
  return (await cookie.serialize(await beginSession(pool, person.id))).split(";")[0] ?? "";
}

function part(port: number, health: string, launch: (port: number) => ChildProcess): Part {
  const url = `http://127.0.0.1:${port}`;
  let child: ChildProcess | null = null;
  return {
    url,
    start: async () => {
      child = launch(port);
      if (health) await up(`${url}${health}`, 30_000);
    },
    kill: async () => {
      const dying = child;
      if (!dying || dying.exitCode !== null || dying.signalCode !== null) return;
      const gone = new Promise((resolve) => dying.once("exit", resolve));
      dying.kill("SIGKILL");
      await gone;
    },
  };
}

/** The last that the processes of this file's shops complained of: a journey that fails tells it. */
export const complaints: string[] = [];
const MOST_COMPLAINTS = 8;

function run(args: string[], env: Record<string, string>): ChildProcess {
  const child = spawn(process.execPath, args, {
    stdio: ["ignore", "pipe", "inherit"],
    env: { ...process.env, NODE_OPTIONS: "", ...env },
  });
  child.stdout?.setEncoding("utf8").on("data", (said: string) => {
    complaints.push(...said.split("\n").filter((line) => line.includes('"level":50')));
    complaints.splice(0, complaints.length - MOST_COMPLAINTS);
  });
  return child;
}
