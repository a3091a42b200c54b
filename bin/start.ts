// The production start: migrations, no demo data. Without DATABASE_URL a private cluster of this checkout is used.
import { migrate } from "../store/database";
import { startCluster } from "./cluster";
import { build, choosePort, keep, standing, up } from "./serve";

await standing(async (started) => {
  const port = await choosePort();
  let databaseUrl = process.env.DATABASE_URL ?? "";
  if (!databaseUrl) {
    console.log("· starting the shop's database …");
    const cluster = await startCluster("shop");
    started(cluster.stop);
    databaseUrl = cluster.url;
  }
  await migrate(databaseUrl);
  build();
  started(keep(["bin/web.ts"], { NODE_ENV: "production", DATABASE_URL: databaseUrl, PORT: `${port}` }).stop);
  await up(`http://127.0.0.1:${port}/healthz`);
  console.log(`\nYard Key is ready at http://127.0.0.1:${port}\n`);
});
