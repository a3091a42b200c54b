import { existsSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { loadShop } from "../demo/load";
import { webDatabase } from "../store/web-role";
import { migrate } from "../store/database";
import { freePort, startCluster } from "./cluster";
import { processOf, build, choosePort, keep, standing, up } from "./serve";

const reset = process.argv.includes("--reset");
const LOCK = join(".yard-key", "demo.json");
const say = (text: string): void => console.log(`· ${text}`);

/** A second demo in the same checkout would fight over the same data. */
function refuseSecond(): void {
  if (!existsSync(LOCK)) return;
  const { pid, url } = JSON.parse(readFileSync(LOCK, "utf8")) as { pid: number; url: string };
  const file = `/proc/${pid}/cmdline`;
  if (existsSync(file) && readFileSync(file, "utf8").includes("bin/demo.ts")) {
    throw new Error(
      `The demo of this checkout is running already at ${url} (process ${pid}). Stop that one first.`,
    );
  }
}

await standing(async (started) => {
  refuseSecond();
  const port = await choosePort();
  const url = `http://127.0.0.1:${port}`;
  writeFileSync(LOCK, JSON.stringify({ pid: process.pid, url }));
  started(() => Promise.resolve(rmSync(LOCK, { force: true })));

  const given = process.env.DATABASE_URL ?? "";
  if (given && reset) {
    throw new Error(
      "--reset throws a whole database away: it does so with the demo's own, not with DATABASE_URL.",
    );
  }
  let databaseUrl = given;
  if (given) say("using the database named by DATABASE_URL");
  else {
    say(reset ? "making the demo's database anew …" : "starting the demo's database …");
    const cluster = await startCluster("demo", { fresh: reset });
    started(cluster.stop);
    databaseUrl = cluster.url;
  }
  await migrate(databaseUrl);
  const loaded = await loadShop(databaseUrl, say);
  say(
    loaded
      ? "the demo shop is loaded"
      : "the demo shop is there from before (npm run demo -- --reset loads it anew)",
  );
  build();

  const standin = async (
    name: Parameters<typeof processOf>[0],
    more: Record<string, string> = {},
  ): Promise<string> => {
    const own = await freePort();
    started(keep([processOf(name)], { PORT: `${own}`, ...more }).stop);
    return `http://127.0.0.1:${own}`;
  };
  const standins = {
    GAUGE_URL: await standin("gauge"),
    SCAN_TOOL_URL: await standin("scan-tool"),
    PRINTER_URL: await standin("printer", { OUT: join(".yard-key", "printed") }),
    // The usual supplier has a computer; the orders of the others go on paper.
    SUPPLIERS: `Tidewater Parts=${await standin("supplier", { CATALOGUE: join("demo", "prices.csv") })}`,
  };
  const env = {
    NODE_ENV: "production",
    DATABASE_URL: await webDatabase(databaseUrl),
    PORT: `${port}`,
    ...standins,
    LOG_LEVEL: process.env.LOG_LEVEL ?? "warn",
  };
  started(keep([processOf("web")], env).stop);
  await up(`${url}/healthz`);
  console.log(`\nYard Key is ready at ${url}\nEveryone's PIN in the demo shop is 2580. Ctrl-C stops it.\n`);
});
