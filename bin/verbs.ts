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
import type { SeatLink } from "../core/book";
import { jointChain, seatCandidates, type SelectiveCandidate } from "../core/measure";
import { Offers, target, thickness, type JointQuestion, type Stock, type Target } from "../core/select";
import {
  check,
  flag,
  isRecord,
  list,
  maybeWords,
  number,
  object,
  oneOf,
  optional,
  suchThat,
  text,
  whole,
  written,
  type Problem,
  type Read,
  type Shape,
} from "../core/shape";
import { BOOK_VERBS } from "./book-verbs";

export type Answer = { ok: true; result: unknown } | { ok: false; errors: Problem[] };

/** Raised where a value cannot be read; carries its place. */
class Wrong extends Error {
  constructor(readonly problems: Problem[]) {
    super("wrong input");
  }
}

const length = written(lengthOf, "1.80 mm");
const from = (least: number, message: string, remedy: string): Shape<Nm> =>
  suchThat(length, { test: (given) => given >= least, message, remedy });
const atLeastNothing = from(0, "is below nothing", "a width has no sign");
const aStep = from(1, "is no step", "a gauge’s step is above nothing, such as 0.01 mm");
const aSize = from(1, "is no thickness", "it is above nothing");
const allowance = (sign: 1 | -1, message: string, remedy: string) =>
  object({
    amount: suchThat(length, { test: (given) => sign * given >= 0, message, remedy }),
    within: atLeastNothing,
  });
const allowances = object({
  soaking: optional(allowance(-1, "soaking closes", "give it below nothing, such as -0.03 mm")),
  bedding: optional(allowance(1, "bedding opens", "give it above nothing, such as 0.02 mm")),
  wave: optional(allowance(1, "a free wave takes up", "give it above nothing")),
});
const unit = oneOf("mm", "in", "thou", "µm");
const state = object({
  soak: optional(oneOf("dry", "soaked")),
  facings: optional(oneOf("new", "run-in")),
  wave: optional(oneOf("free", "flat")),
});
const spec = suchThat(object({ min: length, max: length, state: optional(state) }), {
  test: ({ min, max }) => min < max,
  message: "max is not above min",
  remedy: "swap or correct them",
  key: "max",
});
const reading = suchThat(
  suchThat(
    object({
      value: optional(length),
      back: optional(length),
      passes: optional(length),
      refuses: optional(length),
      out: optional(flag),
      state: optional(state),
      resolution: optional(aStep),
    }),
    {
      test: ({ value, passes, refuses }) =>
        (value === undefined) !== (passes === undefined && refuses === undefined),
      message: "neither a value nor a blade, or both",
      remedy: "give `value`, or the blades as `passes`, `refuses` or both",
    },
  ),
  {
    test: ({ passes, refuses }) => passes === undefined || refuses === undefined || refuses > passes,
    message: "is not above passes",
    remedy: "the blade that does not pass is the thicker one",
    key: "refuses",
  },
);
const piece = suchThat(
  object({
    part: optional(text),
    mark: optional(text),
    size: optional(aSize),
    measured: optional(aSize),
  }),
  {
    test: ({ size, measured }) => size !== undefined || measured !== undefined,
    message: "neither a size nor a measure",
    remedy: "give what its mark stands for, or what a micrometer said",
  },
);
const judgedKeys = {
  spec,
  rule: optional(oneOf("proven", "plain")),
  unit: optional(unit),
  resolution: optional(aStep),
  readings: list(reading, 0, 1000),
  allowances: optional(allowances),
};
const toJudge = object(judgedKeys);
const toChoose = object({
  ...judgedKeys,
  duty: optional(oneOf("shifting", "standstill")),
  target: optional(oneOf("middle", "low end")),
  fitted: piece,
  series: object({
    tolerance: atLeastNothing,
    sizes: list(object({ mark: text, size: aSize, part: text }), 1),
  }),
  shelf: optional(
    list(
      object({
        part: text,
        onHand: optional(whole(0, 100_000)),
        odd: optional(list(aSize)),
        price: optional(number(0, 1_000_000)),
        days: optional(number(0, 10_000)),
      }),
    ),
  ),
});
const toRead = object({ text: maybeWords(200), unit: optional(unit), show: optional(list(unit)) });

/** A reading may be its length alone. */
const spelledOut = (given: unknown): unknown =>
  isRecord(given) && Array.isArray(given.readings)
    ? {
        ...given,
        readings: given.readings.map((one: unknown) => (typeof one === "string" ? { value: one } : one)),
      }
    : given;

/** A verb whose input has this shape. */
const verb =
  <T>(shape: Shape<T>, answer: (given: T) => unknown) =>
  (given: unknown): unknown => {
    const { value, problems } = check(shape, spelledOut(given));
    if (problems.length > 0) throw new Wrong(problems);
    return answer(value);
  };

/** Carries out one verb. Never throws on wrong input. */
export function run(name: string, input: string): Answer {
  let given: unknown;
  try {
    given = JSON.parse(input);
  } catch {
    return {
      ok: false,
      errors: [{ path: "", message: "the input is not JSON", remedy: "see docs/formats.md for examples" }],
    };
  }
  const ofBook = Object.hasOwn(BOOK_VERBS, name) ? BOOK_VERBS[name] : undefined;
  if (ofBook) return ofBook(given);
  const own = Object.hasOwn(VERBS, name) ? VERBS[name as keyof typeof VERBS] : undefined;
  if (!own) {
    const remedy = `use one of: ${[...Object.keys(VERBS), ...Object.keys(BOOK_VERBS)].join(", ")}`;
    return { ok: false, errors: [{ path: "", message: `no verb “${name}”`, remedy }] };
  }
  try {
    return { ok: true, result: own(given) };
  } catch (error) {
    if (error instanceof Wrong) return { ok: false, errors: error.problems };
    throw error;
  }
}

const show = (value: Nm, in_: LengthUnit): string => {
  const shown = showLength(value, in_);
  return `${shown.exact ? "" : "≈"}${shown.figure} ${shown.unit}`;
};

function readingOf(
  { value, back, passes, refuses, out, state: own, resolution }: Read<typeof reading>,
  { state: stated }: Spec,
  step: Nm,
): TakenReading {
  const common = { state: { ...stated, ...own }, leftOut: out, resolution: resolution ?? step };
  return value === undefined
    ? { ...common, reading: { kind: "bracket", passes, refuses } as TakenReading["reading"] }
    : { ...common, reading: { kind: "single", value, back } };
}

function judged({
  spec: given,
  rule = "proven",
  resolution = lengthOf("0.01 mm"),
  readings,
  allowances: allowed = {},
}: Read<typeof toJudge>): { spec: Spec; assessment: Assessment } {
  const { min, max, state: stated } = given;
  const held: Spec = { min, max, state: { soak: "soaked", facings: "new", ...stated } };
  const taken = readings.map((one) => readingOf(one, held, resolution));
  return { spec: held, assessment: assess(taken, held, rule, allowed) };
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
  length: verb(toRead, ({ text: given, unit: fieldUnit = "mm", show: units }) => {
    const parsed = parseLength(given, fieldUnit);
    if (!parsed.ok) throw new Wrong([{ path: "text", message: parsed.problem, remedy: parsed.remedy }]);
    const shown = (units ?? [parsed.unit]).map((one) => showLength(parsed.length, one));
    return { nm: parsed.length, unit: parsed.unit, shown };
  }),
  verdict: verb(toJudge, (given) => {
    const { assessment } = judged(given);
    const { unit: shownIn = "mm", rule = "proven" } = given;
    return {
      verdict: verdictOut(assessment.verdict, shownIn),
      estimate: assessment.estimate && estimateOut(assessment.estimate, shownIn),
      drift: assessment.drift.kind,
      readings: assessment.marks.map(({ use }) => use),
      corrections: assessment.corrections.map(({ name, amount, within }) => ({
        name,
        amount: show(amount, shownIn),
        within: show(within, shownIn),
      })),
      rule,
    };
  }),
  candidates: verb(toChoose, (given) => {
    const { spec: held, assessment } = judged(given);
    const { unit: shownIn = "mm", rule = "proven", duty = "shifting", target: school = "middle" } = given;
    const basis = basisOf(assessment);
    if (!basis) throw new Wrong([tooLittle(assessment)]);
    const stock = (given.shelf ?? []).flatMap(({ part, onHand = 0, odd = [], price, days }): Stock[] => [
      { part, onHand, price, days },
      ...odd.map((measured, i) => ({
        part,
        onHand: 1,
        piece: { id: `${part} odd ${i + 1}`, measured },
      })),
    ]);
    const goal = target(held, duty, school);
    const all = ofOnePack(given, basis, held, goal, stock, rule);
    return {
      measured: estimateOut(basis, shownIn),
      target: goal.kind === "at" ? { at: show(goal.length, shownIn), words: goal.words } : { at: "anywhere" },
      candidates: all.map(({ key, piece: of, source, predicted, verdict, chance, off, reason }) => ({
        key,
        mark: of.mark,
        size: show(of.measured ?? of.size ?? nm(0), shownIn),
        source,
        predicted: show(predicted.mean, shownIn),
        uncertainty: show(predicted.expanded, shownIn),
        verdict: verdict.kind,
        chance: Number(chance.toFixed(4)),
        offTarget: show(off, shownIn),
        reason,
      })),
    };
  }),
};

/** What could close one pack, asked as a unit is asked that has this pack alone. */
function ofOnePack(
  { fitted, series }: Pick<Read<typeof toChoose>, "fitted" | "series">,
  now: Estimate,
  spec: Spec,
  goal: Target,
  stock: readonly Stock[],
  rule: DecisionRule,
): SelectiveCandidate[] {
  const id = "given";
  const link: SeatLink = {
    id,
    name: id,
    sign: -1,
    kind: "snap ring",
    mayBeEmpty: false,
    seat: null,
    ...series,
  };
  const is = thickness(fitted, link.tolerance);
  if (!is) return [];
  const offers = new Offers(stock);
  const seat = offers.seat(link, fitted);
  const chain = jointChain(id, [{ seat: id, sign: link.sign, adds: is.value }], now, spec, goal);
  const question: JointQuestion = { seats: [seat], chains: [chain], lots: offers.lots };
  const sheet = { applied: { spec }, seats: [{ link }], target: goal };
  return seatCandidates(
    {
      question,
      offers: offers.offered,
      seats: new Map([[id, { link, fitted }]]),
      sheets: new Map([[id, { sheet, now }]]),
    },
    id,
    id,
    rule,
  );
}

/** Why there is nothing to predict from yet. */
function tooLittle({ verdict }: Assessment): Problem {
  const path = "readings";
  if (verdict.kind === "too few")
    return { path, message: "too few to predict from", remedy: `take ${verdict.more} more` };
  const message =
    verdict.kind === "creeping" ? "the pack still creeps" : "none has two sides in a comparable state";
  return { path, message, remedy: "read on until they stand" };
}
