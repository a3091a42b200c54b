import { describe, expect, it, test } from "@jest/globals";
import { Ajv2020 } from "ajv/dist/2020.js";
import fc from "fast-check";
import {
  check,
  flag,
  id,
  jsonSchemaOf,
  list,
  map,
  names,
  number,
  object,
  oneOf,
  oneOrMore,
  optional,
  refersTo,
  text,
  tuple,
  whole,
  written,
  type Problem,
  type Shape,
} from "./index";

const read = (shape: Shape<unknown>, value: unknown): { problems: Problem[]; loose: Problem[] } => {
  const { problems, gathered } = check(shape, value, "here");
  return { problems, loose: [...gathered.twice, ...gathered.astray()] };
};

const SHAPES: [string, Shape<unknown>][] = [
  ["text", text],
  ["id", id],
  ["whole", whole(1, 9)],
  ["number", number(-1, 1)],
  ["flag", flag],
  ["one of", oneOf("steel", "friction")],
  ["list", list(whole(0, 5))],
  ["list that is not empty", list(id, 1)],
  ["one or more", oneOrMore(id)],
  ["tuple", tuple([id, whole(5, 200)])],
  ["tuple with an end that may miss", tuple([id, id, whole(0, 9)], 2)],
  ["map", map(flag)],
  ["object", object({ id, count: optional(whole(1, 3)) })],
  ["nested", object({ rows: list(object({ at: tuple([whole(0, 9), whole(0, 9)]) })) })],
];

/** Values that come near enough to be taken now and then. */
const near = fc.oneof(
  fc.jsonValue({ maxDepth: 3 }),
  fc.constantFrom<unknown>(
    "steel",
    "d1",
    "a-b",
    "A",
    1,
    5,
    9,
    0.5,
    true,
    [],
    [1],
    ["d1"],
    ["d1", 7],
    ["d1", "d2", 3],
    {},
  ),
  fc.constantFrom<unknown>(
    { id: "d1" },
    { id: "d1", count: 2 },
    { id: "d1", colour: 1 },
    { on: true },
    { rows: [{ at: [1, 2] }] },
  ),
);

describe("a shape and its JSON Schema", () => {
  test.each(SHAPES)("%s: what the one takes the other takes, and refuses alike", (_name, shape) => {
    const valid = new Ajv2020({ strict: false }).compile(jsonSchemaOf(shape));
    let taken = 0;
    fc.assert(
      fc.property(near, (value) => {
        const { problems } = read(shape, value);
        // Words of blanks alone are the one thing the schema cannot say.
        if (JSON.stringify(value)?.match(/"\s+"/)) return;
        if (problems.length === 0) taken++;
        expect([value, problems.length === 0]).toEqual([value, valid(value)]);
      }),
      { seed: 19, numRuns: 400 },
    );
    expect(taken).toBeGreaterThan(0);
  });
});

describe("what is gathered on the way", () => {
  const book = object({
    parts: list(object({ id: names("part") })),
    steps: list(refersTo(["part", "tool"])),
  });

  it("a name twice, told at the second with the place of the first", () => {
    const { loose } = read(book, { parts: [{ id: "pan" }, { id: "pan" }], steps: [] });
    expect(loose).toEqual([
      expect.objectContaining({
        path: "here.parts[1].id",
        remedy: expect.stringContaining("here.parts[0].id") as unknown,
      }),
    ]);
  });

  it("a reference that leads nowhere, with the nearest names first", () => {
    const { loose } = read(book, {
      parts: [{ id: "body" }, { id: "pan-gasket" }, { id: "pan" }],
      steps: ["pam"],
    });
    expect(loose[0]?.message).toBe('no part or tool "pam"');
    expect(loose[0]?.remedy).toBe("use one of: pan, pan-gasket, body");
  });

  it("nothing of what could not be read", () => {
    expect(read(book, { parts: [{ id: "Pan" }], steps: ["Pan"] }).loose).toEqual([]);
  });
});

describe("values with a unit", () => {
  const shape = written((value) => {
    if (!value.endsWith(" mm")) throw new RangeError(`${value} has no unit`);
    return value;
  }, "1.80 mm");

  test.each([
    [1.8, "expected a text with its unit, got 1.8"],
    ["1.8", "1.8 has no unit"],
    [null, "expected a text with its unit, got null"],
  ])("%p is refused with what to write", (value, message) => {
    expect(read(shape, value).problems).toEqual([{ path: "here", message, remedy: 'write it as "1.80 mm"' }]);
  });
});
