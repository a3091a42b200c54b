import { measurementWords, specWords, type Applied, type PackChain, type UnitSystem } from "../book";
import {
  CANNOT,
  type Cannot,
  type EarlierFigure,
  type FactOf,
  type Job,
  type JobReading,
  type Phase,
} from "../fact";
import { lengthText, nm, plusMinusText, rangeText, roundedText, signedText, type Nm } from "../quantity";
import { isSpread, type Assessment, type Mark, type Verdict } from "../reading";
import { figures, type Figure } from "./figures";
import { DEPTH, itemsOfChain, type Item, type Judgement } from "./items";
import { readingsAsked, type ReadingSet } from "./reading-set";
import { ruleOf, worksheet, worksheets, type House, type PackSheet, type Worksheet } from "./worksheet";

/** How a figure stands; from the gravest to the quietest. */
export const STANDINGS = [
  "outside",
  "too close",
  "creeping",
  "too few",
  "conditions not said",
  "said",
  "inside",
  "not stated",
  "not yet",
] as const;
/** What a figure’s line stands at, worst first in `STANDINGS`. */
export type Standing = (typeof STANDINGS)[number];

/** A figure as one phase has it. */
export interface PhaseFigure {
  /** With its unit; empty while there is none. */
  text: string;
  standing: Standing;
  readings: readonly JobReading[];
  /** What became of each of its readings. */
  marks: readonly Mark[];
  verdict: Verdict | null;
  said: Cannot | null;
  /** The mean of its readings, where it is one figure and they have one. */
  mean?: Nm;
  /** Where the book wants it in an order with another figure and it is not: in words. */
  wrongOrder: readonly string[];
  by: string;
}

/** One line of the spec sheet: everything the book states a figure for. */
export interface SpecLine {
  id: string;
  subject: "pack" | "chain" | "measurement";
  name: string;
  kind: string;
  station: string;
  spec: string;
  /** How it is read, and where. */
  how: string;
  /** How many readings the book wants. */
  wanted: number;
  found: PhaseFigure;
  built: PhaseFigure;
  /** Where something is chosen that moves it; null where nothing is. */
  sheet: Worksheet | null;
  /** What it left with at the unit’s earlier visit, and how far it has moved since; null where nothing is known of it. */
  earlier: { text: string; moved: string } | null;
  /** Each of the things the figure is taken of, the way a part is turned among them; empty where it is one figure. */
  items: SpecLineItem[];
}

/** One of the things a figure is taken of. */
export interface SpecLineItem {
  item: Item;
  found: PhaseFigure;
  built: PhaseFigure;
}

/** What the book says of a figure: the same whatever is read. */
type Printed = Pick<SpecLine, "id" | "subject" | "name" | "kind" | "station" | "spec" | "how" | "wanted">;

interface PrintedOf {
  packs: (chain: PackChain) => Printed;
  others: (figure: Figure) => Printed;
}

const printed = new WeakMap<Applied, Map<UnitSystem, PrintedOf>>();

/** The words of the book’s figures, written once for what applies. */
function printedOf(applied: Applied, unit: UnitSystem): PrintedOf {
  const units = printed.get(applied) ?? new Map<UnitSystem, PrintedOf>();
  printed.set(applied, units);
  const found = units.get(unit);
  if (found) return found;
  const stations = new Map(applied.present.stations.map(({ id, name }) => [id, name]));
  const partStation = new Map(applied.present.parts.map((part) => [part.id, part.station]));
  const stationOf = (id: string | undefined): string => (id === undefined ? "" : (stations.get(id) ?? ""));
  const written = new Map<string, Printed>();
  const once = (subject: SpecLine["subject"], id: string, write: () => Printed): Printed => {
    const key = `${subject} ${id}`;
    const words = written.get(key) ?? write();
    written.set(key, words);
    return words;
  };
  const of: PrintedOf = {
    packs: (one) => once("pack", one.chain.id, () => ofPackChain(one, stationOf(one.pack.station), unit)),
    others: (one) =>
      once(one.kind, one.id, () =>
        one.kind === "chain"
          ? ofChain(one, stationOf(one.applied.chain.station), unit)
          : ofMeasurement(one, stationOf(partStation.get(one.measurement.part ?? "")), unit),
      ),
  };
  units.set(unit, of);
  return of;
}

const ofPackChain = (applied: PackChain, station: string, unit: UnitSystem): Printed => ({
  id: applied.chain.id,
  subject: "pack",
  name: applied.chain.name,
  kind: applied.chain.kind,
  station,
  spec: specWords(applied, unit),
  how: applied.methods.join(", "),
  wanted: readingsAsked(applied),
});

const ofChain = (
  { id, applied }: Extract<Figure, { kind: "chain" }>,
  station: string,
  unit: UnitSystem,
): Printed => ({
  id,
  subject: "chain",
  name: applied.chain.name,
  kind: applied.chain.kind,
  station,
  spec: specWords(applied, unit),
  how: [applied.chain.read.with.join(", "), ...(applied.chain.read.places ?? [])].join("; "),
  wanted: itemsOfChain(applied).length || readingsAsked(applied),
});

const ofMeasurement = (
  { id, measurement, items }: Extract<Figure, { kind: "measurement" }>,
  station: string,
  unit: UnitSystem,
): Printed => ({
  id,
  subject: "measurement",
  name: measurement.name,
  kind: measurement.kind,
  station,
  spec: measurementWords(measurement, unit),
  how: measurement.condition ?? "",
  wanted: Math.max(1, items.length),
});

const NOTHING: PhaseFigure = {
  text: "",
  standing: "not yet",
  readings: [],
  marks: [],
  verdict: null,
  said: null,
  wrongOrder: [],
  by: "",
};

/**
 * The whole unit as one table: the clearances of packs, every other chain, every measurement in scope, in the book's order, as it came apart
 * and as it was built.
 *
 * @param unit lengths are written in.
 */
export function specLines(job: Job, applied: Applied, house: House, unit: UnitSystem): SpecLine[] {
  const rule = ruleOf(job, house);
  const printed = printedOf(applied, unit);
  const packs = worksheets(job, applied, house)
    .filter(({ stage }) => stage.at !== "quiet")
    .map((sheet): SpecLine => ({
      ...printed.packs(sheet.applied),
      sheet,
      items: [],
      earlier: null,
      found: ofSet(sheet.found, sheet.found.said, unit),
      built: ofSheet(sheet, unit),
    }));
  // The same figures in the same order, whatever the phase.
  const asBuilt = figures(job, applied, rule, "built");
  const others = figures(job, applied, rule, "found").map((one, i): SpecLine => {
    const after = asBuilt[i] ?? one;
    const [now, then] = [itemFigures(one, unit), itemFigures(after, unit)];
    const items = now.map(({ item, figure }, n): SpecLineItem => ({
      item,
      found: figure,
      built: then[n]?.figure ?? NOTHING,
    }));
    const sheet =
      one.kind === "chain" && one.applied.seats.length > 0 ? worksheet(job, one.applied, house) : null;
    const as = ofFigure(after, then, unit);
    const built = sheet ? conditioned(as, sheet) : as;
    return { ...printed.others(one), sheet, items, earlier: null, found: ofFigure(one, now, unit), built };
  });
  const lines = [...packs, ...others];
  for (const row of lines) row.earlier = earlierOf(job, row, unit);
  for (const phase of ["found", "built"] as const)
    for (const [low, high] of wrongOrders(lines, applied, (row) => row[phase].mean)) {
      low[phase] = { ...low[phase], wrongOrder: [...low[phase].wrongOrder, `more than ${high.name}`] };
      high[phase] = { ...high[phase], wrongOrder: [...high[phase].wrongOrder, `less than ${low.name}`] };
    }
  return lines;
}

/**
 * Pairs of figures that the book wants in an order and that are not, the one that should be smaller first: each may be inside and the unit is
 * still not right.
 *
 * @param meanOf what a line is taken at; what is not known is in no order.
 */
export function wrongOrders(
  lines: readonly SpecLine[],
  { present }: Applied,
  meanOf: (line: SpecLine) => Nm | undefined,
): [low: SpecLine, high: SpecLine][] {
  const byId = new Map(lines.map((line) => [line.id, line]));
  return (present.orders ?? []).flatMap(([below, , above]): [SpecLine, SpecLine][] => {
    const [low, high] = [byId.get(below), byId.get(above)];
    const [less, more] = [low && meanOf(low), high && meanOf(high)];
    return low && high && less !== undefined && more !== undefined && less > more ? [[low, high]] : [];
  });
}

/** A pack as it was built, or tried as long as nothing is decided. */
function ofSheet(sheet: PackSheet, unit: UnitSystem): PhaseFigure {
  const set = sheet.choice ? sheet.built : sheet.trial;
  return conditioned(ofSet(set, set.said, unit), sheet);
}

/** What was read without the book’s conditions counts for nothing yet, and says so wherever it is shown. */
const conditioned = (figure: PhaseFigure, { conditions }: Worksheet): PhaseFigure =>
  figure.readings.length > 0 && conditions.missing.length > 0
    ? { ...figure, standing: "conditions not said" }
    : figure;

/** What the unit left with, for another visit of it: every figure as built, else as found. */
export function leftWith(job: Job, applied: Applied, house: House): EarlierFigure[] {
  const system: UnitSystem = applied.present.unit.lengthUnit === "in" ? "in" : "mm";
  return specLines(job, applied, house, system).flatMap((row): EarlierFigure[] => {
    const last = row.built.standing === "not yet" ? row.found : row.built;
    if (last.standing === "not yet") return [];
    const value = meanOf(last);
    return [
      {
        of: row.subject === "measurement" ? "measurement" : "chain",
        id: row.id,
        text: last.text,
        ...(value === undefined ? {} : { value }),
      },
    ];
  });
}

/** The mean of what was read; of several things there is none. */
const meanOf = ({ readings, verdict, mean }: PhaseFigure): Nm | undefined =>
  readings.length > 0 && verdict ? mean : undefined;

function earlierOf(job: Job, row: Omit<SpecLine, "earlier">, unit: UnitSystem): SpecLine["earlier"] {
  const of = row.subject === "measurement" ? "measurement" : "chain";
  const before = job.earlier?.body.figures.find((one) => one.of === of && one.id === row.id);
  if (!before) return null;
  const now = meanOf(row.found);
  if (before.value === undefined || now === undefined) return { text: before.text, moved: "" };
  return { text: roundedText(before.value, unit), moved: signedText(nm(now - before.value), unit) };
}

/** Rows that need somebody first: outside, then too close to call; the rest keep their order. */
export const gravestFirst = (list: readonly SpecLine[], phase: Phase): SpecLine[] =>
  [...list].sort((a, b) => STANDINGS.indexOf(a[phase].standing) - STANDINGS.indexOf(b[phase].standing));

/** A figure as its row says it: of several things the worst, and how many are read. */
function ofFigure(one: Figure, each: ReturnType<typeof itemFigures>, unit: UnitSystem): PhaseFigure {
  const whole = one.kind === "chain" ? ofSet(one, one.said, unit) : ofSaid(one.said, one.verdict);
  if (each.length === 0) return whole;
  const read = each.filter(({ figure }) => figure.standing !== "not yet");
  if (read.length === 0) return whole;
  const of = ({ figure }: (typeof each)[number]): number => STANDINGS.indexOf(figure.standing);
  const worst = read.reduce((a, b) => (of(b) < of(a) ? b : a));
  const grave = of(worst) <= STANDINGS.indexOf("too close");
  return {
    ...worst.figure,
    mean: undefined,
    text: grave ? `${worst.figure.text}, ${worst.item.name}` : spanOf(one, read, unit),
    standing: grave || read.length === each.length ? worst.figure.standing : "too few",
    // Each of the things has its own.
    readings: one.kind === "chain" ? one.readings : [],
    marks: [],
  };
}

/** Each of the things a figure is taken of, as a figure of its own. */
function itemFigures(one: Figure, unit: UnitSystem): { item: Item; figure: PhaseFigure }[] {
  if (one.kind === "measurement")
    return one.items.map(({ item, said, verdict }) => ({ item, figure: ofSaid(said, verdict) }));
  const each = one.items.map((read) => ({ item: read.item, figure: ofSet(read, read.said, unit) }));
  const { clocking } = one;
  if (!clocking) return each;
  // A single depth and the way the part is turned stand beside each other.
  const depth = each.length > 0 ? [] : [{ item: { name: DEPTH }, figure: ofSet(one, one.said, unit) }];
  return [...each, ...depth, { item: clocking.item, figure: ofSaid(clocking.said, clocking.verdict) }];
}

/** The smallest and the largest of what was read; else what was said of the last. */
function spanOf(one: Figure, read: readonly { figure: PhaseFigure }[], unit: UnitSystem): string {
  const means =
    one.kind === "chain" ? one.items.flatMap(({ assessment }) => assessment.estimate?.mean ?? []) : [];
  const sorted = [...means].sort((a, b) => a - b);
  const [low, high] = [sorted[0], sorted.at(-1)];
  if (low === undefined || high === undefined)
    return [...new Set(read.map(({ figure }) => figure.text))].slice(0, 2).join(", ");
  return low === high ? lengthText(low, unit) : rangeText(low, high, unit);
}

function ofSet(
  { readings, assessment }: Pick<ReadingSet, "readings" | "assessment">,
  said: FactOf<"figure"> | null,
  unit: UnitSystem,
): PhaseFigure {
  if (readings.length === 0) return ofSaid(said, null);
  const { verdict } = assessment;
  const by = readings.at(-1)?.fact.by ?? "";
  return {
    text: estimateText(assessment, readings, unit),
    standing: verdict.kind,
    readings,
    marks: assessment.marks,
    verdict,
    said: null,
    ...(assessment.estimate ? { mean: assessment.estimate.mean } : {}),
    wrongOrder: [],
    by,
  };
}

function estimateText({ estimate }: Assessment, readings: readonly JobReading[], unit: UnitSystem): string {
  if (estimate)
    return isSpread(estimate)
      ? plusMinusText(estimate.mean, estimate.expanded, unit)
      : roundedText(estimate.mean, unit);
  return readings
    .map(({ fact: { body } }) =>
      body.reading.kind === "bracket" ? "" : lengthText(body.reading.value, unit),
    )
    .filter(Boolean)
    .join(", ");
}

function ofSaid(said: FactOf<"figure"> | null, verdict: Judgement | null): PhaseFigure {
  if (!said) return NOTHING;
  const { text, cannot } = said.body;
  const standing: Standing =
    verdict ?? (cannot === "felt-only-not-in-order" ? "outside" : cannot ? "said" : "not stated");
  return {
    text: text ?? (cannot ? CANNOT.words[cannot] : ""),
    standing,
    readings: [],
    marks: [],
    verdict: null,
    said: cannot ?? null,
    wrongOrder: [],
    by: said.by,
  };
}
