import { describe, expect, it, test } from "@jest/globals";
import fc from "fast-check";
import { Ajv2020 } from "ajv/dist/2020.js";
import { bookOf } from "../../demo/units";
import { arbitraryOf } from "../testing/arbitrary";
import { nm } from "../quantity";
import { upcastBody } from "./upcast";
import {
  aboutOf,
  againstBook,
  checkFacts,
  DOCUMENT,
  jobSchema,
  kindOf,
  kindRows,
  KINDS,
  notAllowed,
  type Fact,
  type FactBody,
  type FactKind,
} from "./index";
import { samples } from "../testing/samples";

const NAMES = Object.keys(KINDS) as FactKind[];
const ID = "0190d3c0-0000-7000-8000-000000000001";
const said = (body: unknown): Fact => ({
  id: ID,
  at: "2026-05-04T08:00:00.000Z",
  by: "Mira K.",
  body: body as FactBody,
});
const bodyOf = (name: FactKind): fc.Arbitrary<Record<string, unknown>> =>
  arbitraryOf(kindOf(name).shape).map((body) => ({ kind: name, ...(body as object) }));
const check = (body: unknown) => checkFacts([said(body)], DOCUMENT);
const RUNS = { seed: 26, numRuns: samples(15) };

const schema = new Ajv2020({ strict: false, validateFormats: false }).compile(jobSchema());
const document = (body: unknown) => ({
  format: "yard-key/job@1",
  id: ID,
  number: 1,
  opened: "2026-05-04T08:00:00.000Z",
  book: {},
  facts: [said(body)],
});

describe.each(NAMES)("%s at the door", (name) => {
  it("is taken as its declaration has it, and is the same afterwards", () => {
    fc.assert(
      fc.property(bodyOf(name), (body) => {
        // What an earlier Yard Key said is turned into today's: that is held in its own test.
        fc.pre(upcastBody(body as FactBody) === body);
        expect(check(body)).toEqual({ ok: true, facts: [said(body)] });
        // The JSON Schema is another reader of the same declaration.
        expect([schema(document(body)), schema.errors]).toEqual([true, null]);
      }),
      RUNS,
    );
  });

  it("is refused with the place when a key is missing, wrong or too many", () => {
    const { properties = {}, required = [] } = shapeOf(name);
    fc.assert(
      fc.property(bodyOf(name), (body) => {
        for (const key of required) {
          const rest = Object.fromEntries(Object.entries(body).filter(([one]) => one !== key));
          expect(pathsOf(rest)).toContainEqual(expect.stringMatching(new RegExp(`^\\[0\\]\\.body\\.${key}`)));
        }
        for (const key of Object.keys(properties)) {
          const wrong = { ...body, [key]: Symbol.for("wrong") };
          expect(pathsOf(wrong)).toContainEqual(
            expect.stringMatching(new RegExp(`^\\[0\\]\\.body\\.${key}`)),
          );
        }
        expect(pathsOf({ ...body, gossip: 1 })).toContain("[0].body.gossip");
      }),
      { ...RUNS, numRuns: samples(4) },
    );
  });

  it("is refused where another of the same sending has its id, and is one where it comes twice", () => {
    fc.assert(
      fc.property(bodyOf(name), (body) => {
        const one = said(body);
        expect(checkFacts([one, { ...one }], DOCUMENT).ok).toBe(true);
        const read = checkFacts([one, { ...one, by: "Somebody Else" }], DOCUMENT, "facts");
        expect(read.ok ? [] : read.problems.map(({ path }) => path)).toContain("facts[1].id");
      }),
      { ...RUNS, numRuns: 3 },
    );
  });

  it("has a sentence, and is about what it says it is about", () => {
    fc.assert(
      fc.property(bodyOf(name), (body) => {
        const { sentence } = kindOf(name);
        expect(sentence(body, (id) => id)).toMatch(/\S/);
        for (const key of aboutOf(body as unknown as FactBody)) expect(typeof key).toBe("string");
      }),
      RUNS,
    );
  });
});

function shapeOf(name: FactKind): { properties?: object; required?: readonly string[] } {
  const row = kindRows().find(([first]) => first === `\`${name}\``);
  const fields = (row?.[2] ?? "").split(", ").filter(Boolean);
  const keys = fields.map((field) => field.replace(/[`?]/g, ""));
  return {
    properties: Object.fromEntries(keys.map((key) => [key, 1])),
    required: keys.filter((_, i) => !fields[i]?.endsWith("?")),
  };
}
const pathsOf = (body: unknown): string[] => {
  const read = check(body);
  return read.ok ? [] : read.problems.map(({ path }) => path);
};

describe("bench facts against the book of their job", () => {
  const book = bookOf("marram-dunlin");
  const astray = (body: FactBody) => againstBook([said(body)], book)[0];

  test.each<[string, FactBody, string, RegExp]>([
    [
      "a step",
      { kind: "step", step: "t-boddy", did: "done", reason: "" },
      ...(["[0].body.step", /^use one of: t-body/] as const),
    ],
    [
      "a part",
      { kind: "good", parts: ["d1-drum", "d1-frictin"] },
      ...(["[0].body.parts[1]", /^use one of: d1-friction/] as const),
    ],
    ["a depth", { kind: "scope", depths: ["ful"] }, "[0].body.depths[0]", /^use one of: full/],
    [
      "a chain",
      { kind: "fitting", seat: "d1-clearence", fit: 0, origin: "found", piece: { size: nm(1) } },
      ...(["[0].body.seat", /^use one of: d1-clearance/] as const),
    ],
    [
      "a trait",
      { kind: "configuration", traits: { bdy: "late" } },
      ...(["[0].body.traits.bdy", /^use one of: body/] as const),
    ],
    [
      "a value of a trait",
      { kind: "configuration", traits: { body: "lat" } },
      ...(["[0].body.traits.body", /^use one of: late/] as const),
    ],
    [
      "a value that JavaScript knows",
      { kind: "configuration", traits: { body: "constructor" } },
      ...(["[0].body.traits.body", /early|late/] as const),
    ],
    [
      "bolts of a length the group has not",
      { kind: "count", of: "bolts:body-bolts:1", found: 3 },
      ...(["[0].body.of", /bolts:body-bolts/] as const),
    ],
    [
      "a check",
      { kind: "check", step: "b-wash", check: "no-lint-lef", said: "yes", note: "" },
      ...(["[0].body.check", /^use one of: no-lint-left/] as const),
    ],
    [
      "a soak of another step",
      { kind: "timer", step: "b-wash", soak: "size-rings", did: "started" },
      ...(["[0].body.soak", /none yet/] as const),
    ],
    [
      "an element without a port",
      { kind: "air", element: "f1", result: "holds", how: "heard", note: "" },
      ...(["[0].body.element", /^use one of: d1/] as const),
    ],
    [
      "a round of a face",
      { kind: "tightened", group: "pump-bolts", round: "agin", places: [0], did: "tight" },
      ...(["[0].body.round", /part-1, full/] as const),
    ],
    [
      "a place of a face",
      { kind: "tightened", group: "pump-bolts", round: "full", places: [0, 7], did: "tight" },
      ...(["[0].body.places[1]", /below 7/] as const),
    ],
  ])("%s that does not exist is refused with its nearest neighbours", (_name, body, path, remedy) => {
    const problem = astray(body);
    expect(problem?.path).toBe(path);
    expect(problem?.remedy).toMatch(remedy);
  });

  it("what exists is taken, in whatever version it does", () => {
    const facts: FactBody[] = [
      ...book.parts.map(({ id }): FactBody => ({ kind: "good", parts: [id] })),
      ...book.chains.map(({ id }): FactBody => ({
        kind: "figure",
        of: "chain",
        id,
        phase: "found",
        text: "1 mm",
        note: "",
      })),
      ...(book.fasteners ?? []).map(({ id }): FactBody => ({
        kind: "lies",
        things: [`bolts:${id}`],
        place: "tray",
      })),
      { kind: "fitting", seat: "d1-clearance", fit: 0, origin: "found", piece: { size: nm(1_750_000) } },
    ];
    expect(againstBook(facts.map(said), book)).toEqual([]);
  });
});

describe("who may say it", () => {
  const wayOn = said({ kind: "way-on", way: "rebuild", reason: "hard parts are good" });
  const good = said({ kind: "good", parts: ["pan"] });
  it.each([
    ["builder", "way-on"],
    ["parts", "way-on"],
    ["lead", null],
    ["owner", null],
  ] as const)("a %s", (role, refused) => {
    expect(notAllowed([good, wayOn], role)).toBe(refused);
    expect(notAllowed([good], role)).toBeNull();
  });
});
