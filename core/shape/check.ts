import type { ValidationErrorItem } from "joi";
import { joiOf } from "./joi";
import { gather, type Gathered } from "./gather";
import { pathOf, type Place, type Problem } from "./place";
import { chosen, inward, keysOf, refusal, RULE, unknownKey, keyOfAnother, keyOfChosen } from "./refusal";
import { isRecord, type Shape } from "./shape";

/** A value held against its shape: what it says where it is right, and everything that is wrong with it. */
export interface Checked<T> {
  /** Whole only while there is no problem; what could not be read is missing in it. */
  value: T;
  problems: Problem[];
  /** What is named, what is referred to, and where entries hold only for some configurations. */
  gathered: Gathered;
}

/**
 * Holds a value against a shape. Nothing is made into something else on the way, but what is written with its unit is read.
 *
 * @param at where the value stands, before its own paths.
 * @returns the value with its type, or every problem with its place and its remedy.
 */
export function check<T>(shape: Shape<T>, given: unknown, at = ""): Checked<T> {
  const result = joiOf(shape).required().validate(given, { abortEarly: false, convert: false }) as {
    value: T;
    error?: { details: ValidationErrorItem[] };
  };
  const details = result.error?.details ?? [];
  const problems: Problem[] = [];
  const said = new Set<string>();
  const gone = new Set<string>();
  let value = result.value;
  for (const detail of details) {
    const place = detail.path;
    const { problem, whole } = problemAt(shape, given, detail, at);
    // A list of the wrong length is refused as it is; its values are not looked at.
    if (whole) gone.add(pathOf(place, at));
    const key = `${problem.path}\n${problem.message}`;
    if (said.has(key)) continue;
    said.add(key);
    problems.push(problem);
    value = without(value, place) as T;
  }
  const outside = problems.filter(({ path }) => !within(path, gone));
  return { value, problems: outside, gathered: gather(shape, value, at) };
}

const within = (path: string, gone: ReadonlySet<string>): boolean =>
  [...gone].some((one) => path !== one && (path.startsWith(`${one}[`) || path.startsWith(`${one}.`)));

/** What is said of one thing that Joi refused. */
function problemAt(
  shape: Shape<unknown>,
  given: unknown,
  { path: place, type, context }: ValidationErrorItem,
  at: string,
): { problem: Problem; whole: boolean } {
  let here: Shape<unknown> = shape;
  let value: unknown = given;
  let around: { shape: Shape<unknown>; value: unknown; key: string | number } | null = null;
  for (const [i, key] of place.entries()) {
    const inner = inward(here, value, key);
    if (!inner)
      return {
        problem: {
          path: pathOf(place.slice(0, i + 1), at),
          ...(keyOfAnother(here, value, key) ?? unknownKey(keysOf(here, value))),
        },
        whole: false,
      };
    around = { shape: here, value, key };
    value =
      isRecord(value) || Array.isArray(value) ? (value as Record<string | number, unknown>)[key] : undefined;
    here = inner;
  }
  const lacks = value === undefined && around ? keyOfChosen(around.shape, around.value, around.key) : null;
  if (lacks) return { problem: { path: pathOf(place, at), ...lacks }, whole: false };
  // What a choice has chosen is what refuses it; where it chose nothing, the choice does.
  if (here.is.kind === "choice") here = chosen(here.is, value) ?? here;
  const error: unknown = context?.error;
  const because = type === "any.invalid" ? ruleOf(here) : error instanceof Error ? error.message : "";
  const rule = because === RULE ? innermostRule(here, value) : null;
  const within = rule?.key ?? (here.is.kind === "choice" && isRecord(value) ? here.is.by : undefined);
  const path = pathOf(within === undefined ? place : [...place, within], at);
  return {
    problem: {
      path,
      ...(rule ? { message: rule.message, remedy: rule.remedy } : refusal(here, value, because)),
    },
    whole: here.is.kind === "tuple",
  };
}

const ruleOf = ({ is }: Shape<unknown>): string =>
  is.kind === "such that" ? RULE : "inner" in is ? ruleOf(is.inner) : "";

/** The first rule, from the inside out, that the value does not keep. */
function innermostRule(
  { is }: Shape<unknown>,
  value: unknown,
): Extract<Shape<unknown>["is"], { kind: "such that" }>["rule"] | null {
  if (is.kind !== "such that") return "inner" in is ? innermostRule(is.inner, value) : null;
  const inner = innermostRule(is.inner, value);
  return inner ?? (is.rule.test(value as never) ? null : is.rule);
}

/** The value without what stands at a place, so that what is right beside it can still be looked at. */
function without(value: unknown, place: Place): unknown {
  const [key, ...rest] = place;
  if (key === undefined) return undefined;
  if (Array.isArray(value)) {
    const copy: unknown[] = [...(value as unknown[])];
    copy[Number(key)] = without(copy[Number(key)], rest);
    return copy;
  }
  if (!isRecord(value)) return value;
  const { [key]: inner, ...others } = value;
  const left = rest.length === 0 ? undefined : without(inner, rest);
  return left === undefined ? others : { ...others, [key]: left };
}
