import { measurementWords, specWords, type Applied, type System } from "../book";
import { lengthText, plusMinusText, roundedText } from "../quantity";
import { isSpread, type Assessment, type Verdict } from "../reading";
import type { Cannot, Phase } from "./fact";
import { figures } from "./figures";
import type { FactOf, Job, JobReading } from "./job";
import { ruleOf, worksheets, type House, type ReadingSet, type Worksheet } from "./worksheet";

/** How a figure stands; from the gravest to the quietest. */
export const STANDINGS = [
  "outside",
  "too close",
  "creeping",
  "too few",
  "said",
  "inside",
  "not stated",
  "not yet",
] as const;
export type Standing = (typeof STANDINGS)[number];

/** A figure as one phase has it. */
export interface RowFigure {
  /** With its unit; empty while there is none. */
  text: string;
  standing: Standing;
  readings: readonly JobReading[];
  verdict: Verdict | null;
  said: Cannot | null;
  by: string;
}

/** One line of the spec sheet: everything the book states a figure for. */
export interface Row {
  id: string;
  of: "pack" | "chain" | "measurement";
  name: string;
  kind: string;
  station: string;
  spec: string;
  /** How it is read, and where. */
  how: string;
  /** How many readings the book wants. */
  wanted: number;
  found: RowFigure;
  built: RowFigure;
  sheet: Worksheet | null;
}

const NOTHING: RowFigure = { text: "", standing: "not yet", readings: [], verdict: null, said: null, by: "" };

/**
 * The whole unit as one table: the clearances of packs, every other chain, every measurement in scope, in the book's order, as it came apart
 * and as it was built.
 *
 * @param unit lengths are written in.
 */
export function rows(job: Job, applied: Applied, house: House, unit: System): Row[] {
  const rule = ruleOf(job, house);
  const stations = new Map(applied.unit.stations.map(({ id, name }) => [id, name]));
  const stationOf = (id: string | undefined): string => (id === undefined ? "" : (stations.get(id) ?? ""));
  const packs = worksheets(job, applied, house)
    .filter(({ stage }) => stage.at !== "quiet")
    .map((sheet): Row => {
      const { chain, pack, methods } = sheet.applied;
      return {
        ...{ id: chain.id, of: "pack", name: chain.name, kind: chain.kind, sheet },
        station: stationOf(pack.station),
        spec: specWords(sheet.applied, unit),
        how: methods.join(", "),
        wanted: chain.read.points ?? 3,
        found: ofSet(sheet.found, null, unit),
        built: ofSet(sheet.choice ? sheet.built : sheet.trial, null, unit),
      };
    });
  const built = new Map(figures(job, applied, rule, "built").map((one) => [`${one.kind} ${one.id}`, one]));
  const partStation = new Map(applied.unit.parts.map((part) => [part.id, part.station]));
  const others = figures(job, applied, rule, "found").map((one): Row => {
    const after = built.get(`${one.kind} ${one.id}`);
    if (one.kind === "chain") {
      const { chain } = one.applied;
      return {
        ...{ id: one.id, of: "chain", name: chain.name, kind: chain.kind, sheet: null },
        station: stationOf(chain.station),
        spec: specWords(one.applied, unit),
        how: [chain.read.with.join(", "), ...(chain.read.places ?? [])].join("; "),
        wanted: chain.read.points ?? 3,
        found: ofSet(one, one.said, unit),
        built: after?.kind === "chain" ? ofSet(after, after.said, unit) : NOTHING,
      };
    }
    const { measurement } = one;
    return {
      ...{ id: one.id, of: "measurement", name: measurement.name, kind: measurement.kind, sheet: null },
      station: stationOf(measurement.part === undefined ? undefined : partStation.get(measurement.part)),
      spec: measurementWords(measurement, unit),
      ...{ how: measurement.condition ?? "", wanted: 1 },
      found: ofSaid(one.said, one.verdict),
      built: after?.kind === "measurement" ? ofSaid(after.said, after.verdict) : NOTHING,
    };
  });
  return [...packs, ...others];
}

/** Rows that need somebody first: outside, then too close to call; the rest keep their order. */
export const gravestFirst = (list: readonly Row[], phase: Phase): Row[] =>
  [...list].sort((a, b) => STANDINGS.indexOf(a[phase].standing) - STANDINGS.indexOf(b[phase].standing));

function ofSet(
  { readings, assessment }: Pick<ReadingSet, "readings" | "assessment">,
  said: FactOf<"figure"> | null,
  unit: System,
): RowFigure {
  if (readings.length === 0) return ofSaid(said, null);
  const { verdict } = assessment;
  const by = readings.at(-1)?.fact.by ?? "";
  return {
    text: estimateText(assessment, readings, unit),
    standing: verdict.kind,
    readings,
    verdict,
    said: null,
    by,
  };
}

function estimateText({ estimate }: Assessment, readings: readonly JobReading[], unit: System): string {
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

function ofSaid(
  said: FactOf<"figure"> | null,
  verdict: "inside" | "outside" | "not stated" | null,
): RowFigure {
  if (!said) return NOTHING;
  const { text, cannot } = said.body;
  const standing: Standing =
    verdict ?? (cannot === "felt only, not in order" ? "outside" : cannot ? "said" : "not stated");
  return {
    text: text ?? cannot ?? "",
    standing,
    readings: [],
    verdict: null,
    said: cannot ?? null,
    by: said.by,
  };
}
