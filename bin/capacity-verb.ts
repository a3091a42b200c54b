import {
  capacitiesOf,
  strongerPlan,
  throughParts,
  type Duty,
  type ElementCapacity,
  type PlatePlan,
  type Side,
} from "../core/capacity";
import { BOOK_FORMAT, resolve } from "../core/book";
import { readBook } from "../core/check";
import { USES } from "../core/fact";
import { baseOf, lengthOf, lengthText, measureOf, toNumber, type LengthUnit } from "../core/quantity";
import {
  check,
  flag,
  isRecord,
  list,
  map,
  number,
  object,
  oneOf,
  optional,
  suchThat,
  whole,
  words,
  written,
} from "../core/shape";
import type { Answer } from "./verbs";

const name = words(1, 80);
const torque = suchThat(
  written((text) => toNumber(baseOf(measureOf(text, "torque"))), "400 N·m"),
  { test: (given) => given > 0, message: "is above nothing", remedy: "write what the engine gives" },
);
/** A length as it is typed, `1.24 mm`. */
const length = written(lengthOf, "1.24 mm");
const asked = object({
  configuration: optional(map(name)),
  depths: optional(list(name, 1, 20)),
  torque,
  stall: optional(number(1, 4)),
  speed: optional(number(100, 20_000)),
  seconds: optional(number(0.05, 10)),
  use: optional(oneOf(...USES.codes)),
  ways: optional(list(name, 0, 60)),
  turns: optional(number(0, 20)),
  packs: optional(map(object({ frictions: whole(1, 40), wave: optional(flag) }))),
  starts: optional(map(object({ gap: length, ring: optional(length) }))),
});

/** A book, an engine and what is to be made stronger → what every element can carry beside what it must, as built and as planned. */
export function capacity(given: unknown): Answer {
  if (!isRecord(given))
    return {
      ok: false,
      errors: [{ path: "", message: "expected an object", remedy: "give a book and a torque" }],
    };
  const { book: document, ...rest } = given;
  const of = readBook(document);
  const { value, problems } = check(asked, rest);
  const ofBook = of.ok
    ? []
    : of.problems.map((one) => ({ ...one, path: `book${one.path ? `.${one.path}` : ""}` }));
  if (!of.ok || problems.length > 0) return { ok: false, errors: [...ofBook, ...problems] };
  const { book } = of;
  const known = new Set((book.stronger ?? []).map(({ id }) => id));
  const strangers = (value.ways ?? []).flatMap((id, i) =>
    known.has(id)
      ? []
      : [{ path: `ways[${i}]`, message: `no way "${id}"`, remedy: `use one of: ${[...known].join(", ")}` }],
  );
  const own = book.packs.map(({ element }) => element);
  const others = (["packs", "starts"] as const).flatMap((key) =>
    Object.keys(value[key] ?? {})
      .filter((id) => !own.includes(id))
      .map((id) => ({
        path: `${key}.${id}`,
        message: `no pack "${id}"`,
        remedy: own.length > 0 ? `use one of: ${own.join(", ")}` : "the book has none",
      })),
  );
  if (strangers.length + others.length > 0) return { ok: false, errors: [...strangers, ...others] };
  const { behind } = book.unit;
  const applied = resolve(book, value.configuration ?? {}, value.depths ?? book.depths);
  const plan = strongerPlan(
    applied,
    {
      ways: value.ways ?? [],
      turns: value.turns ?? 0,
      packs: new Map(
        Object.entries(value.packs ?? {}).map(([id, { frictions, wave }]) => [
          id,
          { frictions, isSprung: wave ?? true },
        ]),
      ),
    },
    () => true,
    new Map(
      Object.entries(value.starts ?? {}).map(([id, { gap, ring }]) => [id, { gap, ring: ring ?? null }]),
    ),
  );
  const duty: Duty = {
    torque: value.torque,
    stall: value.stall ?? behind?.stall ?? 1,
    speed: value.speed ?? (behind ? toNumber(baseOf(behind.speed)) : 4_000),
    seconds: value.seconds ?? 0.5,
    use: value.use ?? "usual",
  };
  const found = capacitiesOf(applied, duty, plan.changes);
  const planned = (applied.present.stronger ?? []).filter(({ id }) => plan.ways.includes(id));
  const unit = book.unit.lengthUnit;
  return {
    ok: true,
    result: {
      format: BOOK_FORMAT,
      unit: book.unit.id,
      elements: found.map(told),
      through: throughParts(applied.present, duty, planned).map((one) => ({
        part: one.part.id,
        ...(one.way ? { way: one.way.id } : {}),
        takes: figure(one.takes),
        torque: figure(one.torque),
        range: one.range,
        margin: figure(one.margin),
        judged: one.judged === "slips" ? "breaks" : one.judged,
      })),
      ways: plan.ways,
      packs: plan.packs.map(({ element, plates, min, max, predicted }) => ({
        element,
        plates: plates.map(({ thickness, ...plate }) => ({
          ...plate,
          thickness: lengthText(thickness, unit),
        })),
        ring: plan.rings.get(element)?.mark ?? null,
        clearance: lengthText(predicted, unit),
        limits: [lengthText(min, unit), lengthText(max, unit)],
      })),
      cuts: plan.cuts.map(({ off, ...cut }) => ({ ...cut, off: lengthText(off, unit) })),
      fitting: Object.fromEntries(
        [...plan.fitting].map(([id, all]) => [id, all.map((one) => fits(one, unit))]),
      ),
    },
  };
}

const fits = ({ frictions, steels, isSprung, ways, cut, gap, ring }: PlatePlan, unit: LengthUnit) => ({
  frictions,
  steels,
  wave: isSprung,
  ways,
  off: lengthText(cut, unit),
  clearance: lengthText(gap, unit),
  ring: ring?.mark ?? null,
});

/** Figures that are worked out are told to a tenth of a per mille. */
const figure = (value: number): number => Number(value.toPrecision(5));

const told = ({ element, duty, wanted, demands, stock, planned }: ElementCapacity) => ({
  element: element.id,
  kind: element.kind,
  duty,
  wanted,
  demands: demands.map(({ range, share, torque: carried, beside }) => ({
    range,
    share: figure(share),
    torque: figure(carried),
    ...(beside.length > 0 ? { beside } : {}),
  })),
  stock: sideTold(stock),
  planned: planned && sideTold(planned),
});

const sideTold = ({ torque: held, margin, worst, judged, missing, shift, drags }: Side) => ({
  judged,
  torque: held === null ? null : figure(held),
  margin: margin === null ? null : figure(margin),
  range: worst?.range ?? null,
  ...(missing.length > 0 ? { missing } : {}),
  ...(shift
    ? {
        shift: {
          from: shift.from,
          to: shift.to,
          slip: figure(shift.slip),
          joules: figure(shift.joules),
          rise: figure(shift.rise),
          edge: figure(shift.edge),
        },
      }
    : {}),
  ...(drags ? { drags: { input: figure(drags.input), range: drags.range } } : {}),
});
