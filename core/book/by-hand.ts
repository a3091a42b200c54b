import { codeFor } from "../shape";
import type { Origin } from "./format/pack";
import { BOOK_FORMAT, type FAMILIES } from "./book";

/** A pack as somebody at the bench writes it down: what is not known is left empty. */
export interface PackByHand {
  name: string;
  kind: "clutch" | "brake";
  frictions: number;
  steels: number;
  /** Clearance from and to, with their unit; left out where nobody knows it. */
  min?: string;
  max?: string;
  soak: "dry" | "soaked";
  /** Sizes of its snap rings, with their unit; none where nothing is chosen. */
  rings: readonly string[];
  /** What a marked size may be off, with its unit. */
  within: string;
}

/** A unit as it is begun: its name, and its packs. */
export interface UnitByHand {
  /** Left out where nobody knows it. */
  maker?: string;
  name: string;
  family: (typeof FAMILIES)[number];
  lengthUnit: "mm" | "in";
  source: string;
  /** Whose its figures are, where somebody said. */
  from?: Origin;
  /** The day the figures were written down. */
  checked: string;
  packs: readonly PackByHand[];
}

/** The id of a pack written down under a name; two names may come to the same. */
export const packId = (name: string): string => codeFor(name) || "pack";

/** What a book’s figures are told with. */
export type Told = Pick<UnitByHand, "from" | "checked"> & { source?: string };

/** The entries a pack makes in a book’s document, as far as it is known. */
export interface PackEntries {
  elements: Entry[];
  series: Entry[];
  packs: Entry[];
  chains: Entry[];
  parts: Entry[];
}
type Entry = Readonly<Record<string, unknown>>;

/**
 * A pack as it stands in a book. No figure is invented: plates have no thickness, an element joins nothing, and what nobody has counted is not
 * there. It is read against its target as shifting ones are.
 */
export function packEntries(
  { name, kind, frictions, steels, min, max, soak, rings, within }: PackByHand,
  { source, from, checked }: Told,
): PackEntries {
  const id = packId(name);
  const plates = [
    { role: "steel", part: `${id}-steel`, count: steels },
    { role: "friction", part: `${id}-friction`, count: frictions },
  ].filter(({ count }) => count > 0);
  const own = rings.length > 0;
  return {
    elements: [{ id, kind, aka: [] }],
    series: own
      ? [
          {
            id: `${id}-ring`,
            name: `${name} ring`,
            kind: "snap ring",
            tolerance: within,
            sizes: rings.map((size) => ({ mark: size, size, part: `not known, ${name} ${size}` })),
          },
        ]
      : [],
    packs: [
      {
        element: id,
        name,
        duty: "shifting",
        // They lie by turns: of which there is one more, lies first and last.
        stack: [...plates].sort((a, b) => b.count - a.count),
        ...(own ? { grooves: [{ id: `${id}-groove`, ring: `${id}-ring` }] } : {}),
      },
    ],
    chains: [
      {
        id: `${id}-clearance`,
        name: `${name} clearance`,
        kind: "pack clearance",
        of: id,
        links: [
          ["+", "measured", "piston seated to groove"],
          ["-", "stack", id],
          ...(own ? [["-", "series", `${id}-ring`]] : []),
        ],
        spec: { soak, ...(min || max ? { min, max, source, from, checked } : {}) },
        read: { with: ["feeler", "hand and dial", "air and dial"] },
      },
    ],
    parts: plates.map(({ role, part }) => ({
      id: part,
      name: `${name} ${role}s`,
      number: `not known, ${name} ${role}`,
      kind: role,
    })),
  };
}

/**
 * A book that begins with what the bench knows: there are no ranges, steps or gears; packs stand along a plain axis in the order they were written.
 *
 * @returns a document of `yard-key/book@1`, to be checked like any other.
 */
export function bookByHand({ maker, name, family, lengthUnit, packs, ...told }: UnitByHand): object {
  const each = packs.map((pack) => packEntries(pack, told));
  const all = (key: keyof PackEntries): Entry[] => each.flatMap((one) => one[key]);
  return {
    format: BOOK_FORMAT,
    unit: { ...(maker ? { maker } : {}), name, family, lengthUnit, source: told.source },
    elements: all("elements"),
    series: all("series"),
    packs: all("packs"),
    chains: all("chains"),
    parts: all("parts"),
  };
}
