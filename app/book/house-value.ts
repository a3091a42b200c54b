import { ends } from "~core/reading";
import { data } from "react-router";
import { services } from "~/server/context";
import { readForm, typedIn } from "~/server/form";
import { field, maybeWords, oneOf, words } from "~core/shape";
import { mustBe } from "~/server/session";
import { parseLength, parseMeasure, unitFor, type Nm } from "~core/quantity";
import { bookById, revisionsOf } from "~store/books";
import { setHouseValue } from "~store/house-values";
import type { Route } from "./+types/house-value";

const figure = field(maybeWords(40));
const value = {
  intent: field(oneOf("set", "take")),
  of: field(oneOf("chain", "fastener")),
  id: field(words(1, 80)),
  unit: field(oneOf("mm", "in")),
  min: figure,
  max: figure,
  torque: figure,
  reason: field(words(3, 300), "Say why, in a few words."),
};

/** Puts a house value beside the book's, or takes it back; both with a reason and a name. */
export const action = async ({ context, request, params }: Route.ActionArgs) => {
  const by = mustBe(context, "lead", "owner");
  const { pool } = context.get(services);
  const form = readForm(value, await typedIn(request));
  if ("problems" in form) return data(form, { status: 400 });
  const { intent, of, id, unit, reason } = form.values;
  const refuse = (problems: Record<string, string>) =>
    data({ problems, typed: { ...form.values } }, { status: 400 });
  const newest = (await revisionsOf(pool, params.unit))[0];
  if (!newest) throw new Response("There is no such book here.", { status: 404 });
  const { book } = await bookById(pool, newest.id);
  const entry = (of === "chain" ? book.chains : (book.fasteners ?? [])).find((one) => one.id === id);
  if (!entry) throw new Response("The book has no such entry.", { status: 404 });
  const keep = async (value: { min?: Nm; max?: Nm; torque?: string } | null) => {
    await setHouseValue(pool, { unit: params.unit, of, id, value, reason, by: by.name });
    return data({ problems: {}, typed: {}, done: true });
  };
  if (intent === "take") return keep(null);
  if ("torque" in entry || of === "fastener") {
    const own = "torque" in entry ? entry.torque : undefined;
    const read = parseMeasure(form.values.torque, "torque", own ? unitFor(own, unit) : "N·m");
    if (!read.ok) return refuse({ torque: `${read.problem}; ${read.remedy}` });
    if (Number(read.measure.figure) <= 0) return refuse({ torque: "A torque is above zero." });
    return keep({ torque: `${read.measure.figure} ${read.measure.unit}` });
  }
  const problems: Record<string, string> = {};
  const limits: { min?: Nm; max?: Nm } = {};
  for (const end of ["min", "max"] as const) {
    const text = form.values[end];
    if (text === "") continue;
    const read = parseLength(text, unit);
    if (read.ok) limits[end] = read.length;
    else problems[end] = `${read.problem}; ${read.remedy}`;
  }
  if (Object.keys(problems).length > 0) return refuse(problems);
  if (limits.min === undefined && limits.max === undefined)
    return refuse({ min: "Give a min, a max, or both." });
  for (const spec of "spec" in entry ? entry.spec : []) {
    const { min, max } = ends({ min: limits.min ?? spec.min, max: limits.max ?? spec.max });
    if (min >= max)
      return refuse({ max: "The max is not above the min; leave a field empty to keep the book’s." });
  }
  return keep(limits);
};
