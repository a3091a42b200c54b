// What several journeys do on their way.
import { expect } from "@jest/globals";
import { Key, quoted, type Person } from "./browser";
import type { Shop } from "./shop";

export const READINGS = "return document.querySelectorAll('[aria-label=Readings] li').length";
export const WAITING = "return Number(document.querySelector('[data-waiting]')?.dataset.waiting ?? 0)";
export const FIRST = "return document.querySelector('[data-suspect]')?.dataset.suspect";
export const allSent = (person: Person): Promise<void> => person.until(WAITING, (n) => n === 0, 20_000);

/** The bodies of a job's facts of one kind, as the database has them. */
export async function factsOf<T = Record<string, unknown>>(
  { pool }: Shop,
  job: number,
  kind: string,
): Promise<T[]> {
  const { rows } = await pool.query<{ body: T }>(
    "select f.body from fact f join job j on j.id = f.job where j.number = $1 and f.kind = $2 order by f.seq",
    [job, kind],
  );
  return rows.map(({ body }) => body);
}

/** Types into the field of this name, instead of what stands there. */
export const fill = (person: Person, within: string, name: string, text: string): Promise<void> =>
  person.write(`${within}//*[@name='${name}']`, text);

/** Opens a job at the desk, every version taken as it is listed first. */
export async function openJob({ url }: Shop, person: Person, unit: string, words: string): Promise<number> {
  await person.go(`${url}/jobs/new`);
  await person.ready();
  await fill(person, "//form", "vehicle", "Skerry 300 van, TS 5");
  await fill(person, "//form", "words", words);
  await person.press(`//label[contains(., ${quoted(unit)})]`);
  await person.see("//fieldset[contains(., 'How deep the work goes')]");
  const groups = await person.driver.findElements({
    xpath: "//fieldset[.//input[starts-with(@name, 'trait-')]]//label[1]",
  });
  for (const first of groups) await first.click();
  await person.press("//fieldset[contains(., 'How deep the work goes')]//label[contains(., 'full')]");
  await person.press("//button[.='Open the job']");
  await person.see("//nav[@aria-label='Stages of the job']");
  return Number(/jobs\/(\d+)/.exec(await person.driver.getCurrentUrl())?.[1]);
}

/** Goes to a page of a job by its stage on the rail, then by its name; from within the stage by its name alone. */
export async function goTo(person: Person, stage: string, page: string): Promise<void> {
  const link = `//nav[@aria-label='Pages of this stage']//a[.=${quoted(page)}]`;
  if ((await person.driver.findElements({ xpath: link })).length === 0)
    await person.press(`//nav[@aria-label='Stages of the job']//a[contains(., ${quoted(stage)})]`);
  await person.press(link);
  await person.see(`${link}[@aria-current='page']`);
}
/** Opens a pack's worksheet from anywhere in its job. Where the stage begins with it one is there already: going there again would load what is being filled in anew. */
export async function openPack(person: Person, name: string): Promise<void> {
  await person.press("//nav[@aria-label='Stages of the job']//a[contains(., 'Choose')]");
  const pack = `//nav[@aria-label='Pages of this stage']//a[contains(., ${quoted(name)})]`;
  await person.see(pack);
  if ((await person.driver.findElements({ xpath: `${pack}[@aria-current]` })).length === 0)
    await person.press(pack);
  await person.see(`${pack}[@aria-current]`);
}
export const touchCell = (person: Person, row: string, what: string): Promise<void> =>
  person.touch(`//button[@aria-label=${quoted(`${row}: ${what}`)}]`);

/** Notes fluid and debris, and takes every figure the book wants, or says why there is none. */
export async function lookBefore(person: Person, figures: Readonly<Record<string, string>>): Promise<void> {
  await goTo(person, "Book in", "Before opening");
  await person.press("//section[@aria-label='Fluid']//label[.='black']");
  await person.press("//section[@aria-label='Fluid']//label[.='burnt']");
  await person.press("//section[@aria-label='Fluid']//button[.='Keep']");
  await person.see("//*[@data-fluid][contains(., 'burnt')]");
  await person.touch("//button[@aria-label='Friction material: some']");
  await person.read("points at facings of");
  const wanted = await person.driver.findElements({ css: "[data-figure]" });
  expect(wanted.length).toBeGreaterThan(0);
  for (const given of await Promise.all(wanted.map((one) => one.getAttribute("data-figure")))) {
    const id = given ?? "";
    const place = `//li[@data-figure='${id}']`;
    const open = (): Promise<boolean> =>
      person.driver.executeScript(`return document.querySelector('[data-figure="${id}"] details').open`);
    if (!(await open())) await person.press(`${place}/details/summary`);
    const figure = figures[id];
    if (figure === undefined) {
      await person.press(`${place}//summary[.='No figure can be taken']`);
      await person.press(`${place}//button[.='gauge not here yet']`);
    } else {
      // What is read several times stays open until it is read often enough.
      for (let n = 0; n < 5; n++) {
        await person.press(`${place}//input[@name='value' or @name='text']`);
        await person.keys(figure, Key.ENTER);
        await person.see(`${place}[@data-taken='true' or count(.//*[@aria-label='Readings']/li) = ${n + 1}]`);
        if ((await person.driver.findElements({ xpath: `${place}[@data-taken='true']` })).length > 0) break;
      }
    }
    await person.see(`${place}[@data-taken='true']//*[@data-found]`);
  }
  await person.read(`${wanted.length} of ${wanted.length}`);
}

/** Answers every known weak point of the job in view: looked at, in order. */
export async function answerWeakPoints(person: Person): Promise<void> {
  await goTo(person, "Inspect", "Cause");
  await person.see("//li[@data-weak-point]");
  await person.ready();
  const points = await person.driver.findElements({ css: "[data-weak-point]" });
  for (const given of await Promise.all(points.map((one) => one.getAttribute("data-weak-point")))) {
    await person.press(`//li[@data-weak-point='${given}']//button[.='looked at, in order']`);
    await person.see(`//li[@data-weak-point='${given}']//*[@data-answered]`);
  }
  await allSent(person);
}

/** A lead answers for everything that is still open on the build sheet, with a reason and their own PIN. */
export async function leadSigns(person: Person, lead: string, reason: string): Promise<void> {
  await person.press("//summary[contains(., 'a lead signs')]");
  await (await person.see("//details//input[@name='reason']")).sendKeys(reason);
  await person.press(`//details//label[contains(., ${quoted(lead)})]`);
  await (await person.see("//details//input[@name='pin']")).sendKeys("2580");
  await person.press("//details//button[.='Sign']");
}
