import { lengthOf } from "../quantity";
import { METHODS } from "../reading";
import {
  id,
  list,
  map,
  number,
  object,
  oneOf,
  optional,
  text,
  tuple,
  whole,
  written,
  type Problem,
  type Read,
} from "./shape";

/** `yard-key/book@1`: what is known about one unit. This file is the one description of the document. */
export const BOOK_FORMAT = "yard-key/book@1";

const length = written(lengthOf, "1.80 mm");
const allowance = object({ amount: length, within: length });

/** An entry holds only for some configurations (`when`) and belongs to some depths of work (`depth`). */
const holds = { when: optional(map(id)), depth: optional(list(text, 1)) };

const station = object({
  id,
  name: text,
  kind: oneOf("converter", "pump", "gear set", "drum", "brake", "support", "output"),
  /** Where it sits along the shaft, in hundredths of the unit's length from the front. */
  from: number(0, 100),
  to: number(0, 100),
  /** How far it reaches out from the shaft, in hundredths of the case's half height. */
  reach: number(5, 100),
});

const stackEntry = object({
  role: oneOf("piston", "apply plate", "waved plate", "cushion plate", "steel", "friction", "reaction plate"),
  part: id,
  thickness: length,
  count: optional(whole(1, 20)),
  /** What a waved plate stands up when free, beyond its thickness. */
  wave: optional(allowance),
  ...holds,
});

const pack = object({
  element: id,
  name: text,
  /** `shifting` packs are read against their target; one that engages only at standstill may sit anywhere inside. */
  duty: oneOf("shifting", "standstill"),
  station: id,
  stack: list(stackEntry, 1),
  ...holds,
});

const series = object({
  id,
  name: text,
  kind: oneOf("snap ring", "plate", "washer", "shim", "pin"),
  /** Half-width of what a marked size may be off. */
  tolerance: length,
  sizes: list(object({ mark: text, size: length, part: text }), 1),
});

const chain = object({
  id,
  name: text,
  of: id,
  links: list(tuple(oneOf("+", "-"), oneOf("measured", "stack", "series"), id), 2),
  spec: object({
    min: length,
    max: length,
    soak: oneOf("dry", "soaked"),
    facings: optional(oneOf("new", "run-in")),
    wave: optional(oneOf("free", "flat")),
    /** The day the figure was last checked against its source. */
    checked: text,
  }),
  soaking: optional(allowance),
  bedding: optional(allowance),
  read: object({ with: list(oneOf(...METHODS), 1), air: optional(text) }),
  ...holds,
});

const book = object({
  format: oneOf(BOOK_FORMAT),
  unit: object({
    id,
    maker: text,
    name: text,
    family: oneOf("automatic", "cvt", "dual-clutch"),
    lengthUnit: oneOf("mm", "in"),
    revision: whole(1, 100_000),
    source: text,
  }),
  traits: list(object({ id, name: text, values: map(object({ name: text, tell: text })) })),
  depths: list(text, 1),
  stations: list(station, 1),
  members: list(id, 1),
  gearSets: list(
    object({
      id,
      kind: oneOf("simple", "double-pinion"),
      sun: tuple(id, whole(5, 200)),
      ring: tuple(id, whole(5, 400)),
      carrier: id,
    }),
  ),
  elements: list(
    object({
      id,
      kind: oneOf("clutch", "brake", "band", "one-way clutch"),
      joins: tuple(id, id),
      aka: list(text),
      ...holds,
    }),
  ),
  ranges: list(object({ id: text, applied: list(id), ratio: number(-20, 20) })),
  series: list(series),
  packs: list(pack),
  chains: list(chain),
});

export type Book = Read<typeof book>;
export type Station = Book["stations"][number];
export type Pack = Book["packs"][number];
export type StackEntry = Pack["stack"][number];
export type Series = Book["series"][number];
export type SeriesSize = Series["sizes"][number];
export type Chain = Book["chains"][number];
export type Trait = Book["traits"][number];

/**
 * Reads a book document.
 *
 * @param document parsed JSON.
 * @returns the book with lengths in nanometres, or every problem with its path and remedy.
 */
export function readBook(document: unknown): { ok: true; book: Book } | { ok: false; problems: Problem[] } {
  const problems: Problem[] = [];
  const result = book(document, "", problems);
  if (problems.length === 0) checkReferences(result, problems);
  return problems.length === 0 ? { ok: true, book: result } : { ok: false, problems };
}

/** Ids that are used must exist, once; sizes rise; a range has width; a chain can be brought inside. */
function checkReferences(
  { traits, depths, stations, members, gearSets, elements, ranges, series: allSeries, packs, chains }: Book,
  problems: Problem[],
): void {
  const say = (path: string, message: string, remedy: string): void =>
    void problems.push({ path, message, remedy });
  const unique = (name: string, ids: readonly string[]): Set<string> => {
    ids.forEach((value, i) => {
      if (ids.indexOf(value) !== i) say(`${name}[${i}]`, `"${value}" stands twice`, "give each its own id");
    });
    return new Set(ids);
  };
  const need = (known: Set<string>, value: string, path: string, what: string): void => {
    if (!known.has(value)) say(path, `no ${what} "${value}"`, `use one of: ${[...known].join(", ")}`);
  };
  const checkHolds = (entry: { when?: Record<string, string>; depth?: string[] }, path: string): void => {
    for (const [trait, value] of Object.entries(entry.when ?? {})) {
      const known = traits.find((t) => t.id === trait);
      if (!known)
        say(
          `${path}.when.${trait}`,
          `no trait "${trait}"`,
          `use one of: ${traits.map((t) => t.id).join(", ")}`,
        );
      else if (!(value in known.values)) {
        say(
          `${path}.when.${trait}`,
          `trait ${trait} has no value "${value}"`,
          `use one of: ${Object.keys(known.values).join(", ")}`,
        );
      }
    }
    entry.depth?.forEach((depth, i) => {
      need(new Set(depths), depth, `${path}.depth[${i}]`, "depth");
    });
  };

  unique(
    "traits",
    traits.map((t) => t.id),
  );
  const memberIds = unique("members", members);
  const stationIds = unique(
    "stations",
    stations.map((s) => s.id),
  );
  const elementIds = unique(
    "elements",
    elements.map((e) => e.id),
  );
  const seriesIds = unique(
    "series",
    allSeries.map((s) => s.id),
  );
  unique(
    "packs",
    packs.map((p) => p.element),
  );
  unique(
    "chains",
    chains.map((c) => c.id),
  );
  const packIds = new Set(packs.map((p) => p.element));

  stations.forEach(({ from, to }, i) => {
    if (from >= to)
      say(`stations[${i}].to`, "a station ends where it begins", "make `to` larger than `from`");
  });
  gearSets.forEach((set, i) => {
    need(memberIds, set.sun[0], `gearSets[${i}].sun[0]`, "member");
    need(memberIds, set.ring[0], `gearSets[${i}].ring[0]`, "member");
    need(memberIds, set.carrier, `gearSets[${i}].carrier`, "member");
  });
  elements.forEach((element, i) => {
    element.joins.forEach((member, j) => need(memberIds, member, `elements[${i}].joins[${j}]`, "member"));
    checkHolds(element, `elements[${i}]`);
  });
  ranges.forEach((range, i) =>
    range.applied.forEach((e, j) => need(elementIds, e, `ranges[${i}].applied[${j}]`, "element")),
  );
  allSeries.forEach(({ sizes }, i) =>
    sizes.forEach(({ size }, j) => {
      const before = sizes[j - 1];
      if (before && size <= before.size)
        say(`series[${i}].sizes[${j}].size`, "sizes do not rise", "list them from thin to thick");
    }),
  );
  packs.forEach((p, i) => {
    need(elementIds, p.element, `packs[${i}].element`, "element");
    need(stationIds, p.station, `packs[${i}].station`, "station");
    checkHolds(p, `packs[${i}]`);
    p.stack.forEach((entry, j) => checkHolds(entry, `packs[${i}].stack[${j}]`));
  });
  chains.forEach((c, i) => {
    need(packIds, c.of, `chains[${i}].of`, "pack");
    checkHolds(c, `chains[${i}]`);
    if (c.spec.min >= c.spec.max)
      say(`chains[${i}].spec.max`, "max is not above min", "swap or correct them");
    c.links.forEach(([, kind, ref], j) => {
      if (kind === "stack") need(packIds, ref, `chains[${i}].links[${j}][2]`, "pack");
      if (kind === "series") need(seriesIds, ref, `chains[${i}].links[${j}][2]`, "series");
    });
  });
}
