import type { Book, PartKind, StrongerWay } from "../book";

/** What a new part of a kind is held against the old one by, before it counts as usable. */
const BY_KIND: Readonly<Partial<Record<PartKind, readonly string[]>>> = {
  friction: [
    "count",
    "thickness of the whole stack, clamped",
    "spline count",
    "diameter",
    "single- or double-faced",
    "facing",
  ],
  steel: [
    "count",
    "thickness of the whole stack, clamped",
    "single plates by gauge",
    "spline count",
    "diameter",
  ],
  "waved plate": ["thickness", "height of the wave", "spline count"],
  "apply plate": ["thickness", "spline count", "which side is stepped"],
  "reaction plate": ["thickness", "spline count", "which side is stepped"],
  piston: ["height", "diameter", "bleed hole and its ball"],
  gasket: ["holes against the plate’s ports, from both sides", "thickness"],
  "sealing ring": ["shape of the section", "how its ends meet", "diameter", "width"],
  seal: ["diameters", "lip and its spring", "which way it seals"],
  "O-ring": ["diameter", "section"],
  bushing: ["length", "oil hole", "bore finish"],
  bearing: ["diameters", "width", "mark"],
  "thrust bearing": ["diameters", "thickness", "which side is the race"],
  washer: ["thickness", "tabs"],
  filter: ["height of the neck", "which seal it has"],
  converter: ["hub", "pads", "depth to the pads", "stall mark"],
  cassette: ["transport clamp in place", "hub splines", "depth"],
  "one-way clutch": ["width", "cage", "which way it turns free"],
  band: ["width", "lining", "anchor"],
  "separator plate": ["holes, one by one, against the old one", "version mark"],
  solenoids: ["identity marks", "plugs", "resistance"],
  fork: ["bore", "pads"],
};

/** What all parts are held against the old one by. */
const ALWAYS = ["number on the bag"];

/**
 * What is compared, new against old, when pieces of a number come in: by what the part is, and by what tells it from those that look the same.
 *
 * @returns nothing more than its number for what the book does not know as a part or a bolt.
 */
export function comparedBy(
  { parts, fasteners = [], stronger = [] }: Pick<Book, "parts" | "fasteners" | "stronger">,
  number: string,
): string[] {
  const ways = stronger.filter(
    (way) => way.number === number || platesOf(way).some((one) => one.number === number),
  );
  const of = parts.filter(
    (part) =>
      part.number === number ||
      part.instead?.some((one) => one.number === number) ||
      ways.some((way) => way.part === part.id),
  );
  const roles = ways.flatMap((way) =>
    platesOf(way).flatMap((one) => (one.number === number ? one.role : [])),
  );
  const bolts = fasteners.filter((group) => group.number === number);
  const names = new Map(parts.map(({ id, name }) => [id, name]));
  return [
    ...ALWAYS,
    ...new Set(
      bolts.flatMap(({ carries }) => [
        "count",
        "length under the head",
        "thread and its treatment",
        ...(carries ? [carries] : []),
      ]),
    ),
    ...new Set(roles.flatMap((role) => BY_KIND[role] ?? [])),
    ...new Set(of.flatMap(({ kind }) => (kind === undefined ? [] : (BY_KIND[kind] ?? ["shape and size"])))),
    ...new Set(
      of.flatMap(({ lookAlikes = [] }) =>
        lookAlikes.map(({ part, tell }) => `not ${names.get(part) ?? part}: ${tell}`),
      ),
    ),
    // What is made stronger differs from the stock part: that is looked at before it goes in.
    ...new Set(ways.flatMap(({ against = [] }) => against.map(({ what, is }) => `${what}: ${is}`))),
  ];
}

/** The plates a way brings, by what they are. */
const platesOf = ({
  steels,
  frictions,
  apply,
  reaction,
}: StrongerWay): { role: PartKind; number: string }[] =>
  (
    [
      ["steel", steels],
      ["friction", frictions],
      ["apply plate", apply],
      ["reaction plate", reaction],
    ] as const
  ).flatMap(([role, plate]) => (plate ? [{ role, number: plate.number }] : []));
