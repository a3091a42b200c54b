import { isRecord } from "~core/shape";

/** A member of the train, drawn as a line: everything fixed to it turns as one. */
export interface TrainLine {
  id: string;
  is: "input" | "output" | "held" | "between";
}

/** A gear set or an element, drawn across the lines it touches. */
export interface TrainColumn {
  id: string;
  words: string;
  is: "gears" | "clutch" | "one-way" | "pulleys";
  /** Which line each of its ends is on, counted from the top, and what is written there: `s 30`. */
  ends: readonly { line: number; words: string }[];
  /** Applied in the range that is looked at; or the entry that is typed. */
  isLit: boolean;
}

/** A train as it is drawn: its members from the input down to what is held, and what lies across them. */
export interface TrainLines {
  lines: TrainLine[];
  columns: TrainColumn[];
}

type Entry = Readonly<Record<string, unknown>>;
const textsOf = (value: unknown): string[] =>
  Array.isArray(value) ? (value as unknown[]).filter((one) => typeof one === "string") : [];
const entriesOf = (value: unknown): Entry[] =>
  Array.isArray(value) ? (value as unknown[]).filter(isRecord) : [];
const short = (id: string): string => (id.length <= 3 ? id.toUpperCase() : id.replaceAll("-", " "));

/**
 * The lines of a train out of a book’s document, which may be half typed: what does not lead to a member is left out, and nothing is added.
 *
 * @param at the entry that is looked at: a gear set or element lights up, of a range what it applies.
 */
export function trainLines(document: unknown, at: readonly (string | number)[] = []): TrainLines {
  const of = isRecord(document) ? document : {};
  const train = isRecord(of.train) ? of.train : { input: "input", output: "output", held: "case" };
  const gearSets = entriesOf(of.gearSets);
  const elements = entriesOf(of.elements).filter(({ outside }) => outside === undefined);
  const named = new Set([...textsOf(of.members), train.input, train.output, train.held]);
  const used = new Set([
    ...gearSets.flatMap((set) => touched(set).map(([member]) => member)),
    ...elements.flatMap(({ joins }) => textsOf(joins)),
  ]);
  const isOf = (id: unknown): TrainLine["is"] =>
    id === train.input ? "input" : id === train.output ? "output" : id === train.held ? "held" : "between";
  const RANK = { input: 0, between: 1, output: 2, held: 3 };
  const lines = [...named]
    .filter((id): id is string => typeof id === "string" && (used.has(id) || isOf(id) !== "between"))
    .map((id): TrainLine => ({ id, is: isOf(id) }))
    .sort((a, b) => RANK[a.is] - RANK[b.is]);
  const lineOf = new Map(lines.map(({ id }, i) => [id, i]));
  const [section, place] = at;
  const entry = typeof place === "number" ? entriesOf(of[String(section)])[place] : undefined;
  const lit = new Set(
    section === "ranges" ? [...textsOf(entry?.applied), ...textsOf(entry?.braking)] : [entry?.id],
  );
  const column = (
    one: Entry,
    is: TrainColumn["is"],
    ends: readonly (readonly [member: unknown, words: string])[],
  ): TrainColumn[] => {
    const id = typeof one.id === "string" ? one.id : "";
    const found = ends.flatMap(([member, words]) => {
      const line = lineOf.get(String(member));
      return line === undefined ? [] : [{ line, words }];
    });
    return found.length < 2 ? [] : [{ id, words: short(id), is, ends: found, isLit: lit.has(id) }];
  };
  return {
    lines,
    columns: [
      ...gearSets.flatMap((set) =>
        column(set, set.kind === "pulley pair" ? "pulleys" : "gears", touched(set)),
      ),
      ...elements.flatMap((one) =>
        column(
          one,
          one.kind === "one-way clutch" ? "one-way" : "clutch",
          textsOf(one.joins).map((member) => [member, ""]),
        ),
      ),
    ],
  };
}

/** The members a gear set touches, and with how many teeth. */
function touched({
  kind,
  sun,
  ring,
  carrier,
  driver,
  driven,
  primary,
  secondary,
}: Entry): (readonly [unknown, string])[] {
  const gear = (value: unknown, letter: string): (readonly [unknown, string])[] => {
    const [member, teeth] = Array.isArray(value) ? (value as unknown[]) : [];
    return member === undefined
      ? []
      : [[member, [letter, typeof teeth === "number" ? teeth : ""].filter((one) => one !== "").join(" ")]];
  };
  switch (kind) {
    case "gear pair":
      return [...gear(driver, ""), ...gear(driven, "")];
    case "pulley pair":
      return [
        [primary, ""],
        [secondary, ""],
      ];
    default:
      return [...gear(sun, "sun"), ...gear(ring, "ring"), [carrier, "carrier"]];
  }
}
