import { spawn, type ChildProcess } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { loadShop } from "../demo/load";
import { testDatabase } from "../store/testing";
import type { Pool } from "../store/database";
import { freePort } from "../bin/cluster";
import { up } from "../bin/serve";

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
  /** Where the label printer keeps what it would have printed. */
  printed: string;
  url: string;
  pool: Pool;
  databaseUrl: string;
  close: () => Promise<void>;
}

export async function openShop({
  webs: count = 1,
  empty = false,
  devices = [],
}: {
  webs?: number;
  empty?: boolean;
  /** Which stand-ins are switched on. */
  devices?: readonly ("gauge" | "scan tool" | "printer")[];
} = {}): Promise<Shop> {
  mkdirSync("test-results", { recursive: true });
  const database = await testDatabase(empty ? undefined : { name: "demo_shop", fill: loadShop });
  const gauge = part(await freePort(), "", (port) =>
    run(["standins/gauge/server.ts"], { PORT: `${port}`, SEED: "42" }),
  );
  const scanTool = part(await freePort(), "", (port) =>
    run(["standins/scan-tool/server.ts"], { PORT: `${port}` }),
  );
  const printed = mkdtempSync(join(tmpdir(), "yard-key-printed-"));
  const printer = part(await freePort(), "/printed", (port) =>
    run(["standins/printer/server.ts"], { PORT: `${port}`, OUT: printed }),
  );
  if (devices.includes("gauge")) await gauge.start();
  if (devices.includes("scan tool")) await scanTool.start();
  if (devices.includes("printer")) await printer.start();
  const webs: Part[] = [];
  for (let i = 0; i < count; i++) {
    const env = {
      ...{ NODE_ENV: "production", LOG_LEVEL: "fatal", YARD_KEY_GALLERY: "1" },
      ...{ DATABASE_URL: database.url, GAUGE_URL: gauge.url },
      ...{ SCAN_TOOL_URL: scanTool.url, PRINTER_URL: printer.url },
    };
    const web = part(await freePort(), "/healthz", (port) =>
      run(["bin/web.ts"], { ...env, PORT: `${port}` }),
    );
    await web.start();
    webs.push(web);
  }
  return {
    webs,
    gauge,
    scanTool,
    printer,
    printed,
    url: webs[0]?.url ?? "",
    pool: database.pool,
    databaseUrl: database.url,
    close: async () => {
      for (const web of webs) await web.kill();
      await Promise.all([gauge.kill(), scanTool.kill(), printer.kill()]);
      rmSync(printed, { recursive: true, force: true });
      await database.drop();
    },
  };
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

const run = (args: string[], env: Record<string, string>): ChildProcess =>
  spawn(process.execPath, ["--import", "tsx", ...args], {
    stdio: ["ignore", "ignore", "inherit"],
    env: { ...process.env, NODE_OPTIONS: "", ...env },
  });
