import { statedIn, type Book } from "~core/book";
import {
  CODE_SORTS,
  CONDITIONS,
  DRIVEN,
  FAULTS,
  OPENED_BEFORE,
  DEBRIS_KINDS,
  type Condition,
  CANNOT,
  CAUSE_STANDINGS,
  DEBRIS_AMOUNTS,
  DEBRIS_PLACES,
  DISPOSITIONS,
  FLUID_LOOKS,
  FLUID_SMELLS,
  FOUND_WRONG,
  PLACE_SORTS,
  STEP_DONE,
  WAYS_ON,
  type Phase,
  type CodeOf,
  type FactBody,
} from "~core/fact";
import { CLOCKING } from "~core/measure";
import {
  isFraction,
  lengthText,
  nm,
  plainSign,
  parseLength,
  parseMeasure,
  parseMoney,
  type LengthUnit,
} from "~core/quantity";
import { GAUGES, stepOf, type Bracket, type Gauge, type Reading } from "~core/reading";

export type Fields = Readonly<Record<string, string>>;
export type ReadIntake = { ok: true; body: FactBody } | { ok: false; problems: Record<string, string> };

const one = <T extends string>(list: readonly T[], given: string | undefined): T | undefined =>
  list.find((word) => word === given);

/** As it came apart, unless it is said to be as built. */
const phaseOf = (given: string | undefined): Phase => (given === "built" ? "built" : "found");

const ODOMETER = /^(\d[\d .,]{0,9}\s*(km|mi)?)?$/;

/**
 * A fact from the fields of a form, the same at the bench and on the server: pages work before their script has loaded.
 *
 * @param fields as typed; `kind` says which fact.
 * @param fresh an id nothing has yet, for what needs one of its own.
 * @returns the fact's body, or a message at each field that is wrong.
 */
export function readIntake(fields: Fields, book: Book, fresh: string): ReadIntake {
  const { kind = "", ...given } = fields;
  const reader = Object.hasOwn(READERS, kind) ? READERS[kind] : undefined;
  if (!reader) return wrong({ kind: "Nothing was said." });
  const trimmed = Object.fromEntries(Object.entries(given).map(([name, value]) => [name, value.trim()]));
  return reader(trimmed, book, fresh);
}

const wrong = (problems: Record<string, string>): ReadIntake => ({ ok: false, problems });
const good = (body: FactBody): ReadIntake => ({ ok: true, body });

/** The body when no field has a problem. */
function when(problems: Record<string, string | false | undefined>, body: () => FactBody): ReadIntake {
  const real = Object.entries(problems).filter((entry): entry is [string, string] => Boolean(entry[1]));
  return real.length > 0 ? wrong(Object.fromEntries(real)) : good(body());
}

const wholeNumber = (text: string | undefined): number | null =>
  text !== undefined && /^\d{1,5}$/.test(text) ? Number(text) : null;

const decimal = (text: string): number | null => {
  const plain = text.replace(",", ".");
  return /^\d{1,6}(\.\d{1,2})?$/.test(plain) ? Number(plain) : null;
};
/** Feeler blades as one types them, `0.40/0.45`: the thickest that passes and the thinnest that does not; either may be left out. */
function bladesOf(
  text: string,
  unit: LengthUnit,
): { ok: true; reading: Bracket; text: string } | { ok: false; problem: string } | null {
  const parts = /^([^/]*)\/([^/]*)$/.exec(text.trim());
  if (!parts || isFraction(text)) return null;
  const [passes, refuses] = parts.slice(1).map((one) => (one.trim() ? parseLength(one, unit) : null));
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

const READERS: Readonly<Record<string, (given: Fields, book: Book, fresh: string) => ReadIntake>> = {
  booking: ({
    vehicle = "",
    customer = "",
    words = "",
    odometer = "",
    use = "",
    earlier = "",
    driven,
    opened,
  }) =>
    when(
      {
        vehicle: vehicle.length < 2 && "Write the vehicle: maker, model, plate or what you go by.",
        words: words.length < 3 && "Write what the customer says, in their words.",
        odometer: !ODOMETER.test(odometer) && "Write the odometer as a number, with km or mi: 148 200 km.",
      },
      () => ({
        kind: "booking",
        vehicle,
        customer,
        words,
        odometer,
        use,
        driven: one(DRIVEN.codes, driven) ?? "not-told",
        earlier,
        opened: one(OPENED_BEFORE.codes, opened) ?? "not-told",
      }),
    ),

  answer: ({ question = "", outcome = "", conditions = "", there = "true", note = "" }) =>
    when({ outcome: (question === "" || outcome === "") && "Choose an answer." }, () => ({
      kind: "answer",
      question,
      outcome,
      there: there === "true",
      conditions: conditions
        .split(",")
        .flatMap((word): Condition[] => (one(CONDITIONS.codes, word) ? [word as Condition] : [])),
      ...(note ? { note } : {}),
    })),

  code: ({ code = "", words = "", sort = "", related = "", there = "true" }) =>
    when(
      {
        code: (code === "" || code.length > 30) && "Write the code as the tool shows it.",
        sort: !one(CODE_SORTS.codes, sort) && "Choose what sort of code it is.",
        related: !one(["yes", "no", "unsure"], related) && "Say whether it belongs to this complaint.",
      },
      () => ({
        kind: "code",
        code: code.toUpperCase(),
        words,
        sort: sort as CodeOf<typeof CODE_SORTS>,
        there: there === "true",
        related: related as "yes" | "no" | "unsure",
      }),
    ),

  speeds: ({ range = "", input, output, there = "true" }, { ranges }) => {
    const [turnsIn, turnsOut] = [wholeNumber(input), wholeNumber(output)];
    return when(
      {
        range: !ranges.some(({ id }) => id === range) && "Choose the range it was driven in.",
        input: !turnsIn && "Write the input speed in whole turns a minute, more than none: 1800.",
        output: turnsOut === null && "Write the output speed in whole turns a minute: 1260.",
      },
      () => ({ kind: "speeds", range, input: turnsIn ?? 0, output: turnsOut ?? 0, there: there === "true" }),
    );
  },

  fluid: ({ look, smell, note = "" }) => {
    const [seen, smelt] = [one(FLUID_LOOKS.codes, look), one(FLUID_SMELLS.codes, smell)];
    return when({ look: !seen && "Choose how it looks.", smell: !smelt && "Choose how it smells." }, () => ({
      kind: "fluid",
      look: seen ?? "none-came-out",
      smell: smelt ?? "as-new",
      note,
    }));
  },

  debris: ({ where, what, amount }) => {
    const [place, kind, much] = [
      one(DEBRIS_PLACES.codes, where),
      one(DEBRIS_KINDS, what),
      one(DEBRIS_AMOUNTS.codes, amount),
    ];
    return when(
      {
        where: !place && "Choose where it was found.",
        what: !kind && "Choose what it is.",
        amount: !much && "Choose how much.",
      },
      () => ({ kind: "debris", where: place ?? "pan", what: kind ?? "fuzz", amount: much ?? "none" }),
    );
  },

  conclusion: ({ fault, reason = "", fee = "" }) => {
    const where = one(FAULTS.codes, fault);
    return when(
      {
        fault: !where && "Choose where the fault lies.",
        reason: reason.length < 2 && "Say why, for the record.",
        fee: fee.length > 40 && "Write the fee short: 85.00.",
      },
      () => ({
        kind: "conclusion",
        fault: where ?? "open",
        reason,
        fee,
      }),
    );
  },

  figure: ({ of, id = "", item, text = "", cannot = "", note = "", phase }, book) => {
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
      quantity === "length" ? parseLength(text, book.unit.lengthUnit) : parseMeasure(text, quantity, usual);
    if (!parsed.ok) return wrong({ text: `${parsed.problem}; ${parsed.remedy}` });
    const withUnit =
      "measure" in parsed
        ? `${parsed.measure.figure} ${parsed.measure.unit}`
        : `${plainSign(text).replace(/[^\d]*$/, "")} ${parsed.unit}`;
    return good({ ...base, text: withUnit });
  },

  reading: ({ chain = "", item, method, value = "", unit = "mm", phase }, { chains }) => {
    const lengthUnit: LengthUnit = unit === "in" ? "in" : "mm";
    const known = chains.find(({ id }) => id === chain);
    const blades = bladesOf(value, lengthUnit);
    if (blades && !blades.ok) return wrong({ value: blades.problem });
    const parsed = blades ? null : parseLength(value, lengthUnit);
    if (parsed && !parsed.ok)
      return wrong({ value: value === "" ? "Type the reading." : `${parsed.problem}; ${parsed.remedy}` });
    const reading: Reading = blades?.reading ?? { kind: "single", value: parsed?.length ?? nm(0) };
    const gauge = blades ? "feeler" : (one(GAUGES, method) ?? one(GAUGES, known?.read.with[0]));
    const size = blades ? (blades.reading.passes ?? blades.reading.refuses) : parsed?.length;
    return when(
      {
        value: Math.abs(size ?? 0) > 1_000_000_000 && "Nothing here is a metre long; check the unit.",
        method: (!known || !gauge) && "Choose how it was read.",
      },
      () => ({
        kind: "reading",
        chain,
        phase: phaseOf(phase),
        fit: 0,
        method: gauge as Gauge,
        state: { soak: "dry", facings: "run-in" },
        reading,
        ...(item ? { item } : {}),
        resolution: stepOf(gauge as Gauge, lengthUnit),
        unit: lengthUnit,
        typed: value,
      }),
    );
  },

  "read-out": ({ readOut = "", text = "", from = "typed" }, { readOuts = [] }) =>
    when(
      {
        text:
          text === ""
            ? "Paste or type what was read out."
            : text.length > 20_000 && "That is too long to keep; paste the part that matters.",
        readOut: !readOuts.some(({ id }) => id === readOut) && "Choose what it is.",
      },
      () => ({
        kind: "read-out",
        readOut,
        text,
        from: (one(["typed", "pasted", "scan-tool"], from) as "typed") ?? "typed",
      }),
    ),

  step: ({ step = "", did, reason = "", to = "" }, { teardown = [] }) => {
    const what = one(STEP_DONE.codes, did);
    return when(
      {
        step: (!what || !teardown.some(({ id }) => id === step)) && "Choose the step.",
        reason: what === "skipped" && reason.length < 2 && "Say why it is skipped: already off, not needed.",
      },
      () => ({ kind: "step", step, did: what ?? "done", reason, ...(to && what === "done" ? { to } : {}) }),
    );
  },

  disposition: ({ part = "", is, reason = "" }) => {
    const what = one(DISPOSITIONS.codes, is);
    return when(
      {
        is: !what && "Choose what becomes of it.",
        reason: reason.length < 2 && "Say why: it goes against what is proposed.",
      },
      () => ({ kind: "disposition", part, is: what ?? "replace", reason }),
    );
  },

  offer: ({ way, price = "", hours = "", risk = "", note = "" }) => {
    const which = one(WAYS_ON.codes, way);
    const [cents, long, chance] = [parseMoney(price), decimal(hours), decimal(risk)];
    return when(
      {
        price: cents === null && "Write the price as 1250 or 1250.00.",
        hours: (long === null || long > 500) && "Write the hours as 12 or 7.5.",
        risk: (chance === null || chance > 100) && "Write the chance of a comeback in percent: 6.",
        way: !which && "Choose the way.",
      },
      () => ({
        kind: "offer",
        way: which ?? "rebuild",
        note,
        cents: cents ?? 0,
        hours: long ?? 0,
        risk: chance ?? 0,
      }),
    );
  },

  "way-on": ({ way, reason = "" }) => {
    const which = one(WAYS_ON.codes, way);
    return when(
      { way: !which && "Choose the way.", reason: reason.length < 2 && "Say why, for the customer." },
      () => ({ kind: "way-on", way: which ?? "rebuild", reason }),
    );
  },

  "weak-point": ({ point = "", answer = "", note = "" }) =>
    when({ answer: answer.length < 2 && "Choose what was done about it." }, () => ({
      kind: "weak-point",
      point,
      answer,
      note,
    })),

  cause: ({ of = "", cause = "", standing, note = "", after = "" }) => {
    const how = one(CAUSE_STANDINGS.codes, standing);
    return when(
      {
        standing: !how && "Say how sure it is.",
        cause: how !== "not-found" && cause.length < 2 && "Choose the cause.",
      },
      () => ({
        kind: "cause",
        of,
        cause: how === "not-found" ? "" : cause,
        standing: how ?? "likely",
        note,
        after,
      }),
    );
  },

  explained: ({ chain = "", fit, reason = "" }) => {
    const which = wholeNumber(fit);
    return when(
      { reason: (which === null || reason.length < 2) && "Say why it is so, for the record." },
      () => ({
        kind: "explained",
        chain,
        fit: which ?? 0,
        reason,
      }),
    );
  },

  wrong: ({ what, of = "", note = "" }) => {
    const known = one(FOUND_WRONG.codes, what);
    return when(
      { what: !known && "Choose what is wrong.", of: of === "" && "Choose the part it is about." },
      () => ({ kind: "wrong", what: known ?? "missing", of, note, there: true }),
    );
  },

  count: ({ of = "", found }) => {
    const many = wholeNumber(found);
    return when({ found: (many === null || many > 999) && "Write how many there are, as a number." }, () => ({
      kind: "count",
      of,
      found: many ?? 0,
    }));
  },

  place: ({ place, sort, name = "" }, _book, fresh) => {
    const what = one(PLACE_SORTS.codes, sort);
    return when(
      {
        sort: !what && "Choose what it is.",
        name: (name === "" || name.length > 60) && "Give it a name in a word or two: small parts, D1 drum.",
      },
      () => ({ kind: "place", place: place || fresh.slice(-8), sort: what ?? "tray", name }),
    );
  },
};
