import { lengthOf, nm, showLength, type LengthUnit, type Nm } from "../core/quantity";
import {
  chooseJointly,
  insteads,
  proposals,
  TERMS,
  type JointPlan,
  type JointQuestion,
  type Offer,
  type Values,
} from "../core/select";
import {
  check,
  flag,
  list,
  listOnce,
  map,
  names,
  number,
  object,
  oneOf,
  optional,
  refersTo,
  suchThat,
  whole,
  words,
  written,
  type Read,
} from "../core/shape";
import type { Answer } from "./verbs";

const MANY = 100_000;
const name = words(1, 80);
const length = written(lengthOf, "1.80 mm");
const unsure = optional(
  suchThat(length, {
    test: (given) => given >= 0,
    message: "is below nothing",
    remedy: "an uncertainty has no sign",
  }),
);
/** In nm², for whoever has it exactly. */
const variance = optional(number(0, 1e15));
const isOnce = {
  test: ({ uncertainty, variance: given }: { uncertainty?: Nm; variance?: number }): boolean =>
    uncertainty === undefined || given === undefined,
  message: "an uncertainty and a variance",
  remedy: "give one of them",
};
const offer = suchThat(
  object({
    id: name,
    adds: length,
    uncertainty: unsure,
    variance,
    lot: optional(refersTo("lot", name)),
    days: optional(whole(0, 10_000)),
    money: optional(whole(0, 100_000_000)),
    scarce: optional(whole(0, 10_000)),
  }),
  isOnce,
);
const chain = suchThat(
  suchThat(
    object({
      id: names("chain", name),
      seats: list(object({ seat: refersTo("seat", name), sign: oneOf("+", "-") }), 1, 20),
      rest: length,
      uncertainty: unsure,
      variance,
      scatter: optional(number(0, 1e30)),
      min: length,
      max: length,
      target: optional(length),
    }),
    isOnce,
  ),
  {
    test: ({ min, max }) => min < max,
    message: "max is not above min",
    remedy: "swap or correct them",
    key: "max",
  },
);
const asked = object({
  unit: optional(oneOf("mm", "in", "thou", "µm")),
  lots: optional(list(object({ id: names("lot", name), count: whole(0, MANY) }), 0, MANY)),
  series: map(list(offer, 0, 10_000)),
  seats: list(
    object({
      id: names("seat", name),
      job: optional(name),
      series: refersTo("series", name),
      fitted: optional(offer),
      pinned: optional(name),
      barred: optional(list(name)),
    }),
    1,
    10_000,
  ),
  chains: list(chain, 1, 10_000),
  relations: optional(
    list(object({ below: refersTo("chain", name), above: refersTo("chain", name), by: length }), 0, 10_000),
  ),
  terms: optional(listOnce(oneOf(...TERMS), 1)),
  effort: optional(whole(0, 1_000_000_000)),
  beside: optional(flag),
});
type Asked = Read<typeof asked>;

/** Chains of a unit, what the shelf holds → a piece for every seat, and how good that is. */
export function select(given: unknown): Answer {
  const { value, problems, gathered } = check(asked, given);
  if (problems.length > 0) return { ok: false, errors: problems };
  // A series is named by its key.
  const series = new Map(Object.keys(value.series).map((id) => [id, `series.${id}`]));
  const wrong = [...gathered.twice, ...gathered.astray(new Map([...gathered.named, ["series", series]]))];
  if (wrong.length > 0) return { ok: false, errors: wrong };
  const question = questionOf(value);
  const { unit = "mm", beside = false } = value;
  try {
    const plan = chooseJointly(question);
    const all = (values: Values): Record<string, number> =>
      Object.fromEntries((question.terms ?? TERMS).map((term) => [term, values[term]]));
    const told = (one: JointPlan): Record<string, unknown> => ({
      values: all(one.values),
      seats: Object.fromEntries(one.seats.map(({ seat, offer: has }) => [seat, has?.id ?? null])),
    });
    return {
      ok: true,
      result: {
        ...planOut(question, plan, unit),
        ...(beside
          ? {
              instead: insteads(question, plan).map(({ seat, plan: other, elsewhere }) => ({
                seat,
                elsewhere,
                ...told(other),
              })),
              proposals: Object.fromEntries(
                Object.entries(proposals(question)).map(([aim, one]) => [aim, told(one)]),
              ),
            }
          : {}),
      },
    };
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return {
      ok: false,
      errors: [{ path: "", message: error.message, remedy: "see docs/formats.md for an example" }],
    };
  }
}

function questionOf({ lots = [], series, seats, chains, relations, terms, effort }: Asked): JointQuestion {
  const of = <T extends { uncertainty?: Nm; variance?: number }>({
    uncertainty,
    variance: given,
    ...others
  }: T): Omit<T, "uncertainty" | "variance"> & { variance: number } => ({
    ...others,
    variance: given ?? (uncertainty ?? 0) ** 2,
  });
  const offers = new Map(Object.entries(series).map(([id, all]) => [id, all.map((one): Offer => of(one))]));
  return {
    relations,
    terms,
    effort,
    lots,
    seats: seats.map(({ series: from, fitted, ...seat }) => ({
      ...seat,
      ...(fitted ? { fitted: of(fitted) } : {}),
      offers: offers.get(from) ?? [],
    })),
    chains: chains.map((one) => ({
      ...of(one),
      seats: one.seats.map(({ seat, sign }) => ({ seat, sign: sign === "+" ? 1 : -1 })),
    })),
  };
}

function planOut(question: JointQuestion, plan: JointPlan, unit: LengthUnit): Record<string, unknown> {
  const show = (value: Nm): string => {
    const { exact, figure, unit: shown } = showLength(value, unit);
    return `${exact ? "" : "≈"}${figure} ${shown}`;
  };
  const terms = question.terms ?? TERMS;
  return {
    proven: plan.proven,
    values: Object.fromEntries(terms.map((term) => [term, plan.values[term]])),
    ...(plan.proven ? {} : { bound: Object.fromEntries(terms.map((term, i) => [term, plan.bound[i]])) }),
    seats: plan.seats.map(({ seat, offer: has, kept }) => ({
      seat,
      offer: has?.id ?? null,
      ...(has?.lot === undefined ? {} : { lot: has.lot }),
      kept,
    })),
    chains: plan.chains.map(({ chain: id, mean, variance: of, isOutside }) => ({
      chain: id,
      result: mean === null ? null : show(mean),
      ...(mean === null ? {} : { uncertainty: show(nm(Math.ceil(Math.sqrt(of)))) }),
      inside: !isOutside,
    })),
    broken: plan.broken.map((at) => {
      const { below = "", above = "", by = nm(0) } = question.relations?.[at] ?? {};
      return { below, above, by: show(by) };
    }),
  };
}
