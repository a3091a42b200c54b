import { afterAll, beforeAll, expect, it } from "@jest/globals";
import { logging } from "selenium-webdriver";
import { Person, journey } from "./browser";
import { openShop, type Shop } from "./shop";

let shop: Shop;
let edda: Person;

beforeAll(async () => {
  shop = await openShop({ devices: ["gauge"] });
  edda = await Person.sitDown();
}, 90_000);
afterAll(async () => {
  await edda.leave();
  await shop.close();
});

const SCREENS = [
  "/",
  "/?which=closed",
  "/jobs/new",
  "/jobs/import",
  "/jobs/1029",
  "/jobs/1025",
  "/jobs/1029/choose/d1-clearance",
  "/jobs/1029/choose/d1-clearance?show=found",
  "/jobs/1029/choose/h1-clearance?show=trial",
  "/jobs/1029/choose/h1-clearance?show=choose",
  "/jobs/1030/choose/h2-clearance",
  "/jobs/1029/sheet",
  "/jobs/1010/sheet",
  "/jobs/1030/book-in",
  "/jobs/1030/symptoms",
  "/jobs/1030/before",
  "/jobs/1026/before",
  "/jobs/1030/fault",
  "/jobs/1003/fault",
  "/jobs/1030/photos",
  "/jobs/1030/labels",
  "/jobs/1028/teardown",
  "/jobs/1030/teardown?step=t-body",
  "/jobs/1028/bench",
  "/jobs/1028/inspect?at=front-drum&part=d1-friction",
  "/jobs/1029/inspect?at=third-drum&part=d3-friction",
  "/jobs/1027/cause",
  "/jobs/1029/measure",
  "/jobs/1023/prove?item=drive-1",
  "/jobs/1023/prove/level?as=both",
  "/jobs/1030/comeback",
  "/jobs/1021/customer",
  "/offline",
  "/shelf",
  "/shelf/prices",
  "/house",
  "/books",
  "/books/by-hand",
  "/books/from-table",
  "/books/selwyn-sanderling",
  "/books/marram-whimbrel/train",
  "/books/marram-dunlin/packs",
  "/books/corrie-plover/packs",
  "/books/marram-dunlin/chains",
  "/books/corrie-godwit/fasteners",
  "/books/selwyn-turnstone/parts",
  "/books/marram-dunlin/steps",
  "/books/selwyn-turnstone/service",
  "/books/marram-dunlin/revisions",
  "/gallery",
];

/** The looks differ in their colours alone. */
const COLOURS = "color-contrast";

it(
  "axe-core finds nothing serious on any screen, light or dark, and no page breaks its own policy",
  () =>
    journey("axe", [edda], async () => {
      const found: string[] = [];
      await edda.go(`${shop.url}/sign-in`);
      found.push(...(await edda.axe()).map((problem) => `sign-in ${problem}`));
      await edda.sitsAs(shop, "Edda L.", shop.url);
      for (const screen of SCREENS) {
        await edda.go(`${shop.url}${screen}`);
        await edda.ready();
        found.push(...(await edda.axe()).map((problem) => `${screen} ${problem}`));
        await edda.driver.executeScript("document.documentElement.dataset.theme = 'lamp'");
        // On a busy machine a colour on its way from one look to the other would be judged.
        await edda.until("return document.getAnimations().length", (n) => n === 0);
        found.push(...(await edda.axe(COLOURS)).map((problem) => `dark ${screen} ${problem}`));
      }
      expect(found).toEqual([]);
      const logs = await edda.driver.manage().logs().get(logging.Type.BROWSER);
      expect(
        logs.filter(({ level }) => level.value >= logging.Level.SEVERE.value).map(({ message }) => message),
      ).toEqual([]);
    }),
  480_000,
);
