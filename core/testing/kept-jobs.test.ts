// Jobs exported by an earlier Yard Key, with what they said there: they must open and say the same for as long as there is one.
import { readdirSync, readFileSync } from "node:fs";
import { describe, expect, it } from "@jest/globals";
import { readBook } from "../check";
import { toldBy } from "../diagnose";
import { candidateCauses, dispositions, failed, unlooked, USUAL_SCHOOLS, weakPoints } from "../inspect";
import {
  CANNOT,
  CAUSE_STANDINGS,
  CONDITIONS,
  DISPOSITIONS,
  FOUND_WRONG,
  appliedTo,
  fold,
  outcomeWords,
  type Fact,
} from "../fact";
import { asFound, specLines, worksheets, type PhaseFigure } from "../measure";
import { ballCount, counts, planOf } from "../steps";

const folder = new URL("jobs/", import.meta.url);
const read = (file: string): unknown => JSON.parse(readFileSync(new URL(file, folder), "utf8"));
const NAMES = readdirSync(folder)
  .filter((file) => file.endsWith(".said.json"))
  .map((file) => file.replace(".said.json", ""));
const HOUSE = { rule: "proven", target: "middle" } as const;

const figureOf = ({ text, standing, readings }: PhaseFigure) => ({ text, standing, n: readings.length });

/** What was kept of a count; what it waits for is said since. */
const ballsOf = (balls: ReturnType<typeof ballCount>) =>
  balls && { expected: balls.expected, found: balls.found, extra: balls.extra, missing: balls.missing };

/** Everything a job says that somebody relies on, as plain values. */
function saidBy(document: { book: unknown; facts: Fact[] }) {
  const book = readBook(document.book, "kept");
  if (!book.ok) throw new Error(JSON.stringify(book.problems.slice(0, 3)));
  const { facts } = document;
  const job = fold(facts);
  const applied = appliedTo(book.book, job, []);
  const plan = planOf(job, applied);
  const states = dispositions(job, applied, USUAL_SCHOOLS, "proven");
  const sheet = (unit: "mm" | "in") =>
    specLines(job, applied, HOUSE, unit).map((row) => ({
      id: row.id,
      spec: row.spec,
      found: figureOf(row.found),
      built: figureOf(row.built),
      items: row.items.map(({ item, found, built }) => [item.name, figureOf(found), figureOf(built)]),
      earlier: row.earlier,
    }));
  return {
    facts: facts.length,
    kinds: [...new Set(facts.map(({ body }) => body.kind))].sort(),
    closed: job.closed !== null,
    figures: { mm: sheet("mm"), in: sheet("in") },
    packs: worksheets(job, applied, HOUSE).map((one) => ({
      chain: one.applied.chain.id,
      at: one.stage.at,
      fit: one.fit,
      fitted: one.seats[0]?.fitted ?? null,
      choice: one.choice?.body.kept ?? null,
      waiver: one.waiver !== null,
      mean: one.built.assessment.estimate?.mean ?? null,
    })),
    asFound: asFound(job, applied, "proven").map(({ id, said }) => [
      id,
      said ? (said.body.text ?? CANNOT.words[said.body.cannot]) : null,
    ]),
    dispositions: states.map(({ part, proposed, is, because }) => [
      ...[part.id, proposed && DISPOSITIONS.words[proposed], is && DISPOSITIONS.words[is]],
      because.map(({ rule, words }) => `${rule}: ${words}`),
    ]),
    unlooked: unlooked(states).map(({ part }) => part.id),
    weakPoints: weakPoints(job, applied).map(({ point, answer }) => [point.name, answer?.name ?? null]),
    failed: failed(job, applied).map((one) => ({
      of: one.id,
      kind: one.kind,
      cause: one.cause && { ...one.cause.body, standing: CAUSE_STANDINGS.words[one.cause.body.standing] },
      candidates: candidateCauses(job, applied, "proven", one)
        .slice(0, 3)
        // A weak point went by its place in a list, and goes by its own id now.
        .map(({ id, chance }) => [id.replace(/^weak-point.*/, "weak point"), Math.round(chance * 1e6) / 1e6]),
    })),
    steps: plan.steps.map(({ step, at }) => [step.id, at]),
    lies: [...plan.bench.things.values()].map(({ part, place, state }) => [part.id, place, state]),
    bolts: [...plan.bench.bolts.values()].map(({ group, placesOut, place }) => [
      group,
      placesOut.length,
      place,
    ]),
    counts: counts(job, applied).map(({ name, expected, found }) => [name, expected, found]),
    balls: ballsOf(ballCount(job, applied)),
    wrongs: job.wrongs.map(({ body }) => [FOUND_WRONG.words[body.what], body.of]),
    // What was kept says answers in words.
    told: toldBy(job, applied.present).map(({ outcome, conditions, ...one }) => ({
      ...one,
      outcome: outcomeWords(outcome),
      conditions: conditions?.map((when) => CONDITIONS.words[when]),
    })),
    codes: job.codes.map(({ body }) => body.code),
    photos: job.photos.map(({ id, fact, marks }) => [id, fact.body.caption, marks.length]),
    places: job.places.map(({ body }) => body),
    // How it is driven and who was in it before was guessed from the words, and is read as codes since.
    booking: job.booking && { ...job.booking.body, driven: undefined, opened: undefined },
    holder: job.holder?.body.name,
    depth: job.depths?.join(" + ") ?? null,
    configuration: job.configuration,
  };
}

describe("jobs of an earlier Yard Key", () => {
  it.each(NAMES)("%s says what it said", (name) => {
    const document = read(`${name}.json`) as { book: unknown; facts: Fact[] };
    // Through JSON, as what was kept has gone: what is undefined is absent.
    expect(JSON.parse(JSON.stringify(saidBy(document)))).toEqual(read(`${name}.said.json`));
  });
});
