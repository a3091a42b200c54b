import { spawn, type ChildProcess } from "node:child_process";
import { mkdirSync } from "node:fs";
import { loadShop } from "../demo/load";
import { testDatabase } from "../store/testing";
import type { Pool } from "../store/database";
import { freePort } from "../bin/cluster";
import { up } from "../bin/serve";

/** One web process that can be killed and started again on the same port. */
export interface Web {
  url: string;
  kill: () => Promise<void>;
  start: () => Promise<void>;
}

/** The demo shop, or an empty one, on a database of its own, served by the production build. */
export interface Shop {
  webs: Web[];
  url: string;
  pool: Pool;
  databaseUrl: string;
  close: () => Promise<void>;
}

export async function openShop({ webs: count = 1, empty = false } = {}): Promise<Shop> {
  mkdirSync("test-results", { recursive: true });
  const database = await testDatabase();
  if (!empty) await loadShop(database.url);
  const gaugePort = await freePort();
  const gauge = run(["standins/gauge/server.ts"], { PORT: `${gaugePort}`, SEED: "42" });
  const webs: Web[] = [];
  for (let i = 0; i < count; i++) {
    const web = webOn(await freePort(), database.url, gaugePort);
    await web.start();
    webs.push(web);
  }
  return {
    webs,
    url: webs[0]?.url ?? "",
    pool: database.pool,
    databaseUrl: database.url,
    close: async () => {
      for (const web of webs) await web.kill();
      gauge.kill("SIGKILL");
      await database.drop();
    },
  };
}

function webOn(port: number, databaseUrl: string, gaugePort: number): Web {
  const url = `http://127.0.0.1:${port}`;
  let child: ChildProcess | null = null;
  return {
    url,
    start: async () => {
      child = run(["bin/web.ts"], {
        NODE_ENV: "production",
        DATABASE_URL: databaseUrl,
        PORT: `${port}`,
        GAUGE_URL: `http://127.0.0.1:${gaugePort}`,
        YARD_KEY_GALLERY: "1",
        LOG_LEVEL: "fatal",
      });
      await up(`${url}/healthz`, 30_000);
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
