import { mkdtempSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, afterEach, beforeAll, describe, expect, it } from "@jest/globals";
import sharp from "sharp";
import { Key, Person, journey } from "./browser";
import { openShop, type Shop } from "./shop";
import { qrPath } from "../app/look/qr";
import { allSent, factsOf, fill } from "./steps";

let shop: Shop;
let mira: Person;
let folder: string;

beforeAll(async () => {
  shop = await openShop({ webs: 2, devices: ["printer"] });
  mira = await Person.sitDown({ keeps: true });
  await mira.sitsAs(shop, "Mira K.", shop.url);
  folder = mkdtempSync(join(tmpdir(), "yard-key-pictures-"));
}, 90_000);
afterAll(async () => {
  await mira.leave();
  await shop.close();
  rmSync(folder, { recursive: true, force: true });
});

// A journey that failed with a server down must not fail those after it.
afterEach(async () => {
  for (const web of shop.webs) {
    if (await fetch(`${web.url}/healthz`).catch(() => null)) continue;
    await web.start();
  }
}, 60_000);

describe("photos", () => {
  const file = async (name: string): Promise<string> => {
    const path = join(folder, name);
    await sharp({ create: { width: 2600, height: 1900, channels: 3, background: "#8a5a2b" } })
      .withExif({ IFD3: { GPSLatitude: "53/1 10/1 0/1", GPSLatitudeRef: "N" } })
      .jpeg()
      .toFile(path);
    return path;
  };
  const photos = async (job: number): Promise<{ width: number; large: Buffer }[]> =>
    (
      await shop.pool.query<{ width: number; large: Buffer }>(
        "select p.width, p.large from photo p join job j on j.id = p.job where j.number = $1 order by p.stored",
        [job],
      )
    ).rows;
  const give = async (person: Person, path: string): Promise<void> => {
    const input = await person.driver.findElement({ css: "[data-photo-input=files]" });
    await input.sendKeys(path);
  };

  it(
    "are taken without the server, sent when it is back, captioned and drawn on; what is no picture is refused",
    () =>
      journey("photos", [mira], async () => {
        await mira.go(`${shop.url}/jobs/1028/photos`);
        await mira.ready();
        const text = join(folder, "notes.jpg");
        writeFileSync(text, "this is no picture");
        await give(mira, text);
        await mira.read("notes.jpg is not a picture that can be read");
        const huge = join(folder, "huge.jpg");
        writeFileSync(huge, Buffer.alloc(15_000_001));
        await give(mira, huge);
        await mira.read("huge.jpg is larger than 15 MB");
        await shop.webs[0]?.kill();
        await give(mira, await file("pan.jpg"));
        await mira.see("//*[@data-waiting='1']");
        await mira.see("//li[@data-photo]//img[starts-with(@src, 'blob:')]");
        expect(await photos(1028)).toHaveLength(0);
        await shop.webs[0]?.start();
        await allSent(mira);
        const [kept] = await photos(1028);
        expect(kept?.width).toBe(2000);
        expect((await sharp(kept?.large).metadata()).exif).toBeUndefined();
        await mira.press("//li[@data-photo]/a");
        await (await mira.see("//textarea[@name='caption']")).sendKeys("Pan, brown");
        await mira.press("//button[.='Keep the caption']");
        await mira.read("“Pan, brown”");
        const picture = await mira.see("//*[@data-mark-up]");
        await mira.driver
          .actions()
          .move({ origin: picture, x: -60, y: -40 })
          .press()
          .move({ origin: picture, x: 40, y: 30 })
          .release()
          .perform();
        await mira.see("//*[@data-mark='arrow']");
        await mira.press("//button[.='circle']");
        // By keys alone: to the picture, a few steps, begin, a few more, end.
        await mira.driver.executeScript("document.querySelector('[data-mark-up]').focus()");
        await mira.keys(
          Key.ARROW_RIGHT,
          Key.ENTER,
          ...Array.from({ length: 6 }, () => Key.ARROW_DOWN),
          Key.ENTER,
        );
        await mira.see("//*[@data-mark='circle']");
        await allSent(mira);
        expect(await factsOf(shop, 1028, "photo-mark")).toMatchObject([
          { shape: "arrow" },
          { shape: "circle" },
        ]);
        await mira.press("//li[contains(., '1. arrow')]//button[.='Take away']");
        await mira.gone("//*[@data-mark='arrow']");
      }),
    90_000,
  );
});

describe("labels", () => {
  it(
    "are printed on a sheet and by the label printer, and a scanner that types opens what they belong to",
    () =>
      journey("labels", [mira], async () => {
        await mira.go(`${shop.url}/jobs/1030/labels`);
        await mira.ready();
        await mira.press("//section[@aria-label='A new tray or bin']//label[.='bag']");
        await fill(mira, "//section[@aria-label='A new tray or bin']", "name", "Check balls");
        await mira.press("//button[.='Add it']");
        const place = await mira.see("//*[@data-place][contains(., 'Check balls')]");
        const id = await place.getAttribute("data-place");
        await allSent(mira);
        await mira.press("//button[.='Label printer']");
        await mira.read("Sent to the label printer.");
        expect(readdirSync(shop.printed)).toHaveLength(1);
        await shop.printer.kill();
        await mira.press("//button[.='Label printer']");
        await mira.read("The label printer does not answer.");
        await mira.go(`${shop.url}/`);
        await mira.ready();
        await mira.scan(`YK-1030-t-${id}`);
        await mira.see("//*[@data-place][contains(@class, 'outline')][contains(., 'Check balls')]");
        await mira.go(`${shop.url}/`);
        await mira.ready();
        await mira.scan(`${shop.url}/scan/YK-1030-p-d1-piston`);
        await mira.until(
          "return location.pathname + location.hash",
          (at) => at === "/books/marram-dunlin/parts#part-d1-piston",
        );
      }),
    60_000,
  );

  it("are read by the camera", async () => {
    const film = join(folder, "label.mjpeg");
    const { size, path } = qrPath(`${shop.url}/scan/YK-1029`);
    const scale = 400 / size;
    const frame = await sharp(
      Buffer.from(
        `<svg xmlns="http://www.w3.org/2000/svg" width="640" height="480"><rect width="640" height="480" fill="#ddd"/><g transform="translate(120 40) scale(${scale})"><rect width="${size}" height="${size}" fill="#fff"/><path d="${path}"/></g></svg>`,
      ),
    )
      .jpeg({ quality: 92 })
      .toBuffer();
    writeFileSync(film, Buffer.concat([frame, frame, frame, frame]));
    const runa = await Person.sitDown({ camera: film });
    try {
      await journey("camera", [runa], async () => {
        await runa.sitsAs(shop, "Runa S.", shop.url);
        // The first pictures of a camera may be none.
        await runa.driver.executeScript(`
          const { prototype } = CanvasRenderingContext2D;
          const real = prototype.getImageData;
          let none = 3;
          prototype.getImageData = function (...args) {
            if (none-- > 0) throw new DOMException("no picture yet", "IndexSizeError");
            return real.apply(this, args);
          };`);
        await runa.press("//button[@aria-label='Scan a label']");
        await runa.until("return location.pathname", (at) => at === "/jobs/1029", 20_000);
      });
    } finally {
      await runa.leave();
    }
  }, 60_000);
});

it(
  "works as plain forms before the script has loaded",
  () =>
    journey("intake-plain", [mira], async () => {
      await mira.go(`${shop.url}/jobs/1025/symptoms`);
      await mira.withoutScript();
      try {
        await mira.driver.navigate().refresh();
        await mira.press("//button[@aria-label='2: slips']");
        await mira.see("//button[@aria-label='2: slips'][@aria-pressed='true']");
        await mira.go(`${shop.url}/jobs/1025/before`);
        await mira.press("//section[@aria-label='Fluid']//button[.='Keep']");
        await mira.read("Not kept yet");
        expect(await factsOf(shop, 1025, "answer")).toContainEqual(
          expect.objectContaining({ question: "range:2", outcome: "slips" }),
        );
      } finally {
        await mira.withoutScript(false);
      }
    }),
  60_000,
);
