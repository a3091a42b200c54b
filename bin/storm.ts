// Twenty benches in a storm, and what the database has afterwards: npm run storm. A cluster of its own, with full durability.
import { openShop } from "../e2e/shop";
import { storm } from "../e2e/storm-of";
import { startCluster } from "./cluster";
import { build } from "./serve";

const say = (text: string): void => console.log(`· ${text}`);
say("starting a database …");
const cluster = await startCluster("storm", { fresh: true });
let good = false;
try {
  process.env.TEST_DATABASE_URL = cluster.url;
  build();
  const shop = await openShop({ webs: 2 });
  process.once("uncaughtException", (error) => {
    console.error(error);
    void shop
      .close()
      .then(() => cluster.stop())
      .finally(() => process.exit(1));
  });
  const seed = Number(process.env.SEED ?? 20);
  say("20 benches, 120 facts each, two web processes; about a minute of bad weather …");
  const w = await storm(shop, { benches: 20, each: 120, seed });
  await shop.close();
  console.log(`
web processes killed     ${w.webKills}
database killed          ${w.databaseKills}
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
  good = w.once === w.said && w.picturesLost === 0 && w.outOfOrder === 0;
  console.log(`${w.once} of ${w.said} facts present exactly once: ${good ? "good" : "NOT GOOD"}`);
} finally {
  await cluster.stop();
}
process.exit(good ? 0 : 1);
