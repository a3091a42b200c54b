// The production start: migrations, no demo data. Without DATABASE_URL a private cluster of this checkout is used. Serves http on this
// machine and https to the shop's network.
import { randomInt } from "node:crypto";
import { networkInterfaces } from "node:os";
import { join } from "node:path";
import { migrate, openPool, writtenTo } from "../store/database";
import { listStaff } from "../store/staff";
import { webDatabases } from "../store/web-role";
import { localTls, ownersTls } from "./authority";
import { startCluster } from "./cluster";
import { nightly } from "./nightly";
import { processOf, build, chooseHttpsPort, choosePort, keep, standing, up } from "./serve";

/** Eight letters and digits that cannot be taken for each other. */
const firstRunCode = (): string =>
  Array.from({ length: 8 }, () => "23456789ABCDEFGHJKLMNPQRSTUVWXYZ"[randomInt(32)]).join("");

/** Whether nobody is known yet. */
async function isEmpty(databaseUrl: string): Promise<boolean> {
  const pool = openPool(databaseUrl, () => {});
  try {
    return (await listStaff(pool)).length === 0;
  } finally {
    await pool.end();
  }
}

await standing(async (started) => {
  const port = await choosePort();
  const httpsPort = await chooseHttpsPort(port);
  let urls = process.env.DATABASE_URLS || (process.env.DATABASE_URL ?? "");
  if (!urls) {
    console.log("· starting the shop's database …");
    const cluster = await startCluster("shop");
    started(cluster.stop);
    urls = cluster.url;
  }
  const databaseUrl = await writtenTo(urls);
  await migrate(databaseUrl);
  const webUrls = await webDatabases(urls);
  if (webUrls === urls)
    console.log(
      "· this database’s account may make no other: the web processes work under it, and could change what is kept",
    );
  build();
  const owners = ownersTls();
  const folder = join(process.cwd(), ".yard-key", "authority");
  const tls = owners ?? (await localTls(folder));
  const env: Record<string, string> = {
    NODE_ENV: "production",
    DATABASE_URL: webUrls,
    PORT: `${port}`,
    HOST: process.env.HOST ?? "0.0.0.0",
    HTTPS_PORT: `${httpsPort}`,
    TLS_CERT: process.env.TLS_CERT ?? join(folder, "server.crt"),
    TLS_KEY: process.env.TLS_KEY ?? join(folder, "server.key"),
    ...(tls.authority ? { AUTHORITY: join(folder, "authority.crt") } : {}),
  };
  const nobody = await isEmpty(databaseUrl);
  // Whoever reads the console may make the first account; nobody else on the network.
  if (nobody) env.FIRST_RUN_CODE = firstRunCode();
  started(keep([processOf("web")], env).stop);
  const copies = process.env.COPIES ?? join(process.cwd(), ".yard-key", "copies");
  started(nightly(() => writtenTo(urls), copies));
  console.log(`· a copy of everything is made each day in ${copies}`);
  await up(`http://127.0.0.1:${port}/healthz`);
  const address = Object.values(networkInterfaces())
    .flatMap((all) => all ?? [])
    .find(({ family, internal }) => family === "IPv4" && !internal)?.address;
  if (nobody)
    console.log(`\nNobody is known here yet. The code for the first account: ${env.FIRST_RUN_CODE}`);
  console.log(`\nYard Key is ready at http://127.0.0.1:${port}`);
  if (address) {
    console.log(`The shop's tablets reach it at https://${address}:${httpsPort}`);
    if (tls.authority) console.log(`How they learn to trust it: http://${address}:${port}/trust`);
  }
  console.log("");
});
