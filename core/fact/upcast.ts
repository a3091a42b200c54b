import { codeFor, ID, type Shape } from "../shape";
import type { Fact, FactBody } from "./fact";
import { KINDS } from "./kinds";
import { outcomeCode } from "./kinds/told";

type Old = Record<string, unknown>;

/*
 * What was stored before, read as today's. A fact is never changed where it is kept; here it is turned, at the one place where facts come in.
 * Nothing of this file is needed for what is said today.
 */

/** Kinds whose fields have changed, and not only the words of their values. */
const TURNED: Readonly<Record<string, (body: Old) => Old>> = {
  // One depth has become several.
  scope: ({ depth, ...rest }) => ({ ...rest, depths: [depth] }),
  // A length stood in the key as it was shown.
  count: ({ of, ...rest }) => ({ ...rest, of: boltKey(String(of)) }),
  // The words of the answer stood for it.
  "weak-point": ({ answer, ...rest }) => ({ ...rest, answer: codeFor(String(answer)) }),
  finding: ({ wear, ...rest }) => ({ ...rest, wear: codeFor(String(wear)) }),
  booking: told,
  answer: ({ outcome, ...rest }) => ({ ...rest, outcome: outcomeCode(String(outcome)) }),
  // A chain had one seat, which was called after it.
  fitting: ({ chain, ...rest }) => ({ ...rest, seat: chain }),
  choice: ({ chain, prediction, ...rest }) => ({
    ...rest,
    seat: chain,
    predictions: [{ chain, ...(prediction as Old) }],
  }),
};
const toldIn = (value: unknown): string => (typeof value === "string" ? value.trim() : "");

/** What was told of the use and of others' work stood in words alone, and was guessed from them. */
function told({ use, earlier, ...rest }: Old): Old {
  const [used, others] = [toldIn(use), toldIn(earlier)];
  const hard = /tow|trailer|taxi|plough|race|launch|hill|overload/i.test(used);
  const none = /^(no|none|never)/i.test(others);
  return {
    ...rest,
    ...(use === undefined ? {} : { use }),
    ...(earlier === undefined ? {} : { earlier }),
    driven: used === "" ? "not-told" : hard ? "hard" : "ordinary",
    opened: others === "" ? "not-told" : none ? "no" : "yes",
  };
}

/** Whether a body is one of before; those of today are left as they are. */
const WAS: Readonly<Record<string, (body: Old) => boolean>> = {
  scope: ({ depth }) => depth !== undefined,
  count: ({ of }) => / (mm|in)$/.test(String(of)),
  "weak-point": ({ answer }) => inWords(answer),
  finding: ({ wear }) => inWords(wear),
  booking: ({ use, earlier, driven, opened }) =>
    `${toldIn(use)}${toldIn(earlier)}` !== "" && driven === undefined && opened === undefined,
  answer: ({ outcome }) => / /.test(String(outcome)),
  fitting: ({ chain }) => chain !== undefined,
  choice: ({ chain }) => chain !== undefined,
};

/** Words, where a code belongs. */
const inWords = (value: unknown): boolean => typeof value === "string" && value !== "" && !ID.test(value);

/** `bolts:body-bolts:35.00 mm` → `bolts:body-bolts:35000000`: the length in nanometres. */
function boltKey(of: string): string {
  const [, group, figure, unit] = /^bolts:(.+):([\d.]+) (mm|in)$/.exec(of) ?? [];
  if (!group || !figure) return of;
  return `bolts:${group}:${Math.round(Number(figure) * (unit === "in" ? 25_400_000 : 1_000_000))}`;
}

const turned = new WeakMap<Fact, Fact>();

/** A fact as it is said today, whenever it was stored. The same fact gives the same object. */
export function upcast(fact: Fact): Fact {
  const known = turned.get(fact);
  if (known) return known;
  const body = upcastBody(fact.body);
  const today = body === fact.body ? fact : { ...fact, body };
  turned.set(fact, today);
  return today;
}

export function upcastBody(body: FactBody): FactBody {
  const old = body as unknown as Old;
  if (!Object.hasOwn(KINDS, body.kind)) return body;
  const fields = WAS[body.kind]?.(old) ? (TURNED[body.kind]?.(old) ?? old) : old;
  const worded = withCodes(KINDS[body.kind].shape, fields);
  return worded as FactBody;
}

/** Values that were words are their codes; where nothing was, the very same object. */
function withCodes(shape: Shape<unknown>, value: unknown): unknown {
  const { is } = shape;
  switch (is.kind) {
    case "one of": {
      if (typeof value !== "string" || is.words.includes(value)) return value;
      const code = codeFor(value);
      return is.words.includes(code) ? code : value;
    }
    case "list": {
      if (!Array.isArray(value)) return value;
      const list = (value as unknown[]).map((one) => withCodes(is.item, one));
      return list.every((one, i) => one === value[i]) ? value : list;
    }
    case "object": {
      if (typeof value !== "object" || value === null) return value;
      let changed: Old | null = null;
      for (const [key, inner] of Object.entries(value)) {
        const of = Object.hasOwn(is.keys, key) ? is.keys[key] : undefined;
        if (!of) continue;
        const now = withCodes("optional" in of ? of.optional : of, inner);
        if (now !== inner) (changed ??= { ...value })[key] = now;
      }
      return changed ?? value;
    }
    default:
      return "inner" in is ? withCodes(is.inner, value) : value;
  }
}
