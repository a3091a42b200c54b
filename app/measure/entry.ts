import { parseReading, middleOf } from "~core/reading";
import { statedIn, type Applied, type Chain } from "~core/book";
import { evaluate, type Link } from "~core/chain";
import { CLOCKING, type Item, type SpecLine } from "~core/measure";
import { type Phase, type ReadingBody } from "~core/fact";
import {
  difference,
  lengthOf,
  measureText,
  nm,
  parseLength,
  parseMeasure,
  torqueOf,
  type LengthUnit,
  type Nm,
} from "~core/quantity";
import { answersOf, one, readItem, type ReadRow } from "./read-row";

/** Half a step of a bore gauge and of a micrometer: two micrometres, taken as standard uncertainty. */
const GAUGE = nm(2_000);

/** How one figure is put in by hand: fields one after the other, or an answer to choose; and what they make. */
export interface Entry {
  fields: readonly string[];
  answers: readonly string[];
  /** What is worked out while one types; empty when nothing is yet. */
  worked: (typed: readonly string[]) => string;
  read: (typed: readonly string[]) => ReadRow;
}

/** What a field waits for, so that a gauge can feed it: `data-` attributes, none where it is no length. */
export type FieldWaits = Partial<Record<"data-nominal" | "data-gauge" | "data-what", string | number>>;

/**
 * What the field of a figure waits for. The nominal is the middle of what the book allows, or what its drawing has for one link; only a
 * simulated gauge looks at it.
 *
 * @param field which of an entry’s fields; the figure itself when absent.
 */
export function fieldWaits(
  row: Pick<SpecLine, "id">,
  item: Item | undefined,
  field: number | undefined,
  applied: Applied,
): FieldWaits {
  const is = (nominal: number, gauge: string): FieldWaits => ({
    "data-nominal": Math.round(nominal),
    "data-gauge": gauge,
    "data-what": [row.id, item?.name, field].filter((one) => one !== undefined && one !== "").join(" "),
  });
  if (item?.name === CLOCKING) return {};
  const found = applied.chains.find((each) => each.chain.id === row.id);
  if (found) {
    const { chain, spec } = found;
    const links = measuredLinks(chain);
    const [, , , size] = (field === undefined ? undefined : links[field]) ?? [];
    const gauge = chain.read.with[Math.min(field ?? 0, chain.read.with.length - 1)] ?? "dial";
    if (links.length > 1 && size !== undefined && item)
      return is(size, gauge === "feeler" ? "caliper" : gauge);
    return is(middleOf(spec) ?? ON_THE_BENCH, chain.read.with[0] ?? "dial");
  }
  const measurement = applied.scoped.measurements?.find(({ id }) => id === row.id);
  if (!measurement || statedIn(measurement.kind) !== "length") return {};
  const [low, high] = [item?.min ?? length(measurement.min), length(measurement.max)];
  const middle = low === undefined ? (high ?? 0) / 2 : high === undefined ? low + 40_000 : (low + high) / 2;
  return is(middle, measurement.kind === "flatness" ? "feeler" : "micrometer");
}

/** What the simulated gauge shows about where nobody knows what should be read: a millimetre. */
const ON_THE_BENCH = nm(1_000_000);

const length = (text: string | undefined): Nm | undefined =>
  text === undefined ? undefined : lengthOf(text);
const measuredLinks = (chain: Chain): Chain["links"] => chain.links.filter(([, kind]) => kind === "measured");

/** Whether a row has a worksheet of its own kind, besides its line on the sheet. */
export const hasSheet = (row: SpecLine): boolean =>
  row.items.length > 0 || ["bushing clearance", "leak-down", "turning torque"].includes(row.kind);

/**
 * The way a figure of this kind is entered: two links measured one by one, blades, two pressures, a pull and its radius, an answer, or just the
 * figure.
 *
 * @param item which of the row’s things.
 */
export function entryOf(
  row: SpecLine,
  item: string | undefined,
  phase: Phase,
  unit: LengthUnit,
  applied: Applied,
): Entry {
  const plain = (text: string): ReadRow => one(readItem(row, item, text, phase, unit, applied.present));
  const answers = answersOf(item === CLOCKING ? CLOCKING : row.kind);
  const nothing = (): string => "";
  if (answers.length > 0)
    return { fields: [], answers, worked: nothing, read: ([answer = ""]) => plain(answer) };
  const chain = applied.chains.find((each) => each.chain.id === row.id)?.chain;
  if (chain) return chainEntry(chain, item, phase, unit, plain);
  const measurement = applied.scoped.measurements?.find(({ id }) => id === row.id);
  const quantity = measurement ? statedIn(measurement.kind) : null;
  const usual = measurement && unitOf(measurement.max ?? measurement.min ?? "");
  if (row.kind === "leak-down" && quantity && quantity !== "length") {
    const lost = ([start = "", end = ""]: readonly string[]): string => {
      const [from, to] = [start, end].map((text) => parseMeasure(text, quantity, usual));
      return from?.ok && to?.ok ? measureText(difference(from.measure, to.measure)) : "";
    };
    return {
      fields: ["at the start", "at the end"],
      answers: [],
      worked: lost,
      read: (typed) =>
        lost(typed) ? plain(lost(typed)) : wrong("Type the pressure at the start and at the end."),
    };
  }
  if (row.kind === "turning torque" && usual) {
    const torque = ([pull = "", radius = ""]: readonly string[]): string => {
      const [force, at] = [
        parseMeasure(pull, "force", unit === "in" ? "lbf" : "N"),
        parseLength(radius, unit),
      ];
      return force.ok && at.ok ? measureText(torqueOf(force.measure, at.length, usual)) : "";
    };
    return {
      fields: ["torque, or pull", "at a radius of"],
      answers: [],
      worked: torque,
      read: (typed) => (typed[1] ? plain(torque(typed) || typed.join(" at ")) : plain(typed[0] ?? "")),
    };
  }
  if (row.kind === "flatness") return blades(plain);
  return { fields: [""], answers: [], worked: nothing, read: ([text = ""]) => plain(text) };
}

function chainEntry(
  chain: Chain,
  item: string | undefined,
  phase: Phase,
  unit: LengthUnit,
  plain: (text: string) => ReadRow,
): Entry {
  const links = measuredLinks(chain);
  if (links.length > 1 && links.length === chain.links.length && item !== undefined) {
    const measured = (typed: readonly string[]): Link[] | string => {
      const found: Link[] = [];
      for (const [i, [sign, , name]] of links.entries()) {
        const parsed = parseReading(typed[i] ?? "", unit);
        if (!parsed.ok) return `${name}: ${parsed.problem}; ${parsed.remedy}`;
        found.push({ name, sign: sign === "+" ? 1 : -1, value: parsed.length, uncertainty: GAUGE });
      }
      return found;
    };
    return {
      fields: links.map(([, , name]) => name),
      answers: [],
      worked: () => "",
      read: (typed) => {
        const found = measured(typed);
        if (typeof found === "string") return wrong(found);
        return { ok: true, bodies: [{ ...byLinks(chain, phase, unit, found), item }] };
      },
    };
  }
  if (chain.read.with.includes("feeler")) return blades(plain);
  return { fields: [""], answers: [], worked: () => "", read: ([text = ""]) => plain(text) };
}

/** The blade that passes and the one that does not; a figure alone in the first is one read off. */
const blades = (plain: (text: string) => ReadRow): Entry => ({
  fields: ["passes", "does not pass"],
  answers: [],
  worked: () => "",
  read: ([passes = "", refuses = ""]) => plain(refuses || passes === "" ? `${passes}/${refuses}` : passes),
});

/** A chain by the numbers, each link measured. */
export function byLinks(
  chain: Chain,
  phase: Phase,
  unit: LengthUnit,
  links: readonly { name: string; sign: 1 | -1; value: Nm }[],
): ReadingBody {
  const measured = links.map((link) => ({ ...link, uncertainty: GAUGE }));
  return {
    kind: "reading",
    chain: chain.id,
    phase,
    fit: 0,
    method: chain.read.with[0] ?? "by the numbers",
    state: { soak: "dry", facings: "run-in" },
    reading: evaluate(measured),
    resolution: nm(1_000),
    unit,
    links: measured,
  };
}

const wrong = (problem: string): ReadRow => ({ ok: false, problem });
/** What stands after the figure. */
const unitOf = (text: string): string | undefined => /[^\d.,\s+\-−].*$/.exec(text)?.[0];
