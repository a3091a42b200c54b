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

/**
 * A book that begins with what the bench knows. No figure is invented: plates have no thickness, elements join nothing, there are no ranges, steps or gears;
 * packs stand along a plain axis in the order they were written, and are read against their target as shifting ones are.
 *
 * @returns a document of `yard-key/book@1`, to be checked like any other.
 */
export function bookByHand({
  maker,
  name,
  family,
  lengthUnit,
  source,
  from,
  checked,
  packs,
}: UnitByHand): object {
  const named = packs.map((pack) => ({ ...pack, id: packId(pack.name) }));
  return {
    format: BOOK_FORMAT,
    unit: { ...(maker ? { maker } : {}), name, family, lengthUnit, source },
    elements: named.map(({ id, kind }) => ({ id, kind, aka: [] })),
    series: named.flatMap(({ id, name: words, rings, within }) =>
      rings.length === 0
        ? []
        : [
            {
              id: `${id}-ring`,
              name: `${words} ring`,
              kind: "snap ring",
              tolerance: within,
              sizes: rings.map((size) => ({ mark: size, size, part: `not known, ${words} ${size}` })),
            },
          ],
    ),
    packs: named.map(({ id, name: words, frictions, steels, rings }) => ({
      element: id,
      name: words,
      duty: "shifting",
      // They lie by turns: of which there is one more, lies first and last.
      stack: [
        { role: "steel", part: `${id}-steel`, count: steels },
        { role: "friction", part: `${id}-friction`, count: frictions },
      ]
        .filter(({ count }) => count > 0)
        .sort((a, b) => b.count - a.count),
      ...(rings.length === 0 ? {} : { grooves: [{ id: `${id}-groove`, ring: `${id}-ring` }] }),
      depth: ["full"],
    })),
    chains: named.map(({ id, name: words, min, max, soak, rings }) => ({
      id: `${id}-clearance`,
      name: `${words} clearance`,
      kind: "pack clearance",
      of: id,
      links: [
        ["+", "measured", "piston seated to groove"],
        ["-", "stack", id],
        ...(rings.length === 0 ? [] : [["-", "series", `${id}-ring`]]),
      ],
      spec: { soak, ...(min || max ? { min, max, source, from, checked } : {}) },
      read: { with: ["feeler", "hand and dial", "air and dial"] },
      depth: ["full"],
    })),
    parts: named.flatMap(({ id, name: words, steels }) =>
      (steels > 0 ? (["steel", "friction"] as const) : (["friction"] as const)).map((kind) => ({
        id: `${id}-${kind}`,
        name: `${words} ${kind}s`,
        number: `not known, ${words} ${kind}`,
        kind: kind === "steel" ? "steel" : "friction",
        depth: ["full"],
      })),
    ),
  };
}
