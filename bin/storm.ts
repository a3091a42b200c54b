// Twenty benches in a storm, and what the database has afterwards: npm run storm. What a shop at work waits while strangers try to stop it:
// npm run storm -- strangers. A cluster of its own, with full durability.
import pg from "pg";
import { openShop, type Shop } from "../e2e/shop";
import { storm } from "../e2e/storm-of";
import { strangers, type Tried } from "../e2e/strangers-of";
import { startCluster, type Cluster } from "./cluster";
import { build } from "./serve";

const say = (text: string): void => console.log(`· ${text}`);
const isStrangers = process.argv.includes("strangers");
say(isStrangers ? "starting a database …" : "starting a database and a standby that follows it …");
const cluster = await startCluster("storm", { fresh: true });
const clusters = [cluster];
let good = false;
try {
  process.env.TEST_DATABASE_URL = cluster.url;
  build();
  if (!isStrangers) clusters.push(await followed(cluster));
  const shop = await openShop({ webs: 2, standbys: clusters.slice(1).map(({ url }) => url) });
  process.once("uncaughtException", (error) => {
    console.error(error);
    void shop
      .close()
      .then(() => Promise.all(clusters.map((one) => one.stop())))
      .finally(() => process.exit(1));
  });
  good = await (isStrangers ? againstStrangers(shop) : inTheStorm(shop));
  await shop.close();
} finally {
  for (const one of clusters.reverse()) await one.stop();
}
process.exit(good ? 0 : 1);

/** A standby that has on its disk whatever is acknowledged: docs/running.md. */
async function followed(primary: Cluster): Promise<Cluster> {
  const standby = await startCluster("storm-standby", { follows: primary.url });
  const client = new pg.Client({ connectionString: primary.url });
  await client.connect();
  await client.query("alter system set synchronous_standby_names = 'ANY 1 (*)'");
  await client.query("select pg_reload_conf()");
  await client.end();
  return standby;
}

/** The middle answer stays under a second and three times what it is in peace. */
async function againstStrangers(shop: Shop): Promise<boolean> {
  say("a shop at work, while this is tried; about two minutes …");
  console.log(`\n${"".padEnd(46)}  median   times   slowest  failed`);
  let peace = 0;
  const isGood = ({ median, failed }: Tried): boolean =>
    median < 1_000 && median <= 3 * Math.max(peace, 10) && failed === 0;
  const all = await strangers(shop, (one) => {
    peace ||= one.median;
    const times = one.median / peace;
    console.log(
      `${one.what.padEnd(46)}  ${one.median.toFixed(0).padStart(4)} ms  ${times.toFixed(1).padStart(5)}×  ${one.worst.toFixed(0).padStart(5)} ms  ${String(one.failed).padStart(6)}${isGood(one) ? "" : "  NOT GOOD"}`,
    );
  });
  return all.every(isGood);
}

async function inTheStorm(shop: Shop): Promise<boolean> {
  const seed = Number(process.env.SEED ?? 20);
  say("20 benches, two web processes, 100 kills, a server lost for good; five minutes of bad weather …");
  const w = await storm(shop, {
    benches: 20,
    each: 120,
    kills: 100,
    seed,
    promote: async () => {
      const [lost, next] = clusters as [Cluster, Cluster];
      process.kill(lost.pid(), "SIGKILL");
      // Not started again.
      await lost.stop();
      await next.promote();
    },
  });
  console.log(`
web processes killed     ${w.webKills}
database killed          ${w.databaseKills}
  lost, standby promoted ${w.promotions}
browsers crashed         ${w.browserCrashes}
requests sent            ${w.sent}
  cut on the way         ${w.cut}
  answer lost            ${w.unanswered}
facts sent repeatedly    ${w.repeated}

facts said               ${w.said}, ${w.pictures} of them with a picture, in ${w.seconds} s
present exactly once     ${w.once}
doubled                  ${w.doubled}
lost                     ${w.lost}
acknowledged and lost    ${w.acknowledgedLost}
pictures lost            ${w.picturesLost}
out of order             ${w.outOfOrder}
`);
  const good = w.once === w.said && w.picturesLost === 0 && w.outOfOrder === 0;
  console.log(`${w.once} of ${w.said} facts present exactly once: ${good ? "good" : "NOT GOOD"}`);
  return good;
}
