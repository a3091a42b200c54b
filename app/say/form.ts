import { statedIn, type Book } from "~core/book";
import {
  CANNOT,
  CONDITIONS,
  fieldsOf,
  readFact,
  type BodyOf,
  type Empty,
  type FactBody,
  type FactKind,
  type Phase,
  type ReadFact,
  type Says,
} from "~core/fact";
import { airResult } from "~core/build";
import { CLOCKING } from "~core/measure";
import {
  isFraction,
  lengthText,
  nm,
  plainSign,
  parseMeasure,
  parseMoney,
  type LengthUnit,
} from "~core/quantity";
import { GAUGES, parseReading, stepOf, type Bracket, type Reading } from "~core/reading";
import { BETWEEN, type Fields } from "~core/shape";

import { readNextTime } from "./next-time";

export type { Fields } from "~core/shape";

/** What a form asks for, in the words of whoever fills it in. */
interface FormOf<K extends FactKind> {
  says: Says<K>;
  empty?: Empty<K>;
  /** What was typed, in the words of the fact. */
  typed?: (given: Fields, fresh: string) => Fields;
  /** What only the book can say of it. */
  against?: (body: BodyOf<K>, book: Book) => Record<string, string | false>;
}

const SAYS_OF_BOOKING = {
  vehicle: "Write the vehicle: maker, model, plate or what you go by.",
  words: "Write what the customer says, in their words.",
  odometer: "Write the odometer as a number, with km or mi: 148 200 km.",
};
const { vehicle, customer, words, odometer } = fieldsOf("booking", SAYS_OF_BOOKING);
/** What a job is opened with. */
export const bookingFields = { vehicle, customer, words, odometer };

const NOTE = { note: "" };
/** A box for each part that is renewed on another unit bears its id after this. */
export const RENEW = "renew-";
const FORMS: { readonly [K in FactKind]?: FormOf<K> } = {
  booking: {
    says: SAYS_OF_BOOKING,
    empty: { use: "", earlier: "", driven: "not-told", opened: "not-told" },
  },
  answer: {
    says: { outcome: "Choose an answer.", question: "Choose an answer." },
    typed: ({ conditions = "", ...rest }) => ({
      ...rest,
      conditions: CONDITIONS.codes.filter((one) => conditions.split(",").includes(one)).join(BETWEEN),
    }),
  },
  code: {
    says: {
      code: "Write the code as the tool shows it.",
      sort: "Choose what sort of code it is.",
      related: "Say whether it belongs to this complaint.",
    },
    typed: ({ code = "", ...rest }) => ({ ...rest, code: code.toUpperCase() }),
  },
  speeds: {
    says: {
      range: "Choose the range it was driven in.",
      input: "Write the input speed in whole turns a minute, more than none: 1800.",
      output: "Write the output speed in whole turns a minute: 1260.",
    },
    against: ({ range }, { ranges }) => ({
      range: !ranges.some(({ id }) => id === range) && "Choose the range it was driven in.",
    }),
  },
  fluid: { says: { look: "Choose how it looks.", smell: "Choose how it smells." }, empty: NOTE },
  noted: { says: { text: "Write it down, or leave the step as it is." } },
  "part-question": {
    says: {
      asks: "Write the question, in a line.",
      options: "Name at least two ways it could go, with commas between, or none.",
      until: "Write the day as 2026-05-04, or leave it empty.",
      answer: "Write what it came to.",
    },
    empty: { answer: "", options: [] },
    typed: ({ options = "", waits = "", ...rest }) => ({
      ...rest,
      waits: waits === "yes" ? "true" : "false",
      options: options
        .split(/[,\n]/)
        .map((one) => one.trim())
        .filter(Boolean)
        .join(BETWEEN),
    }),
  },
  debris: {
    says: { where: "Choose where it was found.", what: "Choose what it is.", amount: "Choose how much." },
  },
  conclusion: {
    says: {
      fault: "Choose where the fault lies.",
      reason: "Say why, for the record.",
      fee: "Write the fee short: 85.00.",
    },
  },
  "read-out": {
    says: {
      text: "Paste or type what was read out, at most 20 000 characters.",
      readOut: "Choose what it is.",
    },
    empty: { from: "typed" },
    against: ({ readOut }, { readOuts = [] }) => ({
      readOut: !readOuts.some(({ id }) => id === readOut) && "Choose what it is.",
    }),
  },
  step: {
    says: {
      step: "Choose the step.",
      did: "Choose the step.",
      reason: "Say why it is skipped: already off, not needed.",
    },
    typed: ({ to = "", ...rest }) => (rest.did === "done" ? { ...rest, to } : rest),
    against: ({ step }, { teardown = [], build = [] }) => ({
      step: ![...teardown, ...build].some(({ id }) => id === step) && "Choose the step.",
    }),
  },
  check: {
    says: { said: "Choose an answer.", note: "Say how it was made sure of instead." },
    empty: NOTE,
  },
  proof: {
    says: { said: "Choose an answer.", note: "Say how it was made sure of instead." },
    empty: NOTE,
  },
  filled: {
    says: { amount: "Write how much, with its unit: 0.4 l.", way: "Choose in or out.", when: "Say when." },
    against: ({ amount }) => {
      const read = parseMeasure(amount, "volume");
      if (!read.ok) return { amount: "Write how much, with its unit: 0.4 l." };
      return {
        amount: read.measure.figure.startsWith("-") && "Without a sign: choose Out for what ran out.",
      };
    },
  },
  relearned: {
    says: { outcome: "Say how it ended." },
    empty: { before: "", after: "", note: "" },
  },
  driven: { says: { said: "Choose how it is.", of: "Choose what it is about." }, empty: NOTE },
  drive: {
    says: {
      driver: "Say who drove.",
      distance: "Write how far, with km or mi: 20 km.",
      is: "Say whether it drives right.",
    },
    empty: NOTE,
  },
  timer: { says: { did: "Say that it is begun." } },
  air: {
    says: {
      result: "Choose what it did.",
      lost: "Write what it lost, with or without its unit: 0.3 bar.",
    },
    empty: NOTE,
  },
  deviation: {
    says: { instead: "Choose what is otherwise.", reason: "Say what was done, and why." },
    empty: { there: true },
  },
  disposition: {
    says: {
      is: "Choose what becomes of it.",
      reason: "Say why: it goes against what is proposed.",
    },
  },
  "part-source": {
    says: {
      from: "Choose where it comes from.",
      of: "Say out of which unit it is.",
      distance: "Write it as 92 000 km, or leave it empty.",
    },
    empty: { of: "", here: false },
  },
  offer: {
    says: {
      distance: "Write it as 92 000 km, or leave it empty.",
      cents: "Write the price as 1250 or 1250.00.",
      hours: "Write the hours as 12 or 7.5.",
      risk: "Write the chance of a comeback in percent: 6.",
      way: "Choose the way.",
    },
    // What is renewed is ticked, a box for each part.
    typed: ({ cents = "", ...rest }) => ({
      ...rest,
      cents: String(parseMoney(cents) ?? ""),
      renew: Object.keys(rest)
        .flatMap((name) => (name.startsWith(RENEW) ? [name.slice(RENEW.length)] : []))
        .join(BETWEEN),
    }),
  },
  "way-on": { says: { way: "Choose the way.", reason: "Say why, for the customer." } },
  "weak-point": { says: { answer: "Choose what was done about it." } },
  cause: {
    says: { standing: "Say how sure it is.", cause: "Choose the cause." },
    typed: (given) => (given.standing === "not-found" ? { ...given, cause: "" } : given),
  },
  explained: { says: { reason: "Say why it is so, for the record." } },
  wrong: { says: { what: "Choose what is wrong.", of: "Choose the part it is about." } },
  count: { says: { found: "Write how many there are, as a number." } },
  place: {
    says: {
      sort: "Choose what it is.",
      name: "Give it a name in a word or two: small parts, D1 drum.",
    },
    typed: ({ place = "", ...rest }, fresh) => ({ ...rest, place: place || fresh.slice(-8) }),
  },
};

/**
 * A fact from the fields of a form, the same at the bench and on the server: pages work before their script has loaded.
 *
 * @param fields as typed; `kind` says which fact.
 * @param fresh an id nothing has yet, for what needs one of its own.
 * @returns the fact's body, or a message at each field that is wrong.
 */
export function readIntake(fields: Fields, book: Book, fresh: string): ReadFact {
  const { kind = "", ...given } = fields;
  if (kind === "figure") return readFigure(trimmed(given), book);
  if (kind === "air" && given.how === "read") return readAir(trimmed(given), book);
  if (kind === "next-time") return readNextTime(trimmed(given), book, fresh);
  if (kind === "reading") return readReading(trimmed(given), book);
  return Object.hasOwn(FORMS, kind)
    ? readDeclared(kind as FactKind, trimmed(given), book, fresh)
    : wrong({ kind: "Nothing was said." });
}

function readDeclared<K extends FactKind>(kind: K, given: Fields, book: Book, fresh: string): ReadFact {
  const form = FORMS[kind] as FormOf<K>;
  const read = readFact(kind, form.typed?.(given, fresh) ?? given, form.says, form.empty);
  if (!read.ok) return read;
  const astray = Object.entries(form.against?.(read.body as BodyOf<K>, book) ?? {});
  const problems = astray.filter((entry): entry is [string, string] => entry[1] !== false);
  return problems.length > 0 ? wrong(Object.fromEntries(problems)) : read;
}

const trimmed = (given: Fields): Fields =>
  Object.fromEntries(Object.entries(given).map(([name, value]) => [name, value.trim()]));
const wrong = (problems: Record<string, string>): ReadFact => ({ ok: false, problems });
const good = (body: FactBody): ReadFact => ({ ok: true, body });
const one = <T extends string>(list: readonly T[], given: string | undefined): T | undefined =>
  list.find((word) => word === given);
/** As it came apart, unless it is said to be as built. */
const phaseOf = (given: string | undefined): Phase => (given === "built" ? "built" : "found");

/** Feeler blades as one types them, `0.40/0.45`: the thickest that passes and the thinnest that does not; either may be left out. */
function bladesOf(
  text: string,
  unit: LengthUnit,
): { ok: true; reading: Bracket; text: string } | { ok: false; problem: string } | null {
  const parts = /^([^/]*)\/([^/]*)$/.exec(text.trim());
  if (!parts || isFraction(text)) return null;
  const [passes, refuses] = parts.slice(1).map((one) => (one.trim() ? parseReading(one, unit) : null));
  for (const one of [passes, refuses])
    if (one && !one.ok) return { ok: false, problem: `${one.problem}; ${one.remedy}` };
  const [low, high] = [passes, refuses].map((one) => (one?.ok ? one.length : undefined));
  if (low === undefined && high === undefined)
    return { ok: false, problem: "Write the blade that passes and the one that does not: 0.40/0.45." };
  if (low !== undefined && high !== undefined && high <= low)
    return { ok: false, problem: "The blade that does not pass is the thicker one." };
  const shown = [low, high].map((one) =>
    one === undefined ? "" : lengthText(one, unit).replace(/[^\d.]+$/, ""),
  );
  return {
    ok: true,
    reading: { kind: "bracket", passes: low, refuses: high } as Bracket,
    text: `${shown.join("/")} ${unit}`,
  };
}

function readFigure(
  { of, id = "", item, text = "", cannot = "", note = "", phase }: Fields,
  book: Book,
): ReadFact {
  const which = one(["chain", "measurement"], of);
  const why = one(CANNOT.codes, cannot);
  if (!which) return wrong({ text: "Choose the figure." });
  const base = {
    ...({ kind: "figure", of: which, id, phase: phaseOf(phase), note } as const),
    ...(item ? { item } : {}),
  };
  if (text === "")
    return why
      ? good({ ...base, cannot: why })
      : wrong({ text: "Write the figure, or say why there is none." });
  const measurement = book.measurements?.find((each) => each.id === id);
  const quantity = measurement ? statedIn(measurement.kind) : item === CLOCKING ? null : "length";
  // What the book states in its own unit may be typed without one.
  const usual = /[^\d.,\s+\-−].*$/.exec(measurement?.max ?? measurement?.min ?? "")?.[0];
  if (quantity === null) return good({ ...base, text });
  const blades = quantity === "length" ? bladesOf(text, book.unit.lengthUnit) : null;
  if (blades && !blades.ok) return wrong({ text: blades.problem });
  if (blades) return good({ ...base, text: blades.text });
  const parsed =
    quantity === "length" ? parseReading(text, book.unit.lengthUnit) : parseMeasure(text, quantity, usual);
  if (!parsed.ok) return wrong({ text: `${parsed.problem}; ${parsed.remedy}` });
  const withUnit =
    "measure" in parsed
      ? `${parsed.measure.figure} ${parsed.measure.unit}`
      : `${plainSign(text).replace(/[^\d]*$/, "")} ${parsed.unit}`;
  return good({ ...base, text: withUnit });
}

/** Pressure lost over seconds: whether that holds is the book’s to say. */
function readAir(
  { element = "", pressure, lost = "", over = "" }: Fields,
  { airChecks = [] }: Book,
): ReadFact {
  const check = airChecks.find((one) => one.element === element);
  const parsed = parseMeasure(lost, "pressure", check?.lost?.pressure.unit);
  if (!check) return wrong({ lost: "The book tries this element with no air." });
  if (!parsed.ok)
    return wrong({
      lost: lost === "" ? "Write what it lost: 0.3 bar." : `${parsed.problem}; ${parsed.remedy}`,
    });
  const { measure } = parsed;
  if (measure.figure.startsWith("-"))
    return wrong({ lost: "It cannot have gained any; write what it lost." });
  const text = `${measure.figure} ${measure.unit}`;
  const result = airResult(check, { result: "holds", lost: text, over });
  const tried = pressure ? { pressure } : {};
  return good({ kind: "air", element, result, ...tried, lost: text, over, how: "read", note: "" });
}

function readReading(
  { chain = "", item, method, value = "", unit = "mm", phase }: Fields,
  { chains }: Book,
): ReadFact {
  const lengthUnit: LengthUnit = unit === "in" ? "in" : "mm";
  const known = chains.find(({ id }) => id === chain);
  const blades = bladesOf(value, lengthUnit);
  if (blades && !blades.ok) return wrong({ value: blades.problem });
  const parsed = blades ? null : parseReading(value, lengthUnit);
  if (parsed && !parsed.ok)
    return wrong({ value: value === "" ? "Type the reading." : `${parsed.problem}; ${parsed.remedy}` });
  const reading: Reading = blades?.reading ?? { kind: "single", value: parsed?.length ?? nm(0) };
  const gauge = blades ? "feeler" : (one(GAUGES, method) ?? one(GAUGES, known?.read.with[0]));
  const size = blades ? (blades.reading.passes ?? blades.reading.refuses) : parsed?.length;
  if (Math.abs(size ?? 0) > 1_000_000_000)
    return wrong({ value: "Nothing here is a metre long; check the unit." });
  if (!known || !gauge) return wrong({ method: "Choose how it was read." });
  return good({
    kind: "reading",
    chain,
    phase: phaseOf(phase),
    fit: 0,
    method: gauge,
    state: { soak: "dry", facings: "run-in" },
    reading,
    ...(item ? { item } : {}),
    resolution: stepOf(gauge, lengthUnit),
    unit: lengthUnit,
    typed: value,
  });
}
