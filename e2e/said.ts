import { v7 as newId } from "uuid";
import { appliedTo, fold, type Fact, type FactBody } from "../core/fact";
import { chosenSheets, isPackSheet, type Worksheet } from "../core/measure";
import { lengthOf, nm } from "../core/quantity";
import { addFacts } from "../store/facts";
import { openJob, jobByNumber } from "../store/jobs";
import type { Shop } from "./shop";

const fact = (body: FactBody, at = new Date().toISOString()): Fact => ({
  id: newId(),
  at,
  by: "Tomas B.",
  body,
});

/** A job of a unit that is taken down already, of one version and whole; opened without the form. */
export async function jobOf(
  shop: Shop,
  unit: string,
  traits: Readonly<Record<string, string>>,
): Promise<number> {
  const { rows } = await shop.pool.query<{ id: string }>(
    "select id from book where unit = $1 order by revision desc limit 1",
    [unit],
  );
  const id = newId();
  return openJob(shop.pool, {
    id,
    bookId: rows[0]?.id ?? "",
    author: { id: null, name: "Tomas B." },
    facts: [fact({ kind: "configuration", traits }), fact({ kind: "scope", depths: ["full"] })],
  });
}

/** Says facts of a job at another bench, by the door every bench uses. */
export const saidOf = (shop: Shop, job: number, bodies: readonly FactBody[]): Promise<void> =>
  saidAt(shop, job, bodies, Date.now());

/** Says facts as of two hours ago, or some other while, so that nobody has to stand and wait. */
export const longAgo = (
  shop: Shop,
  job: number,
  bodies: readonly FactBody[],
  ago = 2 * 3_600_000,
): Promise<void> => saidAt(shop, job, bodies, Date.now() - ago);

async function saidAt(shop: Shop, job: number, bodies: readonly FactBody[], at: number): Promise<void> {
  const answer = await fetch(`${shop.url}/jobs/${job}/facts`, {
    method: "POST",
    headers: {
      cookie: await shop.cookieOf("Tomas B."),
      origin: shop.url,
      "content-type": "application/json",
    },
    body: JSON.stringify(bodies.map((body) => fact(body, new Date(at).toISOString()))),
  });
  if (answer.status !== 200) throw new Error(`${answer.status}: ${await answer.text()}`);
}

/** Keeps facts that have a page of their own, as that page would. */
export async function keptOf(shop: Shop, job: number, bodies: readonly FactBody[]): Promise<void> {
  const record = await jobByNumber(shop.pool, job);
  const kept = await addFacts(
    shop.pool,
    record?.id ?? "",
    bodies.map((body) => fact(body)),
    { id: null, name: "Tomas B." },
  );
  if (!kept.ok) throw new Error(`not kept: ${kept.why}`);
}

/** The worksheets of a job as the server has it. */
export async function sheetsOf(shop: Shop, job: number): Promise<Map<string, Worksheet>> {
  const record = await jobByNumber(shop.pool, job);
  if (!record) throw new Error(`no job ${job}`);
  const folded = fold(record.facts);
  const applied = appliedTo(record.book, folded, record.houseValues);
  const sheets = chosenSheets(folded, applied, { rule: "proven", target: "middle" });
  return new Map(sheets.map((sheet) => [sheet.applied.chain.id, sheet]));
}

/** What was found in the seats of a figure, by their marks. */
export const foundIn = (sheet: Worksheet, marks: readonly string[]): FactBody[] =>
  sheet.seats.flatMap(({ link }, i) => {
    const size = link.sizes.find(({ mark }) => mark === marks[i]);
    if (!size) return [];
    const { mark, part } = size;
    const piece = { ...(part === undefined ? {} : { part }), mark, size: size.size };
    return [{ kind: "fitting", seat: link.id, fit: 0, origin: "found", piece } satisfies FactBody];
  });

/** Readings of a figure on trial with what is in now, its conditions kept. */
export function triedAt(sheet: Worksheet, ...values: string[]): FactBody[] {
  const { chain, conditions, spec } = sheet.applied;
  const isPack = isPackSheet(sheet);
  return [
    ...(conditions.length > 0
      ? [{ kind: "conditions", chain: chain.id, phase: "built", fit: sheet.fit, met: conditions } as const]
      : []),
    ...values.map((value): FactBody => ({
      kind: "reading",
      chain: chain.id,
      phase: "built",
      fit: sheet.fit,
      method: isPack ? "hand and dial" : (chain.read.with[0] ?? "dial"),
      ...(isPack ? { state: { ...spec.state, facings: spec.state.facings ?? ("new" as const) } } : {}),
      reading: { kind: "single", value: lengthOf(value) },
      resolution: nm(5_000),
      unit: "mm",
    })),
  ];
}

/** The pages of a job, by their path within it. */
export const OF_JOB = [
  ...[
    "",
    "/book-in",
    "/symptoms",
    "/before",
    "/fault",
    "/teardown",
    "/bench",
    "/inspect",
    "/cause",
    "/measure",
  ],
  ...["/choose", "/parts", "/stronger", "/build", "/as-built", "/prove", "/sheet", "/customer"],
];
/** The pages of a book, likewise. */
export const OF_BOOK = ["", "/train", "/packs", "/chains", "/fasteners", "/parts", "/steps", "/service"];
