import type { Applied, Book } from "../book";
import type { Open } from "./open";

/**
 * Where along the unit each open thing sits.
 *
 * @returns station → what is open there, in the order it was given; what sits nowhere in particular is left out.
 */
export function openByStation(open: readonly Open[], { unit }: Applied): Map<string, Open[]> {
  const byStation = new Map<string, Open[]>();
  for (const one of open) {
    const station = stationOf(unit, one);
    if (station !== undefined) byStation.set(station, [...(byStation.get(station) ?? []), one]);
  }
  return byStation;
}

/** The stations that the work reaches: something comes off there, or a figure is taken. */
export function stationsInScope({ unit, work, chains }: Applied): Set<string> {
  const figures = [
    ...chains.filter(({ inScope }) => inScope).map(({ chain }) => chain.id),
    ...(work.measurements ?? []).map(({ id }) => id),
  ];
  const parts = [...(work.teardown ?? []), ...(work.build ?? [])].flatMap((step) => step.parts ?? []);
  return new Set(
    [
      ...figures.map((id) => ofFigure(unit, id)),
      ...parts.map((id) => ofPart(unit, id)),
      ...work.packs.map(({ station }) => station),
    ].filter((station) => station !== undefined),
  );
}

function stationOf(unit: Book, { kind, of }: Open): string | undefined {
  switch (kind) {
    case "part":
    case "renew":
      return ofPart(unit, of);
    case "figure":
      return ofFigure(unit, of);
    case "step":
      return firstOf(unit, unit.teardown?.find(({ id }) => id === of)?.parts);
    case "weak point": {
      const point = unit.weakPoints?.find(({ id }) => id === of);
      return point?.station ?? firstOf(unit, point?.parts);
    }
    case "cause":
      return unit.packs.find(({ element }) => element === of)?.station ?? ofPart(unit, of);
    case "trait":
    case "disagreement":
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
