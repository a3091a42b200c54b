import { bookByHand, FAMILIES, ORIGINS, packId, type PackByHand } from "~core/book";
import { codeFor } from "~core/shape";
import { exactLength, nm, parseLength, type Nm } from "~core/quantity";

/** How bare figures of the form are meant. */
export const UNITS = { mm: "millimetres", in: "inches", thou: "thousandths of an inch" } as const;
export type UnitTyped = keyof typeof UNITS;

/** The columns of a row, in the order a hand types them. */
export const COLUMNS = ["name", "frictions", "steels", "min", "max", "rings"] as const;

type Typed = Readonly<Record<string, string>>;
type Read = { ok: true; document: object } | { ok: false; problems: Record<string, string> };

/** How many rows the form has at most. */
export const MOST = 24;

const whole = (text: string, from: number): number | null =>
  /^\d{1,2}$/.test(text.trim()) && Number(text) >= from && Number(text) <= 20 ? Number(text) : null;

/** What is wrong with the name of a unit; empty where nothing is. */
export function nameWrong(name: string): string {
  if (name.trim().length < 2) return "What is the unit called?";
  return codeFor(name) === ""
    ? "It is kept under its letters a to z and digits: give it some of them as well."
    : "";
}

/**
 * Reads a unit as it was typed: each row a pack, empty rows left out.
 *
 * @returns its book’s document, or what is wrong by field.
 */
export function readByHand(typed: Typed, today: string): Read {
  const problems: Record<string, string> = {};
  const said = (key: string): string => (typed[key] ?? "").trim();
  const from = ORIGINS.find((one) => one === said("from"));
  const family = FAMILIES.find((one) => one === said("family"));
  const shown = Object.hasOwn(UNITS, said("unit")) ? (said("unit") as UnitTyped) : null;
  const unnamed = nameWrong(said("name"));
  if (unnamed) problems.name = unnamed;
  if (!family) problems.family = "Choose its family.";
  if (!shown) problems.unit = "Choose what its figures are in.";
  const lengthUnit = shown === "mm" ? "mm" : "in";
  /** What may be left empty is null too, without a word. */
  const ifGiven = (text: string, key: string): Nm | null => (text === "" ? null : size(text, key));
  const size = (text: string, key: string): Nm | null => {
    const read = parseLength(text, shown ?? "mm");
    if (read.ok && read.length > 0) return read.length;
    problems[key] = read.ok ? "above nothing" : `${read.problem}; ${read.remedy}`;
    return null;
  };
  const rows = Array.from({ length: MOST }, (_, i) => i).filter((i) =>
    COLUMNS.some((column) => said(`${column}-${i}`) !== ""),
  );
  const within = said("within") === "" ? null : size(said("within"), "within");
  const names = new Set<string>();
  const packs = rows.flatMap((i): PackByHand[] => {
    const at = (column: (typeof COLUMNS)[number]): string => said(`${column}-${i}`);
    const name = at("name");
    if (name === "") problems[`name-${i}`] = "Name the pack.";
    else if (names.has(packId(name))) problems[`name-${i}`] = "There is one of this name already.";
    names.add(packId(name));
    const frictions = whole(at("frictions"), 1);
    const steels = at("steels") === "" ? 0 : whole(at("steels"), 0);
    if (frictions === null) problems[`frictions-${i}`] = "How many: 1 to 20.";
    if (steels === null) problems[`steels-${i}`] = "How many: 0 to 20.";
    if (frictions !== null && steels !== null && Math.abs(frictions - steels) > 1)
      problems[`steels-${i}`] =
        `With ${frictions} frictions ${frictions - 1} to ${frictions + 1} lie by turns.`;
    const min = ifGiven(at("min"), `min-${i}`);
    const max = ifGiven(at("max"), `max-${i}`);
    if (min !== null && max !== null && max <= min) problems[`max-${i}`] = "More than from.";
    const rings = at("rings")
      .split(/[;\s]+(?!mm|in\b)/)
      .filter((one) => one !== "")
      .map((one) => size(one, `rings-${i}`));
    if (frictions === null || steels === null || rings.includes(null)) return [];
    if (at("rings") !== "" && said("within") === "")
      problems.within = "How far may a ring be off its mark? The list of the rings has it, or a micrometer.";
    if (problems[`steels-${i}`]) return [];
    const text = (length: Nm): string => {
      const { figure, unit } = exactLength(length, lengthUnit);
      return `${figure} ${unit}`;
    };
    return [
      {
        name,
        kind: said(`kind-${i}`) === "brake" ? "brake" : "clutch",
        frictions,
        steels,
        ...(min === null ? {} : { min: text(min) }),
        ...(max === null ? {} : { max: text(max) }),
        soak: said(`soak-${i}`) === "dry" ? "dry" : "soaked",
        within: text(within ?? nm(0)),
        rings: [...new Set(rings.flatMap((one) => (one === null ? [] : [one])))]
          .sort((a, b) => a - b)
          .map(text),
      },
    ];
  });
  if (Object.keys(problems).length > 0 || !family) return { ok: false, problems };
  return {
    ok: true,
    document: bookByHand({
      maker: said("maker"),
      name: said("name"),
      family,
      lengthUnit,
      source: "written down at the bench",
      ...(from ? { from } : {}),
      checked: today,
      packs,
    }),
  };
}
