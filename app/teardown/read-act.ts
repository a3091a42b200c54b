import type { FactBody, FactOf } from "~core/fact";
import { parseLength, type LengthUnit, type Nm } from "~core/quantity";
import { PART_KINDS } from "~core/book";

type Act = FactOf<"came-off">["body"];
type Typed = Readonly<Record<string, string>>;
export type ReadAct = { ok: true; body: FactBody } | { ok: false; problems: Record<string, string> };

/**
 * Reads what came off as it was typed: what is empty is not said.
 *
 * @param given what is not typed: the act, the step it came after, where it goes, the picture and the places tapped on it.
 * @param unit of bare lengths.
 */
export function readAct(
  typed: Typed,
  given: Pick<Act, "act" | "to" | "at"> & { after?: string | undefined; photo?: string | undefined },
  unit: LengthUnit,
): ReadAct {
  const problems: Record<string, string> = {};
  const said = (key: string): string => (typed[key] ?? "").trim();
  const count = (key: string, most: number, least = 0): number => {
    const text = said(key);
    if (text === "") return 0;
    if (/^\d{1,2}$/.test(text) && Number(text) >= least && Number(text) <= most) return Number(text);
    problems[key] = `How many: ${least} to ${most}.`;
    return 0;
  };
  const length = (key: string): Nm | undefined => {
    if (said(key) === "") return undefined;
    const read = parseLength(said(key), unit);
    if (read.ok && read.length > 0) return read.length;
    problems[key] = read.ok ? "above nothing" : `${read.problem}; ${read.remedy}`;
    return undefined;
  };
  const what = said("what");
  if (what.length < 2) problems.what = "What came off? A few words are enough.";
  if (what.length > 80) problems.what = "A few words: at most 80 letters.";
  const [bolts, balls] = [count("bolts", 80), count("balls", 60)];
  const [frictions, steels] = [count("frictions", 20), count("steels", 20)];
  const pack = said("pack");
  if (pack === "" && frictions + steels > 0) problems.pack = "Which pack are they of?";
  if (pack !== "" && frictions === 0) problems.frictions = "How many frictions: 1 to 20.";
  if (frictions > 0 && Math.abs(frictions - steels) > 1)
    problems.steels = `With ${frictions} frictions ${frictions - 1} to ${frictions + 1} lie by turns.`;
  const lengths = {
    bolt: length("length"),
    ball: length("ball"),
    friction: length("friction"),
    steel: length("steel"),
    clearance: length("clearance"),
  };
  if (lengths.bolt !== undefined && bolts === 0) problems.bolts = "How many are so long?";
  if (lengths.ball !== undefined && balls === 0) problems.balls = "How many are so large?";
  const part = PART_KINDS.find((one) => one === said("part"));
  const many = said("count") === "" ? 1 : count("count", 60, 1);
  if (Object.keys(problems).length > 0) return { ok: false, problems };
  const { act, to, after, photo, at } = given;
  return {
    ok: true,
    body: {
      kind: "came-off",
      act,
      there: true,
      ...(after ? { after } : {}),
      what,
      ...(part ? { part } : {}),
      count: many,
      way: said("way"),
      to,
      ...(bolts > 0
        ? { bolts: { count: bolts, size: said("size"), ...only({ length: lengths.bolt }) } }
        : {}),
      ...(pack === ""
        ? {}
        : {
            plates: {
              pack,
              frictions,
              steels,
              ...only({ friction: lengths.friction, steel: lengths.steel, clearance: lengths.clearance }),
            },
          }),
      ...(balls > 0 ? { balls: { count: balls, ...only({ size: lengths.ball }) } } : {}),
      ...(photo ? { photo } : {}),
      at,
    },
  };
}

/** What is known of some lengths. */
const only = <K extends string>(lengths: Record<K, Nm | undefined>): Partial<Record<K, Nm>> =>
  Object.fromEntries(Object.entries(lengths).filter(([, length]) => length !== undefined)) as Partial<
    Record<K, Nm>
  >;
