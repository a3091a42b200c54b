import {
  CHAIN_KINDS,
  MEASUREMENT_KINDS,
  ORIGINS,
  originWords,
  packEntries,
  packId,
  statedIn,
  type Origin,
} from "../book";
import { parseLength, parseMeasure, type LengthUnit } from "../quantity";
import { GAUGES } from "../reading";
import { codeFor, isRecord } from "../shape";
import { idOf, isBelow, type Entry, type TableRow, type Writing } from "./writing";

const unitOf = (writing: Writing, cells: TableRow, row: number): LengthUnit => {
  const { unit } = cells;
  if (!unit) return writing.as.unit;
  const known = { mm: "mm", in: "in", inch: "in", thou: "thou", µm: "µm", um: "µm" } as const;
  const is = unit.toLowerCase().replace(/[."″]/g, (c) => (c === "." ? "" : "in"));
  if (Object.hasOwn(known, is)) return known[is as keyof typeof known];
  writing.tell(row, "unit", `“${unit}” is no unit of length: mm, in or thou`);
  return "mm";
};

/** `body late; plate two` → which version it is of. */
const versionOf = (cell: string | undefined): Record<string, string[]> | undefined =>
  cell
    ? Object.fromEntries(
        cell.split(";").map((one): [string, string[]] => {
          const [trait = "", ...values] = one.trim().split(/\s+/);
          return [trait, values];
        }),
      )
    : undefined;

/** Whose a row says its figure is; nothing where it does not say. */
export function whoseOf(writing: Writing, cells: TableRow, row: number): Origin | undefined {
  const whose = writing.oneOf(row, "whose", cells.whose, [...ORIGINS, ...ORIGINS.map(originWords)]);
  return ORIGINS.find((one) => one === whose || originWords(one) === whose);
}

/** Where a figure is from that a table tells: as its row says, or as was said of the whole table. */
export const toldBy = (
  { as: { source, from, checked } }: Writing,
  whose: Origin | undefined,
): { source: string | undefined; from: Origin | undefined; checked: string } => ({
  source,
  from: whose ?? from,
  checked,
});

/** A row of figures: the clearance of a pack, another chain, or a measurement. */
export function writeFigure(writing: Writing, cells: TableRow, row: number, isGood: () => boolean): void {
  const { name = "", element } = cells;
  const kinds = [...CHAIN_KINDS, ...MEASUREMENT_KINDS];
  const kind =
    writing.oneOf(row, "kind", cells.kind, kinds) ?? (cells.kind ? undefined : kindOf(name, element));
  if (kind === undefined)
    return cells.kind ? undefined : writing.tell(row, "kind", "what kind of figure is it?");
  const whose = whoseOf(writing, cells, row);
  const told = toldBy(writing, whose);
  const measured = MEASUREMENT_KINDS.find((one) => one === kind);
  const quantity = measured && statedIn(measured);
  const measure = (min: string | undefined, max: string | undefined): void => {
    const id = idOf(writing, "measurements", cells);
    const known = writing.list("measurements").find((one) => one.id === id);
    const isTold = (min ?? max) !== undefined && (known?.min !== min || known?.max !== max);
    const entry = { id, name, kind, min, max, ...(isTold ? told : { from: whose }) };
    writing.put("measurements", "id", entry, row);
  };
  if (measured && quantity !== "length") {
    const figure = (column: "min" | "max"): string | undefined => {
      const cell = cells[column];
      if (!cell || !quantity) return cell;
      const text = cells.unit && /^[-−\d.,\s]+$/.test(cell) ? `${cell} ${cells.unit}` : cell;
      const read = parseMeasure(text, quantity);
      if (!read.ok) writing.tell(row, column, `${read.problem}${read.remedy && `; ${read.remedy}`}`);
      return text;
    };
    const [min, max] = [figure("min"), figure("max")];
    if (isGood()) measure(min, max);
    return;
  }
  const unit = unitOf(writing, cells, row);
  const [min, max] = (["min", "max"] as const).map((end) => writing.length(row, end, cells[end], unit));
  if (min !== undefined && max !== undefined && !isBelow(min, max))
    writing.tell(row, "max", "is not above min");
  if (measured) {
    if (isGood()) measure(min, max);
    return;
  }
  const spec = { ...(min || max ? { min, max, ...told } : {}) };
  const gauge = GAUGES.find((one) => codeFor(one) === codeFor(cells.how ?? ""));
  if (kind === "pack clearance") {
    writePack(writing, cells, row, { min, max, told, unit, isGood });
    return;
  }
  if (!isGood()) return;
  const id = idOf(writing, "chains", cells);
  const known = writing.list("chains").find((one) => one.id === id);
  writing.put(
    "chains",
    "id",
    {
      id,
      name,
      kind,
      ...(known ? {} : { links: [["+", "measured", name]], read: { with: [gauge ?? "dial"] } }),
      ...(cells.how && !gauge && !known ? { read: { with: ["dial"], how: cells.how } } : {}),
      spec: specsWith(known?.spec, spec, versionOf(cells.when)),
    },
    row,
  );
}

/** Where nobody says what kind of figure it is: what its name says, `Input end play`; of an element it is its pack's clearance. */
const kindOf = (name: string, element: string | undefined) =>
  element
    ? "pack clearance"
    : [...CHAIN_KINDS, ...MEASUREMENT_KINDS].find(
        (kind) => kind.includes(" ") && name.toLowerCase().includes(kind),
      );

const sameLength = (a: unknown, b: unknown): boolean => {
  const [one, other] = [a, b].map((text) => (typeof text === "string" ? parseLength(text, "mm") : null));
  return one?.ok === true && other?.ok === true && one.length === other.length;
};

/** What a figure is held against, once one version of it is said. */
function specsWith(known: unknown, spec: Entry, when: Entry | undefined): unknown {
  const before = Array.isArray(known) ? (known as Entry[]) : isRecord(known) ? [known as Entry] : [];
  const version = JSON.stringify(when ?? {});
  const versionsOf = ({ when: of }: Entry): string =>
    JSON.stringify(
      Object.fromEntries(
        Object.entries(isRecord(of) ? of : {}).map(([trait, values]) => [
          trait,
          Array.isArray(values) ? values : [values],
        ]),
      ),
    );
  const at = before.findIndex((one) => versionsOf(one) === version);
  const said = Object.fromEntries(Object.entries(spec).filter(([, value]) => value !== undefined));
  const old = before[at];
  const isSame = (key: string): boolean =>
    said[key] === undefined || said[key] === old?.[key] || sameLength(said[key], old?.[key]);
  // What says no more than what stands there was not checked anew.
  if (old && ["min", "max", "from"].every(isSame)) return known;
  const next =
    at >= 0
      ? before.map((one, i) => (i === at ? { ...one, ...said } : one))
      : [...(when ? [{ ...said, when }] : []), ...before, ...(when ? [] : [said])];
  return next.length === 1 ? next[0] : next;
}

function writePack(
  writing: Writing,
  cells: TableRow,
  row: number,
  {
    min,
    max,
    told,
    unit,
    isGood,
  }: {
    min: string | undefined;
    max: string | undefined;
    told: { source: string | undefined; from: Origin | undefined; checked: string };
    unit: LengthUnit;
    isGood: () => boolean;
  },
): void {
  const name = (cells.element || cells.name || "").trim();
  const frictions = writing.count(row, "frictions", cells.frictions, 20) ?? 0;
  const steels = writing.count(row, "steels", cells.steels, 20) ?? 0;
  if (frictions > 0 && cells.steels && Math.abs(frictions - steels) > 1)
    writing.tell(
      row,
      "steels",
      `with ${frictions} frictions ${frictions - 1} to ${frictions + 1} lie by turns`,
    );
  const rings = (cells.rings ?? "")
    .split(/[;\s]+(?!mm|in\b)/)
    .filter((one) => one !== "")
    .flatMap((one) => writing.length(row, "rings", one, unit) ?? []);
  const within = writing.length(row, "within", cells.within, unit);
  if (rings.length > 0 && !within) writing.tell(row, "within", "how far may a ring be off its mark?");
  if (!isGood()) return;
  const id = packId(name);
  const chain = writing.list("chains").find((one) => one.kind === "pack clearance" && one.of === id);
  const spec = { ...(min || max ? { min, max, ...told } : {}) };
  if (chain) {
    const when = versionOf(cells.when);
    writing.put("chains", "id", { id: chain.id, spec: specsWith(chain.spec, spec, when) }, row);
    return;
  }
  const sorted = [...new Set(rings)].sort((a, b) => (isBelow(a, b) ? -1 : 1));
  const entries = packEntries(
    {
      name,
      kind: writing.list("elements").some((one) => one.id === id && one.kind === "brake")
        ? "brake"
        : "clutch",
      frictions,
      steels: frictions === 0 ? 0 : steels,
      ...(min ? { min } : {}),
      ...(max ? { max } : {}),
      soak: "soaked",
      rings: sorted,
      within: within ?? "",
    },
    {
      checked: told.checked,
      ...(told.from ? { from: told.from } : {}),
      ...(told.source ? { source: told.source } : {}),
    },
  );
  for (const section of ["elements", "series", "packs", "parts"] as const)
    for (const entry of entries[section]) {
      const key = section === "packs" ? "element" : "id";
      if (!writing.list(section).some((one) => one[key] === entry[key]))
        writing.put(section, key, { ...entry }, row, false);
    }
  for (const entry of entries.chains) writing.put("chains", "id", { ...entry, name: cells.name }, row);
}
