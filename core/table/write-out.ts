import { packId } from "../book";
import { isRecord } from "../shape";
import { type TableName } from "./columns";
import type { TableRow } from "./writing";

type Entry = Record<string, unknown>;
const listOf = (document: unknown, section: string): Entry[] => {
  const list = isRecord(document) ? (document as Entry)[section] : undefined;
  return Array.isArray(list) ? (list as Entry[]) : [];
};
const textOf = (value: unknown): string =>
  typeof value === "string" || typeof value === "number" ? String(value) : "";

/**
 * A book’s document as one of its tables: what it says, in the columns of `TABLES`, and nothing that has no column. Taken in again it says the
 * same.
 */
export function writeOut(document: unknown, table: TableName): TableRow[] {
  return WRITE[table](document).map((row) =>
    Object.fromEntries(Object.entries(row).filter(([, cell]) => cell !== "")),
  );
}

/** `{ body: ["late"] }` → `body late`. */
const versionText = (when: unknown): string =>
  isRecord(when)
    ? Object.entries(when)
        .map(([trait, values]) =>
          [trait, ...(Array.isArray(values) ? (values as unknown[]) : [values])].join(" "),
        )
        .join("; ")
    : "";

function figures(document: unknown): TableRow[] {
  const packs = listOf(document, "packs");
  const series = listOf(document, "series");
  const chains = listOf(document, "chains").flatMap((chain): TableRow[] => {
    const specs = (Array.isArray(chain.spec) ? chain.spec : [chain.spec ?? {}]) as Entry[];
    const pack =
      chain.kind === "pack clearance" ? packs.find(({ element }) => element === chain.of) : undefined;
    const [gauge] =
      isRecord(chain.read) && Array.isArray(chain.read.with) ? (chain.read.with as unknown[]) : [];
    const own = ((chain.links ?? []) as unknown[][]).find(([, kind]) => kind === "series")?.[2];
    const ring =
      pack &&
      series.find(
        ({ id, kind }) => id === own && kind === "snap ring" && id === `${textOf(pack.element)}-ring`,
      );
    return specs.map((spec) => ({
      name: textOf(chain.name),
      element: pack ? elementText(pack) : "",
      kind: textOf(chain.kind),
      min: textOf(spec.min),
      max: textOf(spec.max),
      how: pack ? "" : textOf(gauge),
      frictions: pack ? countText(pack, "friction") : "",
      steels: pack ? countText(pack, "steel") : "",
      rings: ring ? ((ring.sizes ?? []) as Entry[]).map(({ size }) => textOf(size)).join("; ") : "",
      within: ring ? textOf(ring.tolerance) : "",
      whose: textOf(spec.from),
      when: versionText(spec.when),
      id: textOf(chain.id),
    }));
  });
  const others = listOf(document, "measurements").map((one): TableRow => ({
    name: textOf(one.name),
    kind: textOf(one.kind),
    min: textOf(one.min),
    max: textOf(one.max),
    whose: textOf(one.from),
    id: textOf(one.id),
  }));
  return [...chains, ...others];
}

/** An element by the pack’s name where that leads to it, else by its id. */
const elementText = ({ element, name }: Entry): string =>
  packId(textOf(name)) === element ? textOf(name) : textOf(element);

const countText = ({ stack }: Entry, role: string): string => {
  const entries = ((stack ?? []) as Entry[]).filter((one) => one.role === role);
  return entries.length === 0
    ? ""
    : `${entries.reduce((sum, { count }) => sum + (typeof count === "number" ? count : 1), 0)}`;
};

const WRITE: Readonly<Record<TableName, (document: unknown) => TableRow[]>> = {
  figures,
  fasteners: (document) =>
    listOf(document, "fasteners").map((one) => ({
      name: textOf(one.name),
      count: textOf(one.count),
      size: textOf(one.size),
      length: textOf(one.length),
      torque: textOf(one.torque),
      angle: textOf(one.angle),
      pattern: textOf(one.pattern),
      wet: textOf(one.thread),
      whose: textOf(one.from),
      id: textOf(one.id),
    })),
  rings: (document) =>
    listOf(document, "series").flatMap((one) => {
      const pack = listOf(document, "packs").find(({ grooves }) =>
        ((grooves ?? []) as Entry[]).some(({ ring }) => ring === one.id),
      );
      return ((one.sizes ?? []) as Entry[]).map((size) => ({
        series: textOf(one.name),
        kind: textOf(one.kind),
        mark: textOf(size.mark),
        size: textOf(size.size),
        within: textOf(one.tolerance),
        part: textOf(size.part),
        element: pack ? elementText(pack) : "",
        id: textOf(one.id),
      }));
    }),
  parts: (document) => {
    const parts = listOf(document, "parts");
    return parts.map((one) => ({
      name: textOf(one.name),
      number: textOf(one.number),
      kind: textOf(one.kind),
      count: textOf(one.count),
      of: textOf(one.of),
      id: textOf(one.id),
    }));
  },
  chart: (document) => {
    const elements = listOf(document, "elements");
    return listOf(document, "ranges").map((range) => {
      const [applied, braking] = [range.applied, range.braking].map((ids) => (ids ?? []) as unknown[]);
      return {
        range: textOf(range.id),
        ratio: textOf(range.ratio),
        ...Object.fromEntries(
          elements.map(({ id }) => [
            `element:${textOf(id)}`,
            applied?.includes(id) ? "x" : braking?.includes(id) ? "(x)" : "",
          ]),
        ),
      };
    });
  },
};
