import type { Applied, Book } from "../book";
import type { Open } from "./open";

/**
 * Where along the unit each open thing sits.
 *
 * @returns station → what is open there, in the order it was given; what sits nowhere in particular is left out.
 */
export function openByStation(open: readonly Open[], { present }: Applied): Map<string, Open[]> {
  const byStation = new Map<string, Open[]>();
  for (const one of open) {
    const station = stationOf(present, one);
    if (station !== undefined) byStation.set(station, [...(byStation.get(station) ?? []), one]);
  }
  return byStation;
}

/** The stations that the work reaches: something comes off there, or a figure is taken. */
export function stationsInScope({ present, scoped, chains }: Applied): Set<string> {
  const figures = [
    ...chains.filter(({ inScope }) => inScope).map(({ chain }) => chain.id),
    ...(scoped.measurements ?? []).map(({ id }) => id),
  ];
  const parts = [...(scoped.teardown ?? []), ...(scoped.build ?? [])].flatMap((step) => step.parts ?? []);
  return new Set(
    [
      ...figures.map((id) => ofFigure(present, id)),
      ...parts.map((id) => ofPart(present, id)),
      ...scoped.packs.map(({ station }) => station),
    ].filter((station) => station !== undefined),
  );
}

function stationOf(unit: Book, { kind, subject }: Open): string | undefined {
  switch (kind) {
    case "part":
    case "question":
    case "renew":
      return ofPart(unit, subject);
    case "figure":
      return ofFigure(unit, subject);
    case "step":
      return firstOf(unit, unit.teardown?.find(({ id }) => id === subject)?.parts);
    case "build":
      return firstOf(unit, unit.build?.find(({ id }) => id === subject)?.parts);
    case "weak point": {
      const point = unit.weakPoints?.find(({ id }) => id === subject);
      return point?.station ?? firstOf(unit, point?.parts);
    }
    case "cause":
      return unit.packs.find(({ element }) => element === subject)?.station ?? ofPart(unit, subject);
    case "trait":
    case "disagreement":
    case "proof":
    case "procedure":
    case "relearn":
    case "drive":
      return undefined;
  }
}

/** A part sits where the book says, or where what it is part of sits. */
function ofPart({ parts }: Book, id: string): string | undefined {
  const seen = new Set<string>();
  let part = parts.find((one) => one.id === id);
  while (part && part.station === undefined && part.of !== undefined && !seen.has(part.id)) {
    seen.add(part.id);
    const { of } = part;
    part = parts.find((one) => one.id === of);
  }
  return part?.station;
}

function ofFigure(unit: Book, id: string): string | undefined {
  const chain = unit.chains.find((one) => one.id === id);
  if (chain) {
    const pack = unit.packs.find(({ element }) => element === chain.of);
    return chain.station ?? pack?.station ?? firstOf(unit, chain.parts);
  }
  const measurement = unit.measurements?.find((one) => one.id === id);
  return measurement?.part === undefined ? undefined : ofPart(unit, measurement.part);
}

const firstOf = (unit: Book, parts: readonly string[] = []): string | undefined => {
  for (const part of parts) {
    const station = ofPart(unit, part);
    if (station !== undefined) return station;
  }
  return undefined;
};
