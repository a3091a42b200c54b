import Joi from "joi";
import type { Problem, Series } from "../core/book";
import { lengthOf, nm, parseLength, showLength, type LengthUnit, type Nm } from "../core/quantity";
import {
  assess,
  basisOf,
  type Assessment,
  type DecisionRule,
  type Estimate,
  type Spec,
  type TakenReading,
} from "../core/reading";
import { candidates, target, type Stock, type TargetSchool } from "../core/select";
import type { Piece } from "../core/chain";

import { BOOK_VERBS } from "./book-verbs";
import { problemOf } from "./problem";

export type Answer = { ok: true; result: unknown } | { ok: false; errors: Problem[] };

/** Raised where a value cannot be read; carries its place. */
class Wrong extends Error {
  constructor(readonly problems: Problem[]) {
    super("wrong input");
  }
}

const length = Joi.string().custom((value: string) => {
  lengthOf(value);
  return value;
});
const from = (least: number, words: string) =>
  length.custom((value: string) => {
    if (lengthOf(value) < least) throw new RangeError(words);
    return value;
  });
const atLeastNothing = from(0, "is below nothing; a width has no sign");
const aStep = from(1, "is no step; a gauge’s step is above nothing, such as 0.01 mm");
const allowance = (sign: 1 | -1, words: string) =>
  Joi.object({
    amount: length
      .custom((value: string) => {
        if (sign * lengthOf(value) < 0) throw new RangeError(words);
        return value;
      })
      .required(),
    within: atLeastNothing.required(),
  });
const allowances = Joi.object({
  soaking: allowance(-1, "soaking closes: give it below nothing, such as -0.03 mm"),
  bedding: allowance(1, "bedding opens: give it above nothing, such as 0.02 mm"),
  wave: allowance(1, "a free wave takes up: give it above nothing"),
});
const unit = Joi.valid("mm", "in", "thou", "µm");
const state = Joi.object({
  soak: Joi.valid("dry", "soaked"),
  facings: Joi.valid("new", "run-in"),
  wave: Joi.valid("free", "flat"),
});
const spec = Joi.object({ min: length.required(), max: length.required(), state });
const reading = Joi.alternatives(
  length,
  Joi.object({ value: length.required(), back: length, out: Joi.boolean(), state, resolution: aStep }),
  Joi.object({ passes: length, refuses: length, out: Joi.boolean(), state }).or("passes", "refuses"),
);
const aSize = from(1, "is no thickness; it is above nothing");
const piece = Joi.object({ part: Joi.string(), mark: Joi.string(), size: aSize, measured: aSize }).or(
  "size",
  "measured",
);

const schemas = {
  length: Joi.object({
    text: Joi.string().allow("").max(200).required(),
    unit: unit.default("mm"),
    show: Joi.array().items(unit),
  }),
  verdict: Joi.object({
    spec: spec.required(),
    rule: Joi.valid("proven", "plain").default("proven"),
    unit: unit.default("mm"),
    resolution: aStep.default("0.01 mm"),
    readings: Joi.array().items(reading).max(1000).required(),
    allowances,
  }),
  candidates: Joi.object({
    spec: spec.required(),
    rule: Joi.valid("proven", "plain").default("proven"),
    unit: unit.default("mm"),
    resolution: aStep.default("0.01 mm"),
    duty: Joi.valid("shifting", "standstill").default("shifting"),
    target: Joi.valid("middle", "low end").default("middle"),
    readings: Joi.array().items(reading).max(1000).required(),
    allowances,
    fitted: piece.required(),
    series: Joi.object({
      tolerance: atLeastNothing.required(),
      sizes: Joi.array()
        .items(
          Joi.object({
            mark: Joi.string().required(),
            size: aSize.required(),
            part: Joi.string().required(),
          }),
        )
        .min(1)
        .required(),
    }).required(),
    shelf: Joi.array().items(
      Joi.object({
        part: Joi.string().required(),
        onHand: Joi.number().integer().min(0),
        odd: Joi.array().items(aSize),
        price: Joi.number(),
        days: Joi.number(),
      }),
    ),
  }),
} as const;

/** Carries out one verb. Never throws on wrong input. */
export function run(verb: string, input: string): Answer {
  let given: unknown;
  try {
    given = JSON.parse(input);
  } catch {
    return {
      ok: false,
      errors: [{ path: "", message: "the input is not JSON", remedy: "see docs/formats.md for examples" }],
    };
  }
  const ofBook = Object.hasOwn(BOOK_VERBS, verb) ? BOOK_VERBS[verb] : undefined;
  if (ofBook) return ofBook(given);
  if (!Object.hasOwn(schemas, verb)) {
    const remedy = `use one of: ${[...Object.keys(schemas), ...Object.keys(BOOK_VERBS)].join(", ")}`;
    return { ok: false, errors: [{ path: "", message: `no verb “${verb}”`, remedy }] };
  }
  const checked = schemas[verb as keyof typeof schemas].validate(given, { abortEarly: false }) as {
    value: never;
    error?: Joi.ValidationError;
  };
  if (checked.error) return { ok: false, errors: checked.error.details.map(problemOf) };
  try {
    return { ok: true, result: VERBS[verb as keyof typeof VERBS](checked.value) };
  } catch (error) {
    if (error instanceof Wrong) return { ok: false, errors: error.problems };
    throw error;
  }
}

const show = (value: Nm, in_: LengthUnit): string => {
  const shown = showLength(value, in_);
  return `${shown.exact ? "" : "≈"}${shown.figure} ${shown.unit}`;
};

interface GivenSpec {
  min: string;
  max: string;
  state?: Partial<Spec["state"]>;
}
type GivenReading =
  | string
  | {
      value?: string;
      back?: string;
      passes?: string;
      refuses?: string;
      out?: boolean;
      state?: Partial<Spec["state"]>;
      resolution?: string;
    };
interface GivenRun {
  spec: GivenSpec;
  rule: DecisionRule;
  unit: LengthUnit;
  resolution: string;
  readings: GivenReading[];
  allowances?: Record<string, { amount: string; within: string }>;
}

function specOf({ min, max, state: stated = {} }: GivenSpec): Spec {
  const result: Spec = {
    min: lengthOf(min),
    max: lengthOf(max),
    state: { soak: "soaked", facings: "new", ...stated },
  };
  if (result.min >= result.max) {
    throw new Wrong([{ path: "spec.max", message: "max is not above min", remedy: "swap or correct them" }]);
  }
  return result;
}

const optional = (text: string | undefined): Nm | undefined =>
  text === undefined ? undefined : lengthOf(text);

function readingOf(given: GivenReading, spec: Spec, resolution: Nm, i: number): TakenReading {
  if (typeof given === "string")
    return { reading: { kind: "single", value: lengthOf(given) }, state: spec.state, resolution };
  const common = {
    state: { ...spec.state, ...given.state },
    out: given.out,
    resolution: optional(given.resolution) ?? resolution,
  };
  if (given.value !== undefined)
    return {
      ...common,
      reading: { kind: "single", value: lengthOf(given.value), back: optional(given.back) },
    };
  const passes = optional(given.passes);
  const refuses = optional(given.refuses);
  if (passes !== undefined && refuses !== undefined && refuses <= passes) {
    throw new Wrong([
      {
        path: `readings[${i}].refuses`,
        message: "is not above passes",
        remedy: "the blade that does not pass is the thicker one",
      },
    ]);
  }
  return { ...common, reading: { kind: "bracket", passes, refuses } as TakenReading["reading"] };
}

function judged(given: GivenRun): { spec: Spec; assessment: Assessment } {
  const spec = specOf(given.spec);
  const resolution = lengthOf(given.resolution);
  const allowances = Object.fromEntries(
    Object.entries(given.allowances ?? {}).map(([name, { amount, within }]) => [
      name,
      { amount: lengthOf(amount), within: lengthOf(within) },
    ]),
  );
  const readings = given.readings.map((one, i) => readingOf(one, spec, resolution, i));
  return { spec, assessment: assess(readings, spec, given.rule, allowances) };
}

const estimateOut = (estimate: Estimate, in_: LengthUnit) => ({
  mean: show(estimate.mean, in_),
  uncertainty: show(estimate.expanded, in_),
  k: Number(estimate.k.toFixed(3)),
  degreesOfFreedom: estimate.dof === Infinity ? null : Number(estimate.dof.toFixed(2)),
  count: estimate.count,
  components: estimate.components.map(({ name, u }) => ({ name, u: show(nm(Math.round(u)), in_) })),
});

const verdictOut = (verdict: Assessment["verdict"], in_: LengthUnit): Record<string, unknown> =>
  Object.fromEntries(
    Object.entries(verdict).map(([key, value]) => [
      key,
      key === "by" || key === "margin" ? show(value as Nm, in_) : (value as unknown),
    ]),
  );

const VERBS = {
  length: ({
    text,
    unit: fieldUnit,
    show: units,
  }: {
    text: string;
    unit: LengthUnit;
    show?: LengthUnit[];
  }) => {
    const parsed = parseLength(text, fieldUnit);
    if (!parsed.ok) throw new Wrong([{ path: "text", message: parsed.problem, remedy: parsed.remedy }]);
    const shown = (units ?? [parsed.unit]).map((one) => showLength(parsed.length, one));
    return { nm: parsed.length, unit: parsed.unit, shown };
  },
  verdict: (given: GivenRun) => {
    const { assessment } = judged(given);
    return {
      verdict: verdictOut(assessment.verdict, given.unit),
      estimate: assessment.estimate && estimateOut(assessment.estimate, given.unit),
      drift: assessment.drift.kind,
      readings: assessment.marks.map(({ use }) => use),
      corrections: assessment.corrections.map(({ name, amount, within }) => ({
        name,
        amount: show(amount, given.unit),
        within: show(within, given.unit),
      })),
      rule: given.rule,
    };
  },
  candidates: (
    given: GivenRun & {
      duty: "shifting" | "standstill";
      target: TargetSchool;
      fitted: Record<"part" | "mark" | "size" | "measured", string | undefined>;
      series: { tolerance: string; sizes: { mark: string; size: string; part: string }[] };
      shelf?: { part: string; onHand?: number; odd?: string[]; price?: number; days?: number }[];
    },
  ) => {
    const { spec, assessment } = judged(given);
    const basis = basisOf(assessment);
    if (!basis) {
      const { verdict } = assessment;
      throw new Wrong([
        {
          path: "readings",
          message:
            verdict.kind === "too few"
              ? "too few to predict from"
              : verdict.kind === "creeping"
                ? "the pack still creeps"
                : "none has two sides in a comparable state",
          remedy: verdict.kind === "too few" ? `take ${verdict.more} more` : "read on until they stand",
        },
      ]);
    }
    const series: Series = {
      id: "given",
      name: "given",
      kind: "snap ring",
      tolerance: lengthOf(given.series.tolerance),
      sizes: given.series.sizes.map((one) => ({ ...one, size: lengthOf(one.size) })),
    };
    const { part, mark, size, measured } = given.fitted;
    const fitted: Piece = { part, mark, size: optional(size), measured: optional(measured) };
    const stock = (given.shelf ?? []).flatMap(({ part: of, onHand = 0, odd = [], price, days }): Stock[] => [
      { part: of, onHand, price, days },
      ...odd.map((one, i) => ({
        part: of,
        onHand: 1,
        piece: { id: `${of} odd ${i + 1}`, measured: lengthOf(one) },
      })),
    ]);
    const goal = target(spec, given.duty, given.target);
    const list = candidates({
      measured: basis,
      fitted,
      series,
      stock,
      spec,
      rule: given.rule,
      target: goal,
    });
    return {
      measured: estimateOut(basis, given.unit),
      target:
        goal.kind === "at" ? { at: show(goal.length, given.unit), words: goal.words } : { at: "anywhere" },
      candidates: list.map(({ key, piece: of, source, predicted, verdict, chance, off, reason }) => ({
        key,
        mark: of.mark,
        size: show(of.measured ?? of.size ?? nm(0), given.unit),
        source,
        predicted: show(predicted.mean, given.unit),
        uncertainty: show(predicted.expanded, given.unit),
        verdict: verdict.kind,
        chance: Number(chance.toFixed(4)),
        offTarget: show(off, given.unit),
        reason,
      })),
    };
  },
};
