// Who may come in: one's own PIN, and what those who lead may do for others.
import { afterAll, beforeAll, expect, it } from "@jest/globals";
import { Person, journey } from "./browser";
import { openShop, type Shop } from "./shop";

let shop: Shop;
let edda: Person;
let mira: Person;

beforeAll(async () => {
  shop = await openShop();
  edda = await Person.sitDown();
  mira = await Person.sitDown();
  await edda.sitsAs(shop, "Edda L.", shop.url);
  await mira.sitsAs(shop, "Mira K.", shop.url);
}, 90_000);
afterAll(async () => {
  await edda.leave();
  await mira.leave();
  await shop.close();
});

const account = (name: string): string => `//li[@data-account='${name}']`;
const type = (person: Person, path: string, text: string): Promise<void> => person.write(path, text);

it(
  "a lead gives another PIN: nobody’s guess, at its place; whoever had the old one is out",
  () =>
    journey("another-pin", [edda, mira], async () => {
      await edda.go(`${shop.url}/house`);
      await edda.ready();
      await edda.press(`${account("Mira K.")}//button[contains(., 'Change')]`);
      await type(edda, `${account("Mira K.")}//input[@name='secret']`, "4567");
      await edda.press(`${account("Mira K.")}//button[.='Give it']`);
      await edda.read("not running: neither 1111 nor 2345");
      await type(edda, `${account("Mira K.")}//input[@name='secret']`, "8046");
      await edda.press(`${account("Mira K.")}//button[.='Give it']`);
      await edda.read("Done.");
      await mira.go(`${shop.url}/shelf`);
      await mira.read("Who is at the bench?");
      await mira.signIn(shop.url, "Mira K.", "8046");
      // A lead’s PIN is a signature: only an owner gives a lead another one.
      await edda.press(`${account("Joost W.")}//button[contains(., 'Change')]`);
      await type(edda, `${account("Joost W.")}//input[@name='secret']`, "804638");
      await edda.press(`${account("Joost W.")}//button[.='Give it']`);
      await edda.read("That is an owner’s to do.");
      await edda.press(`${account("Edda L.")}//button[contains(., 'Change')]`);
      await edda.press(`${account("Edda L.")}//button[.='Switch off']`);
      await edda.read("Nobody switches themselves off.");
    }),
  60_000,
);

it(
  "one changes one’s own PIN with the old one, and is signed out everywhere else",
  () =>
    journey("own-pin", [mira, edda], async () => {
      await edda.sitsAs(shop, "Tomas B.", shop.url);
      await mira.sitsAs(shop, "Tomas B.", shop.url);
      await edda.go(`${shop.url}/account`);
      await edda.ready();
      await edda.read("Another browser");
      await type(edda, "//input[@name='now']", "0000");
      await type(edda, "//input[@name='fresh']", "7139");
      await type(edda, "//input[@name='again']", "7138");
      await edda.press("//button[.='Change it']");
      await edda.read("This is not the same as above.");
      await type(edda, "//input[@name='again']", "7139");
      await edda.press("//button[.='Change it']");
      await edda.read("That is not your PIN.");
      await type(edda, "//input[@name='now']", "2580");
      await edda.press("//button[.='Change it']");
      await edda.read("Changed. Every other place is signed out.");
      await mira.go(`${shop.url}/account`);
      await mira.read("Who is at the bench?");
      await mira.signIn(shop.url, "Tomas B.", "7139");
      const { rows } = await shop.pool.query<{ what: string; by: string }>(
        "select c.what, b.name as by from account_change c join staff s on s.id = c.staff join staff b on b.id = c.by where s.name = 'Tomas B.'",
      );
      expect(rows).toEqual([{ what: "secret", by: "Tomas B." }]);
    }),
  60_000,
);
