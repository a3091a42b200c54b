// The production start: migrations, no demo data. Without DATABASE_URL a private cluster of this checkout is used.
import { migrate } from "../store/database";
import { startCluster, type Cluster } from "./cluster";
import { build, choosePort, keep, untilStopped, up } from "./serve";

let cluster: Cluster | null = null;
let databaseUrl = process.env.DATABASE_URL ?? "";
if (!databaseUrl) {
  console.log("· starting the shop's database …");
  cluster = await startCluster("shop");
  databaseUrl = cluster.url;
}
await migrate(databaseUrl);
build();
const port = await choosePort();
const web = keep(["bin/web.ts"], { NODE_ENV: "production", DATABASE_URL: databaseUrl, PORT: `${port}` });
await up(`http://127.0.0.1:${port}/healthz`);
console.log(`\nYard Key is ready at http://127.0.0.1:${port}\n`);
await untilStopped([web.stop, async () => cluster?.stop()]);
