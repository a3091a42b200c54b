import { afterAll, beforeAll, describe, expect, it } from "@jest/globals";
import { figuresBuilt } from "../demo/work";
import { buildOf } from "../core/build";
import { fold, jobWithBook, type FactBody } from "../core/fact";
import { USUAL_SCHOOLS } from "../core/inspect";
import { readHouse, setHouse } from "../store/house";
import { jobByNumber } from "../store/jobs";
import { journey, Key, Person, quoted } from "./browser";
import { jobOf, keptOf, longAgo, saidOf } from "./said";
import { allSent, factsOf, fill, leadSigns } from "./steps";
import { openShop, type Shop } from "./shop";

let shop: Shop;
let mira: Person;
let tomas: Person;
beforeAll(async () => {
  shop = await openShop();
  [mira, tomas] = await Promise.all([Person.sitDown({ keeps: true }), Person.sitDown()]);
  await Promise.all([mira.sitsAs(shop, "Mira K.", shop.url), tomas.sitsAs(shop, "Tomas B.", shop.url)]);
}, 120_000);
afterAll(async () => {
  await Promise.all([mira.leave(), tomas.leave()]);
  await shop.close();
});

const HOUSE = { rule: "proven", target: "middle", ...USUAL_SCHOOLS } as const;

/** The build of a job as the server has it. */
async function buildNow(job: number) {
  const record = await jobByNumber(shop.pool, job);
  if (!record) throw new Error(`no job ${job}`);
  const made = jobWithBook(record.book, fold(record.facts), record.houseValues);
  return { ...made, build: buildOf(made.job, made.applied, HOUSE, Infinity) };
}

/** A job of a unit that is taken down and looked at: everything in order, all of it clean. */
async function onTheBench(unit: string, traits: Readonly<Record<string, string>>): Promise<number> {
  const job = await jobOf(shop, unit, traits);
  const { applied } = await buildNow(job);
  const parts = applied.scoped.parts.map(({ id }) => id);
  const steps = applied.scoped.teardown ?? [];
  await saidOf(shop, job, [
    ...steps.map(({ id }): FactBody => ({ kind: "step", step: id, did: "done", reason: "", to: "bench" })),
    { kind: "good", parts },
    { kind: "cleaning", things: parts, state: "clean", did: ["washed"] },
  ]);
  return job;
}
const DUNLIN = { body: "late", plate: "two" };

/** What is asked now: the step, what of it, how far that is, and how far its face is. */
const NOW =
  "const panel = document.querySelector('[data-shown-step]');" +
  "return [panel?.dataset.shownStep, panel?.querySelector('[data-turn]')?.dataset.turn ?? '', " +
  "panel?.querySelector('[data-turn]')?.dataset.words ?? '', " +
  "[...document.querySelectorAll('[data-round]')].map((r) => r.dataset.left).join('.')].join('|')";
const HELD = "return document.querySelector('[data-turn] button.btn-primary')?.disabled ?? false";
const now = (person: Person): Promise<string> => person.driver.executeScript(NOW);
const turn = (key: string): string => `//*[@data-turn='${key}']`;
const open = async (person: Person, job: number, step = ""): Promise<void> => {
  await person.go(`${shop.url}/jobs/${job}/build${step && `?step=${step}`}`);
  await person.ready();
};

/** Goes on until the last bolt: figures are read by somebody beside, soaks have stood; everything else is said here. */
async function toTheLastBolt(
  person: Person,
  job: number,
  yes: () => Promise<void>,
  most = 900,
): Promise<void> {
  await open(person, job);
  for (let n = 0; n < most; n++) {
    const before = await now(person);
    const [, asked = "", , left = ""] = before.split("|");
    if (asked === "") break;
    if (asked.startsWith("figure ")) {
      const { job: folded, applied, build } = await buildNow(job);
      const one = build.steps.find(({ step }) => step.id === before.split("|")[0]);
      const figures = one ? figuresBuilt(one, applied, HOUSE, folded) : [];
      // A choice has a page of its own; the open page hears of it with the readings.
      await keptOf(
        shop,
        job,
        figures.filter(({ kind }) => kind === "choice"),
      );
      await saidOf(
        shop,
        job,
        figures.filter(({ kind }) => kind !== "choice"),
      );
    } else if (asked.startsWith("soak ") || asked.startsWith("behind ")) throw new Error(`waits: ${before}`);
    else if (asked.startsWith("bolts ") && (await person.driver.executeScript(HELD))) {
      await crept(job, asked.slice("bolts ".length));
      await person.until(HELD, (held) => held === false);
      continue;
    }
    // The first face is gone over place by place, the others a round at a time.
    else if (asked.startsWith("bolts ") && n > 25 && left.split(".").some((many) => Number(many) > 1))
      await person.press("//button[contains(., 'in this order')]");
    else await yes();
    await person.until(NOW, (is) => is !== before);
  }
}

/** Soaks begun long enough ago. */
async function soaked(job: number): Promise<void> {
  const { applied } = await buildNow(job);
  await longAgo(
    shop,
    job,
    (applied.scoped.build ?? []).flatMap(({ id: step, starts = [] }) =>
      starts.map((soak): FactBody => ({ kind: "timer", step, soak, did: "started" })),
    ),
  );
}

/** A face that waits for its gasket to creep: as if it had been tightened two hours ago, or some other while. */
async function crept(job: number, id: string, ago?: number): Promise<void> {
  const { applied } = await buildNow(job);
  const group = applied.scoped.fasteners?.find((one) => one.id === id);
  const places = (group?.places ?? []).map((_, i) => i);
  const rounds = [...(group?.passes ?? []).map((_, i) => `part-${i + 1}`), "full", "lap"];
  await longAgo(
    shop,
    job,
    rounds.map((round): FactBody => ({ kind: "tightened", group: id, round, places, did: "tight" })),
    ago,
  );
}

describe("a unit built to the last bolt", () => {
  it(
    "a dual-clutch unit by one key alone",
    () =>
      journey("build-keys", [tomas], async () => {
        const job = await onTheBench("corrie-plover", { levers: "cast", actuator: "preset" });
        await soaked(job);
        await toTheLastBolt(tomas, job, () => tomas.keys("d"));
        await allSent(tomas);
        const { build } = await buildNow(job);
        expect(build.steps.filter(({ at, step }) => at !== "done" && !step.vehicle)).toEqual([]);
        // What is together has a label with what was proven of it; opened again it has none.
        const label = `/jobs/${job}/labels.pdf?label=YK-${job}-b-shafts`;
        const print = async (): Promise<number> =>
          (await fetch(shop.url + label, { headers: { cookie: await shop.cookieOf("Tomas B.") } })).status;
        expect(await print()).toBe(200);
        await tomas.go(`${shop.url}/scan/YK-${job}-b-shafts`);
        await tomas.see(`//*[@data-together='shafts']//a[@href='${label}']`);
        await open(tomas, job);
        const onBench = build.steps.filter(({ step }) => !step.vehicle).length;
        await tomas.read(`${onBench} of ${onBench} steps`);
        expect(await tomas.axe()).toEqual([]);
      }),
    180_000,
  );

  it(
    "an automatic begun by one, and three days later gone on with by another with the foot switch",
    () =>
      journey("build-taken-over", [mira, tomas], async () => {
        const job = await onTheBench("marram-dunlin", DUNLIN);
        await soaked(job);
        await toTheLastBolt(mira, job, () => mira.keys("d"), 40);
        await allSent(mira);
        const { build: before } = await buildNow(job);
        expect(before.done).toBeGreaterThan(4);
        await open(tomas, job);
        await tomas.see(
          `//*[@data-last][contains(., ${quoted(before.last?.step.name ?? "")})][contains(., 'Mira K.')]`,
        );
        await tomas.see(`//section[@data-shown-step='${before.next?.step.id}']`);
        await toTheLastBolt(tomas, job, () => tomas.keys(Key.F8));
        await allSent(tomas);
        const { build } = await buildNow(job);
        expect(build.steps.filter(({ at, step }) => at !== "done" && !step.vehicle)).toEqual([]);
      }),
    240_000,
  );

  it(
    "a belt unit by fingers on a tablet",
    () =>
      journey("build-touch", [tomas], async () => {
        await tomas.screen(1024, 768);
        const job = await onTheBench("selwyn-turnstone", { belt: "wide", pump: "chain" });
        await soaked(job);
        await toTheLastBolt(tomas, job, () =>
          tomas.press("//*[@data-turn]//button[contains(@class, 'btn-primary')][1]"),
        );
        await allSent(tomas);
        const { build } = await buildNow(job);
        expect(build.steps.filter(({ at, step }) => at !== "done" && !step.vehicle)).toEqual([]);
        expect(
          await tomas.driver.executeScript("return document.documentElement.scrollWidth <= innerWidth"),
        ).toBe(true);
        await tomas.screen(1280, 800);
      }),
    180_000,
  );
});

describe("a step", () => {
  it("says what it waits for, and a soak counts down on everybody’s screen", () =>
    journey("build-waits", [mira, tomas], async () => {
      const job = await onTheBench("marram-dunlin", DUNLIN);
      await open(mira, job, "b-h2");
      await mira.see("//li[@data-waits='behind b-wash']");
      await mira.see("//li[@data-waits='soak soak-frictions'][contains(., 'not begun')]");
      await open(mira, job, "b-soak-rear");
      await mira.press("//button[contains(., 'is in')]");
      await tomas.go(`${shop.url}/jobs/${job}/parts`);
      await tomas.ready();
      // Beginning is said once for each of what stands.
      for (const soak of ["soak-frictions", "size-rings"]) {
        await mira.see(turn(`begin ${soak}`));
        await mira.keys("d");
        await tomas.see(`//*[@aria-label='What stands']/a[@data-timer='${soak}'][@data-ready='false']`);
      }
      await mira.see(turn("done"));
    }));

  it("with a check that is not so says what to do, and is not done before it is so", () =>
    journey("build-check", [mira], async () => {
      const job = await onTheBench("marram-dunlin", DUNLIN);
      await open(mira, job, "b-wash");
      await mira.see(turn("check every-passage-passes-air"));
      await mira.keys("n");
      await mira.see("//*[@role='alert'][contains(., 'Find what closes it')]");
      await mira.press("//summary[contains(., 'Cannot be seen')]");
      await mira.press("//*[@data-turn]//button[.='Keep']");
      await mira.see("//*[@role='alert'][contains(., 'Say how it was made sure of')]");
      await mira.press("//*[@data-turn]//input[@name='note']");
      await mira.keys("two passages end blind in this case");
      await mira.press("//*[@data-turn]//button[.='Keep']");
      await mira.see(turn("check no-lint-left"));
      // Said to be done at another bench without an answer: it is not.
      await saidOf(shop, job, [{ kind: "step", step: "b-wash", did: "done", reason: "" }]);
      await mira.see("//section[@data-shown-step='b-wash'][@data-at='unproven']");
      await mira.keys("d");
      await mira.see("//section[@data-shown-step='b-wash'][@data-at='done']");
    }));

  it("takes a part in by its label, and leaves one that belongs elsewhere to its own page", () =>
    journey("build-scan", [mira], async () => {
      const job = await onTheBench("marram-dunlin", DUNLIN);
      await saidOf(shop, job, [{ kind: "step", step: "b-wash", did: "skipped", reason: "washed elsewhere" }]);
      await open(mira, job, "b-park");
      await mira.see("//li[@data-part='park-pawl'][@data-in='false']");
      await mira.scan(`YK-${job}-p-park-pawl`);
      await mira.see("//li[@data-part='park-pawl'][@data-in='true']");
      await mira.see("//p[contains(., 'park pawl spring')]");
    }));

  it("with a face is not through while a place is missing, however it was touched", () =>
    journey("build-face", [mira], async () => {
      const job = await onTheBench("marram-dunlin", DUNLIN);
      await saidOf(shop, job, [
        { kind: "step", step: "b-bush-front", did: "skipped", reason: "bushings are good" },
      ]);
      await open(mira, job, "b-pump");
      await mira.press("//button[contains(., 'are in')]");
      await mira.see(turn("bolts pump-cover-bolts"));
      await mira.see("//p[contains(., 'Place 1: 12 N·m')]");
      for (const place of [2, 5, 3, 1]) await mira.press(`//*[@data-place='${place}']`);
      await mira.see("//p[contains(., 'Place 4: 12 N·m')]");
      await mira.see("//*[@data-asked='bolts pump-cover-bolts'][contains(., 'place 4 missing')]");
      await mira.see("//*[@data-reaches='1'][contains(., 'torque wrench 2 to 25 N·m')]");
      // A wrench that types: short of it is not tight, what is no torque is told, and in another unit it is the same.
      await mira.keys("9.1", Key.ENTER);
      await mira.see("//*[@data-pull='short'][contains(., 'Stopped at 9.1 N·m')]");
      await mira.keys("click", Key.ENTER);
      await mira.see("//*[@role='alert'][contains(., 'click')]");
      await mira.selectAll();
      await mira.keys("9 lbf·ft", Key.ENTER);
      await mira.see("//p[contains(., 'one lap')]");
      // With an extension in line it is set to less, and what it reads is more at the bolt.
      await mira.press("//summary[contains(., 'Extension, range of the wrench')]");
      for (const [label, text] of [
        ["Wrench, grip to square", "300 mm"],
        ["Extension in line", "100 mm"],
        ["Least it is made for", "10 N·m"],
      ] as const)
        await (await mira.see(`//*[@data-arm]//input[@id=//label[.='${label}']/@for]`)).sendKeys(text);
      await mira.see("//*[@data-arm='true']/summary[contains(., 'Set 9.0 N·m') or contains(., 'Set 9 N·m')]");
      await mira.see("//*[@role='alert'][contains(., 'take a smaller one')]");
      await fill(mira, "//*[@data-turn]", "read", "9.1");
      await mira.keys(Key.ENTER);
      await mira.see("//*[@data-round='lap'][@data-left='4']");
      await mira.press("//button[contains(., 'The other 4, in this order')]");
      await mira.see(turn("check gears-turn-freely-once-the-cover-is-tight"));
      await allSent(mira);
      expect(await factsOf(shop, job, "tightened")).toHaveLength(8);
      const reads = (await factsOf<{ read?: string }>(shop, job, "tightened")).flatMap(
        ({ read }) => read ?? [],
      );
      expect(reads.at(-1)).toBe("12.1 N·m");
    }));

  it("tried with air that leaks names the parts to look at; read as a loss, the book says whether it holds", () =>
    journey("build-air", [mira], async () => {
      const job = await onTheBench("marram-dunlin", DUNLIN);
      await soaked(job);
      await saidOf(shop, job, [
        { kind: "lies", things: ["h1-cushion", "h1-steel", "h1-friction", "h1-reaction"], place: "unit" },
        ...(["b-wash", "b-rear", "b-f1", "b-support", "b-small-sun", "b-h2", "b-ring", "b-d2"] as const).map(
          (step): FactBody => ({ kind: "step", step, did: "skipped", reason: "built elsewhere" }),
        ),
        ...(["ring-seated-all-round-seen-with-a-mirror", "ring-in-h1-groove"] as const).map(
          (check): FactBody => ({ kind: "check", step: "b-h1", check, said: "yes", note: "" }),
        ),
      ]);
      await open(mira, job, "b-h1");
      await mira.see(turn("air h1"));
      await mira.read("Only counts with the");
      await mira.keys("n");
      await mira.see(
        "//*[@role='alert'][contains(., 'It leaks. Look, as it was put together, at: H1 piston')]",
      );
      await mira.press("//input[@name='lost']");
      await mira.keys("a bit");
      await mira.press("//*[@data-turn]//form[.//input[@name='lost']]//button");
      await mira.see("//*[@role='alert'][contains(., 'a bit')]");
      await mira.press("//input[@name='lost']");
      await mira.selectAll();
      await mira.keys("0.6");
      await mira.press("//*[@data-turn]//form[.//input[@name='lost']]//button");
      await mira.see("//*[@role='alert'][contains(., 'It leaks')]");
      await mira.press("//input[@name='lost']");
      await mira.selectAll();
      await mira.keys("0.3 bar");
      await mira.press("//*[@data-turn]//form[.//input[@name='lost']]//button");
      await mira.see("//*[@data-asked='air h1'][@data-answer='answered']");
    }));
});

describe("a face that is tightened once more", () => {
  it("waits across midnight: what was tightened the evening before is due, and what still moves waits anew", () =>
    journey("build-midnight", [mira], async () => {
      const job = await onTheBench("marram-dunlin", DUNLIN);
      const { applied } = await buildNow(job);
      const steps = (applied.scoped.build ?? []).map(({ id }) => id);
      await saidOf(
        shop,
        job,
        steps
          .slice(0, steps.indexOf("b-filter"))
          .map((step): FactBody => ({ kind: "step", step, did: "skipped", reason: "built the day before" })),
      );
      // Where it is just past midnight: twenty minutes before it, the pan was tightened.
      const { timeZone } = await readHouse(shop.pool);
      const [hour, minute] = [new Date().getUTCHours(), new Date().getUTCMinutes()];
      const there = hour <= 12 ? `Etc/GMT+${hour}` : `Etc/GMT-${24 - hour}`;
      await setHouse(shop.pool, { timeZone: there }, "Edda L.");
      try {
        await crept(job, "pan-bolts", (minute + 20) * 60_000);
        await open(mira, job, "b-filter");
        await mira.press("//button[contains(., 'are in')]");
        await mira.see(`${turn("bolts pan-bolts")}[contains(., '9 N·m again')]`);
        await mira.see("//*[@data-last-bolt][contains(., ' 23:')]");
        await mira.press("//button[.='It still moved']");
        await mira.see(`${turn("bolts pan-bolts")}[contains(., 'Waits')][contains(., 'once more')]`);
        await mira.see("//*[@data-last-bolt][contains(., ' 00:')]");
        await mira.see("//button[contains(., 'is tight')][@disabled]");
        await allSent(mira);
      } finally {
        await setHouse(shop.pool, { timeZone }, "Edda L.");
      }
    }));
});

describe("where no reason stands for it", () => {
  it("a lead puts their name to the one thing, on the page itself", () =>
    journey("build-signed", [mira], async () => {
      const job = await onTheBench("corrie-plover", { levers: "cast", actuator: "preset" });
      await open(mira, job, "b-pilot");
      await mira.press("//*[@data-turn]//button[contains(., 'is in')]");
      await mira.see(turn("figure pilot"));
      await leadSigns(mira, "Edda L.", "the gauge is away for calibration");
      await mira.see(turn("done"));
      expect((await factsOf<{ of: string[] }>(shop, job, "sign-off")).map(({ of }) => of)).toEqual([
        ["figure pilot"],
      ]);
      await mira.keys("d");
      await mira.see(
        "//section[@data-shown-step='b-pilot'][@data-at='done'] | //li[@data-step='b-pilot'][@data-at='done']",
      );
    }));
});

describe("what was built", () => {
  it("is a record by step, with who and when, on paper and as a document too", () =>
    journey("build-record", [mira], async () => {
      await mira.go(`${shop.url}/jobs/1026/as-built`);
      await mira.ready();
      await mira.see(
        "//section[@data-built='b-sync']//tr[@data-line='figure'][contains(., 'Synchroniser gap')]",
      );
      expect(await mira.axe()).toEqual([]);
      const headers = { cookie: await shop.cookieOf("Mira K.") };
      const json = (await (await fetch(`${shop.url}/jobs/1026/as-built.json`, { headers })).json()) as {
        format: string;
        steps: {
          step: string;
          at: string;
          lines: { kind: string; what: string; said: string; by: string }[];
        }[];
      };
      expect(json.format).toBe("yard-key/as-built@1");
      const bolts = json.steps.flatMap(({ lines }) => lines.filter(({ kind }) => kind === "torque"));
      expect(bolts.length).toBeGreaterThan(3);
      expect(bolts[0]).toMatchObject({
        by: "Tomas B.",
        said: expect.stringMatching(/^places? [\d, ]+ tight$/),
      });
      const pdf = await fetch(`${shop.url}/jobs/1026/as-built.pdf`, { headers });
      expect(pdf.headers.get("content-type")).toBe("application/pdf");
      expect((await pdf.arrayBuffer()).byteLength).toBeGreaterThan(5000);
    }));
});

describe("what is taken back", () => {
  it("opens what stands on it, shown before; the other bench sees why, and nothing of it counts", () =>
    journey("build-undo", [mira, tomas], async () => {
      const job = await onTheBench("corrie-plover", { levers: "cast", actuator: "preset" });
      const done = async (step: string): Promise<void> => {
        const { job: folded, applied, build } = await buildNow(job);
        const one = build.steps.find((each) => each.step.id === step);
        if (!one) throw new Error(`no step ${step}`);
        await saidOf(shop, job, [
          ...figuresBuilt(one, applied, HOUSE, folded),
          { kind: "renewed", parts: one.parts.map(({ part }) => part.id), there: true },
          ...one.asked.flatMap(({ kind, subject }): FactBody[] =>
            kind === "check" ? [{ kind: "check", step, check: subject, said: "yes", note: "" }] : [],
          ),
          { kind: "step", step, did: "done", reason: "" },
        ]);
      };
      for (const step of ["b-sync", "b-balls", "b-park"]) await done(step);
      await saidOf(shop, job, [{ kind: "step", step: "b-lay", did: "done", reason: "" }]);
      await open(tomas, job, "b-lay");
      await tomas.see("//section[@data-shown-step='b-lay'][@data-at='unproven']");
      await open(mira, job, "b-sync");
      await mira.press("//button[contains(., 'Not done after all')]");
      await mira.see("//dialog[@open]//ul[@data-opens='1']");
      await mira.press("//dialog[@open]//button[.='Leave it done']");
      await mira.press("//button[contains(., 'Not done after all')]");
      await mira.press("//dialog[@open]//button[.='Take it back and open 1 more']");
      await tomas.see("//*[@data-reopened='b-sync'][contains(., 'Mira K.')]");
      const { build } = await buildNow(job);
      const at = (id: string) => build.steps.find(({ step }) => step.id === id)?.at;
      expect([at("b-sync"), at("b-lay"), at("b-balls"), at("b-park")]).toEqual([
        "ahead",
        "waits",
        "done",
        at("b-park"),
      ]);
    }));
});

describe("a piece that comes out of what is built in", () => {
  it("is told to open what stands on it, and does", () =>
    journey("build-exchange", [mira, tomas], async () => {
      const job = await onTheBench("marram-dunlin", DUNLIN);
      const { job: folded, applied, build } = await buildNow(job);
      const d3 = build.steps.find(({ step }) => step.id === "b-d3");
      const figures = d3 ? figuresBuilt(d3, applied, HOUSE, folded) : [];
      const found = applied.packs.find(({ chain }) => chain.id === "d3-clearance")?.seats[0];
      const size = found?.sizes[2];
      await saidOf(shop, job, [
        ...(found && size
          ? [
              {
                kind: "fitting",
                seat: found.id,
                fit: 0,
                origin: "found",
                piece: { part: size.part, mark: size.mark, size: size.size },
              } satisfies FactBody,
            ]
          : []),
        ...figures.filter(({ kind }) => kind === "reading"),
      ]);
      await keptOf(
        shop,
        job,
        figures.filter(({ kind }) => kind === "choice"),
      );
      await saidOf(shop, job, [
        { kind: "step", step: "b-d3", did: "done", reason: "" },
        { kind: "step", step: "b-load", did: "done", reason: "" },
      ]);
      await mira.go(`${shop.url}/jobs/${job}/choose/d3-clearance?show=built`);
      await mira.ready();
      await mira.see("//*[@data-opens-again='2'][contains(., 'Lower both drums in')]");
      await open(tomas, job, "b-load");
      await mira.press("//button[.='Taken out again']");
      await tomas.see("//*[@data-reopened='b-d3'][contains(., 'had a piece exchanged')]");
    }));
});

describe("away from the server", () => {
  it("goes on, and everything is sent once", () =>
    journey("build-away", [mira], async () => {
      const job = await onTheBench("marram-dunlin", DUNLIN);
      await open(mira, job, "b-wash");
      await mira.see(turn("check every-passage-passes-air"));
      await mira.network(false);
      await mira.keys("d");
      await mira.see(turn("check no-lint-left"));
      await mira.keys("d");
      await mira.see(turn("done"));
      await mira.keys("d");
      await mira.see("//li[@data-step='b-wash'][@data-at='done']");
      await mira.network(true);
      await allSent(mira);
      expect(await factsOf(shop, job, "check")).toHaveLength(2);
      expect((await factsOf(shop, job, "step")).filter(({ step }) => step === "b-wash")).toHaveLength(1);
    }));
});
