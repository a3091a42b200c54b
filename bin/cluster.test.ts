import { spawn, type ChildProcess } from "node:child_process";
import { rmSync } from "node:fs";
import { afterAll, expect, it } from "@jest/globals";
import pg from "pg";
import { answering, startCluster } from "./cluster";

const NAME = `try-${process.pid}`;
const keepers: ChildProcess[] = [];
afterAll(() => {
  for (const keeper of keepers) keeper.kill("SIGKILL");
  rmSync(`.yard-key/${NAME}`, { recursive: true, force: true });
});

/** Starts the cluster in a process of its own, as `npm run demo` does, and tells its address. */
function keeper(): Promise<{ child: ChildProcess; url: string }> {
  const script = `import("./bin/cluster.ts").then(async ({ startCluster }) => {
    const { url } = await startCluster("${NAME}", { careless: true }); console.log("URL " + url); setInterval(() => {}, 1000); })`;
  const child = spawn(process.execPath, ["--import", "tsx", "--input-type=module", "-e", script], {
    stdio: ["ignore", "pipe", "inherit"],
    env: { ...process.env, NODE_OPTIONS: "" },
  });
  keepers.push(child);
  return new Promise((resolve, reject) => {
    child.stdout.on("data", (chunk: Buffer) => {
      const url = /URL (\S+)/.exec(chunk.toString())?.[1];
      if (url) resolve({ child, url });
    });
    child.on("exit", (code) => reject(new Error(`the keeper ended with ${code}`)));
  });
}

async function ask(url: string, sql: string): Promise<unknown[]> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return (await client.query<Record<string, unknown>>(sql)).rows;
  } finally {
    await client.end();
  }
}

it("is of loopback and a password, outlives a killed postmaster, and a killed run does not block the next", async () => {
  const first = await keeper();
  await ask(first.url, "create table kept (n int); insert into kept values (7)");
  expect(await ask(first.url, "show listen_addresses")).toEqual([{ listen_addresses: "127.0.0.1" }]);
  const wrong = first.url.replace(/:[^:@]+@/, ":wrong@");
  await expect(ask(wrong, "select 1")).rejects.toMatchObject({ code: "28P01" });

  const [row] = (await ask(first.url, "select pg_read_file('postmaster.pid') as lock")) as { lock: string }[];
  process.kill(Number(row?.lock.split("\n")[0]), "SIGKILL");
  await answering(first.url, 20_000);
  expect(await ask(first.url, "select n from kept")).toEqual([{ n: 7 }]);

  // Killed without a chance to stop its database: the next start ends what is left and goes on with the data.
  first.child.removeAllListeners("exit");
  first.child.kill("SIGKILL");
  const next = await startCluster(NAME, { careless: true });
  expect(await ask(next.url, "select n from kept")).toEqual([{ n: 7 }]);
  await next.stop();
  await expect(ask(next.url, "select 1")).rejects.toThrow();

  const fresh = await startCluster(NAME, { fresh: true, careless: true });
  await expect(ask(fresh.url, "select n from kept")).rejects.toMatchObject({ code: "42P01" });
  await fresh.stop();
}, 60_000);
