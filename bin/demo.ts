import { existsSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { loadShop } from "../demo/load";
import { migrate } from "../store/database";
import { freePort, startCluster, type Cluster } from "./cluster";
import { build, choosePort, keep, untilStopped, up } from "./serve";

const reset = process.argv.includes("--reset");
const LOCK = join(".yard-key", "demo.json");

/** A second demo in the same checkout would fight over the same data. */
function refuseSecond(): void {
  if (!existsSync(LOCK)) return;
  const { pid, url } = JSON.parse(readFileSync(LOCK, "utf8")) as { pid: number; url: string };
  const file = `/proc/${pid}/cmdline`;
  if (pid !== process.pid && existsSync(file) && readFileSync(file, "utf8").includes("bin/demo.ts")) {
    console.log(
      `The demo of this checkout is running already at ${url} (process ${pid}). Stop that one first.`,
    );
    process.exit(1);
  }
}

refuseSecond();
const say = (text: string): void => console.log(`· ${text}`);
let cluster: Cluster | null = null;
let databaseUrl = process.env.DATABASE_URL ?? "";
if (databaseUrl) say("using the database named by DATABASE_URL");
else {
  say(reset ? "making the demo's database anew …" : "starting the demo's database …");
  cluster = await startCluster("demo", { fresh: reset });
  databaseUrl = cluster.url;
}
await migrate(databaseUrl);
const loaded = await loadShop(databaseUrl, { reset: reset && cluster === null, say });
say(
  loaded
    ? "the demo shop is loaded"
    : "the demo shop is there from before (npm run demo -- --reset loads it anew)",
);
build();

const port = await choosePort();
const gaugePort = await freePort();
const gauge = keep(["standins/gauge/server.ts"], { PORT: `${gaugePort}` });
const web = keep(["bin/web.ts"], {
  NODE_ENV: "production",
  DATABASE_URL: databaseUrl,
  PORT: `${port}`,
  GAUGE_URL: `http://127.0.0.1:${gaugePort}`,
  LOG_LEVEL: process.env.LOG_LEVEL ?? "warn",
});
const url = `http://127.0.0.1:${port}`;
writeFileSync(LOCK, JSON.stringify({ pid: process.pid, url, web: web.pid(), database: cluster?.pid() }));
await up(`${url}/healthz`);
console.log(`\nYard Key is ready at ${url}\nEveryone's PIN in the demo shop is 2580. Ctrl-C stops it.\n`);
await untilStopped([web.stop, gauge.stop, async () => cluster?.stop()]);
rmSync(LOCK, { force: true });
