import { describe, expect, it, test } from "@jest/globals";
import fc from "fast-check";
import { arbitraryOf } from "../testing/arbitrary";
import { KINDS } from "../fact";
import { declared } from "../fact/form";
import { moneyOf } from "../quantity";
import {
  BETWEEN,
  check,
  field,
  fits,
  flag,
  id,
  list,
  listOnce,
  matching,
  maybeWords,
  number,
  oneOf,
  orNothing,
  readFields,
  suchThat,
  uuid,
  whole,
  words,
  written,
  type Shape,
} from "./index";
import { ofKey } from "./shape";
import { samples } from "../testing/samples";

/** Every shape that a field can be, and those of the fields of facts. */
const FLAT: [string, Shape<unknown>][] = [
  ["words", words(2, 12)],
  ["words that may be empty", maybeWords(5)],
  ["an id", id],
  ["an id of ours", uuid],
  ["a pattern", matching(/^[a-c]{2,4}$/, "abc", "abc")],
  ["a whole number", whole(-3, 12)],
  ["a number", number(0, 2)],
  ["a flag", flag],
  ["one of words", oneOf("mm", "in")],
  ["one of numbers", oneOf(1, -1)],
  ["or nothing", orNothing(whole(0, 3))],
  ["a list", list(oneOf("hot", "cold"), 0, 2)],
  ["a list with each once", listOnce(oneOf("hot", "cold"), 1)],
  ["an amount of money", written(moneyOf, "12.50")],
  ["with a rule", suchThat(whole(0, 9), { test: (n) => n % 2 === 0, message: "odd", remedy: "even" })],
  ...Object.entries(KINDS).flatMap(([kind, { shape }]) =>
    Object.entries(declared(shape as Shape<unknown>).keys).map(([key, of]): [string, Shape<unknown>] => [
      `${kind}.${key}`,
      ofKey(of)[0],
    ]),
  ),
].filter(([, shape]) => isField(shape as Shape<unknown>)) as [string, Shape<unknown>][];

function isField(shape: Shape<unknown>): boolean {
  try {
    fits(shape, []);
    fits(shape, [""]);
    return true;
  } catch {
    return false;
  }
}

it("is held for nearly every field of every fact: what is left out is no single field", () => {
  const fields = Object.values(KINDS).flatMap(({ shape }) =>
    Object.keys(declared(shape as Shape<unknown>).keys),
  );
  expect(FLAT.length - 15).toBeGreaterThan(fields.length * 0.85);
});

test.each(FLAT)("%s: a page takes what the checker takes, and nothing else", (_name, shape) => {
  const near = fc.oneof(
    fc.constantFrom<unknown>(
      "",
      " ",
      "a",
      "ab",
      "abc",
      "hot",
      "mm",
      "1",
      "12.5",
      "\0x",
      0,
      1,
      2,
      12,
      1.5,
      -1,
    ),
    fc.constantFrom<unknown>(true, false, null, [], ["hot"], ["hot", "hot"], ["hot", "cold"], [1], NaN),
    fc.string({ maxLength: 14 }),
    fc.integer({ min: -5, max: 15 }),
    shape.is.kind === "written" ? fc.constantFrom("12.50", "1e3") : arbitraryOf(shape),
  );
  fc.assert(
    fc.property(near, (value) => {
      const { value: read, problems } = check(shape, value);
      const held = fits(shape, value);
      expect(held !== null).toBe(problems.length === 0);
      if (held) expect(held.value).toEqual(read);
    }),
    { seed: 7, numRuns: samples(40) },
  );
});

describe("the fields of a form", () => {
  const form = {
    name: field(words(2, 20), "Write a name."),
    count: field(whole(1, 99), "Write how many."),
    hours: field(number(0, 500)),
    when: field(list(oneOf("hot", "cold"))),
    there: field(flag, "", { empty: true }),
    pin: field(matching(/^.{4,9}$/, "a PIN", "four digits"), "", { asTyped: true }),
  };
  const good = { name: " drum ", count: "12", hours: "7,5", when: `hot${BETWEEN}cold`, pin: " 12 " };

  it("are read as what their shapes are written as", () => {
    expect(readFields(form, good)).toEqual({
      ok: true,
      values: { name: "drum", count: 12, hours: 7.5, when: ["hot", "cold"], there: true, pin: " 12 " },
    });
  });
  it.each([
    ["name", "x", "Write a name."],
    ["count", "1.5", "Write how many."],
    ["count", "0x10", "Write how many."],
    ["count", "", "Write how many."],
    ["hours", "many", 'expected a number, got "many"; write one from 0 to 500'],
    ["hours", "1e9", 'expected a number, got "1e9"; write one from 0 to 500'],
    ["there", "perhaps", 'expected true or false, got "perhaps"; write true or false, without quotes'],
    ["pin", "123", '"123" is not a PIN; four digits'],
  ])("%s %p is told at its field alone", (name, typed, says) => {
    expect(readFields(form, { ...good, [name]: typed })).toEqual({ ok: false, problems: { [name]: says } });
  });
  it("that are not there are not those of every object", () => {
    expect(readFields({ constructor: field(words(1, 5), "Say it.") }, {})).toEqual({
      ok: false,
      problems: { constructor: "Say it." },
    });
  });
});
