// Takes the pictures of docs/screenshots anew, at 1280×800, from a freshly loaded demo shop: npm run shots
import { Key, Person } from "../e2e/browser";
import { foundIn, jobOf, saidOf, sheetsOf, triedAt } from "../e2e/said";
import { openShop } from "../e2e/shop";
import { startCluster } from "./cluster";
import { build } from "./serve";

const cluster = await startCluster("shots", { fresh: true, careless: true });
process.env.TEST_DATABASE_URL = cluster.url;
build();
const shop = await openShop({ devices: ["gauge", "supplier", "scan tool"] });
const mira = await Person.sitDown();
const shot = async (name: string): Promise<void> => {
  await mira.driver.sleep(400);
  await mira.shot(`docs/screenshots/${name}.png`);
};
const open = async (path: string): Promise<void> => {
  await mira.go(`${shop.url}${path}`);
  await mira.ready();
};
const typed = async (...texts: string[]): Promise<void> => {
  await mira.until("return document.activeElement.id", (id) => id === "reading-value");
  for (const text of texts) {
    await mira.keys(text, Key.ENTER);
    await mira.driver.sleep(150);
  }
};
const theme = (name: string): Promise<unknown> =>
  mira.driver.executeScript(`document.cookie = 'look-theme=${name}; path=/'`);

try {
  await open("/sign-in");
  await theme("chalk");
  await mira.signIn(shop.url, "Edda L.");
  await shot("jobs");
  await open("/jobs/new?unit=marram-dunlin");
  await mira.press("//label[contains(., 'late body')]");
  await mira.press("//label[contains(., 'second plate')]");
  await mira.press("//label[.='full']");
  await open("/jobs/1030/symptoms");
  await mira.see("//*[@data-suspect]");
  await shot("symptoms");
  await open("/jobs/1030/teardown?step=t-body");
  await mira.press("//button[starts-with(., 'All 13 out')]");
  await shot("teardown");
  await open("/jobs/1028/bench");
  await mira.press("//button[@data-thing='pump']");
  await shot("bench");
  await open("/jobs/1028/inspect?at=front-drum&part=d1-friction");
  await mira.press("//li[@data-wear='burnt']//button[.='beyond use']");
  await mira.see("//li[@data-inspect='d1-friction' and @data-is='replace']");
  await shot("inspect");
  await open("/jobs/1027/measure?first=open");
  for (const [row, text] of [
    ["input-end-play", "0.42 0.43 0.42"],
    ["output-end-play", "0.55 0.56 0.55"],
    ["pump-side", "0.03 0.031 0.03 0.03"],
  ]) {
    await mira.press(`//tr[@data-row='${row}']//input`);
    await mira.keys(text ?? "", Key.ENTER);
  }
  await mira.driver.executeScript("scrollTo(0, 0)");
  await shot("measure");
  await open("/jobs/1029/cause");
  await shot("cause");
  await open("/jobs/1029");
  await shot("job");
  await open("/jobs/1030/choose/d1-clearance?show=found");
  await typed("1.46", "1.47", "1.48");
  await typed(".058");
  await open("/jobs/1030/choose/d1-clearance?show=trial");
  await mira.keys(Key.ESCAPE, "g");
  await mira.see("//*[@data-take='rest']//button[not(@disabled)]");
  for (let i = 0; i < 5; i++) {
    await mira.keys(" ");
    await mira.driver.sleep(1_500);
    await mira.keys(" ");
    await mira.see("//*[@data-take='rest']");
    await mira.driver.sleep(200);
  }
  await open("/jobs/1029/choose/h1-clearance?show=choose");
  await shot("pack-ring");
  // A face half tightened.
  await open("/jobs/1026/build?step=b-filter");
  await mira.press("//button[contains(., 'are in')]");
  await mira.press("//*[@data-turn='bolts filter-cap']//button[contains(., 'is tight')]");
  await mira.see("//*[@data-turn='bolts mount-bolts']");
  for (const place of [1, 2]) await mira.press(`//*[@data-place='${place}']`);
  await mira.see("//p[contains(., 'Place 3')]");
  await shot("build");
  // Three end plays that can only be met together, one washer in two of them.
  const plays = await jobOf(shop, "marram-whimbrel", { body: "a", drive: "one", band: "screw" });
  for (const [chain, marks, values] of [
    ["output-end-play", ["2"], ["0.026 in", "0.0265 in", "0.026 in"]],
    ["centre-end-play", ["Y"], ["0.012 in", "0.012 in", "0.0125 in"]],
    ["input-end-play", ["", "W"], ["0.016 in", "0.0165 in", "0.016 in"]],
  ] as const) {
    const sheet = (await sheetsOf(shop, plays)).get(chain);
    if (sheet) await saidOf(shop, plays, [...foundIn(sheet, marks), ...triedAt(sheet, ...values)]);
  }
  await open(`/jobs/${plays}/choose?for=nearest`);
  await mira.press("//button[contains(., 'Accept all 3')]");
  await mira.see("//section[@aria-label='Pull list']");
  await shot("together");
  await open("/jobs/1026/sheet");
  await shot("sheet");
  await open("/shelf?find=1.75");
  await shot("shelf");
  await open("/jobs/1023/prove?item=drive-1");
  await shot("prove");
  // A level that is being set, as the seat sees it.
  const level = { kind: "procedure", procedure: "level", as: "lift", note: "" } as const;
  await saidOf(shop, 1023, [
    { ...level, did: "begun", turn: "", senses: { fluid: "22 °C", engine: "off" } },
    { ...level, did: "done", turn: "fill", senses: {} },
  ]);
  await open("/jobs/1023/prove/level?as=seat");
  await mira.press("//input[contains(@class, 'toggle')]");
  for (const one of ["Engine", "Brake"])
    await mira.press(`//section[@aria-label='Vehicle']//button[contains(., '${one}')]`);
  for (const turn of ["start", "ranges"])
    await mira.press(`//section[@data-mine='${turn}']//button[contains(., 'Done')][not(@disabled)]`);
  await mira.see("//*[@data-clock]");
  await shot("level");
  await open(
    "/jobs/1030/stronger?asked=1&torque=380+N%C2%B7m&use=towing&at=d3&way=d3-thin-steels&way=d3-end-plate",
  );
  await mira.see("//*[@data-capacity-chart]");
  await shot("stronger");
  await open("/jobs/1029/parts");
  await mira.see("//*[@data-trade-chart]");
  await shot("parts");
  await mira.press("//button[starts-with(., 'Order')]");
  await mira.see("//*[@data-needs][contains(., 'on the way')]");
  const { rows } = await shop.pool.query<{ newest: string }>("select max(number) as newest from purchase");
  await open(`/orders/${rows[0]?.newest}`);
  await shot("goods-in");
  await theme("lamp");
  await open("/books/marram-whimbrel/train");
  await mira.press("//th//button[.='1']");
  await shot("book-gears");
} finally {
  await mira.leave();
  await shop.close();
  await cluster.stop();
}
process.exit(0);
