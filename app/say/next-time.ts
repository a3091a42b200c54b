import type { Book } from "~core/book";
import { LESSONS, type FactOf, type ReadFact } from "~core/fact";
import { parseLength, parseMeasure, unitFor, type Nm } from "~core/quantity";
import { UUID, type Fields } from "~core/shape";

type NextTime = FactOf<"next-time">["body"];

/** What of a job should be said next time, as it was typed; a limit only of what has one. */
export function readNextTime(given: Fields, book: Book, fresh: string): ReadFact {
  const said = (key: string): string => given[key] ?? "";
  const problems: Record<string, string> = {};
  const is = LESSONS.codes.find((one) => one === said("is")) ?? "tip";
  const text = said("text");
  const short = (key: string, most: number): string => {
    if (said(key).length > most) problems[key] = `At most ${most} letters.`;
    return said(key);
  };
  const name = short("name", 80);
  if ((is === "tool" || is === "weak-point") && name === "") problems.name = "Give it a name in a few words.";
  if (text.length < 2) problems.text = "Write it down in a line.";
  if (text.length > 500) problems.text = "At most 500 letters.";
  const [done, not] = [short("done", 200), short("not", 200)];
  const limits = is === "limit" ? limitsOf(given, book, problems) : {};
  if (Object.keys(problems).length > 0) return { ok: false, problems };
  const of = said("of");
  const photo = said("photo");
  const body: NextTime = {
    kind: "next-time",
    lesson: said("lesson") || fresh.slice(-8),
    there: said("there") !== "no",
    is,
    ...(of ? { of } : {}),
    name,
    text,
    done,
    not,
    torque: "",
    ...limits,
    ...(UUID.test(photo) ? { photo } : {}),
  };
  return { ok: true, body };
}

function limitsOf(
  given: Fields,
  book: Book,
  problems: Record<string, string>,
): Partial<Pick<NextTime, "min" | "max" | "torque">> {
  const group = book.fasteners?.find(({ id }) => id === given.of);
  const lengthUnit = given.unit === "mm" || given.unit === "in" ? given.unit : book.unit.lengthUnit;
  if (group) {
    const read = parseMeasure(
      given.torque ?? "",
      "torque",
      group.torque ? unitFor(group.torque, lengthUnit) : "N·m",
    );
    if (read.ok && Number(read.measure.figure) > 0)
      return { torque: `${read.measure.figure} ${read.measure.unit}` };
    problems.torque = read.ok ? "A torque is above zero." : `${read.problem}; ${read.remedy}`;
    return {};
  }
  if (!book.chains.some(({ id }) => id === given.of)) {
    problems.is = "A limit belongs to a figure: say it at that.";
    return {};
  }
  const limits: { min?: Nm; max?: Nm } = {};
  for (const end of ["min", "max"] as const) {
    const text = given[end] ?? "";
    if (text === "") continue;
    const read = parseLength(text, lengthUnit);
    if (read.ok) limits[end] = read.length;
    else problems[end] = `${read.problem}; ${read.remedy}`;
  }
  if (limits.min === undefined && limits.max === undefined && !problems.min && !problems.max)
    problems.min = "Give a min, a max, or both.";
  if (limits.min !== undefined && limits.max !== undefined && limits.min >= limits.max)
    problems.max = "The max is not above the min.";
  return limits;
}
