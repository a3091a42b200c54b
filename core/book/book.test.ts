import { describe, expect, it, test } from "@jest/globals";
import fc from "fast-check";
import { bookOf } from "../../demo/units";
import { dunlin, dunlinDocument } from "../testing/dunlin";
import { resolve, undecidedBy } from "./index";
import { readBook } from "../check";
import { samples } from "../testing/samples";

type Path = (string | number)[];

/** A copy of the document with one place changed; `undefined` takes it out. */
function mutated(path: Path, value: unknown): unknown {
  const copy: unknown = structuredClone(dunlinDocument());
  let at = copy as Record<string | number, unknown>;
  for (const step of path.slice(0, -1)) at = at[step] as Record<string | number, unknown>;
  const last = path.at(-1) ?? "";
  if (value === undefined) delete at[last];
  else at[last] = value;
  return copy;
}

const problemsOf = (document: unknown) => {
  const read = readBook(document);
  return read.ok ? [] : read.problems;
};

describe("checking a book", () => {
  it("takes a good one", () => {
    expect(problemsOf(dunlinDocument())).toEqual([]);
  });

  test.each<[string, Path, unknown, string]>([
    [
      "a thickness without a unit",
      ["packs", 0, "stack", 0, "thickness"],
      "1.8",
      'has no unit; write "1.8 mm"',
    ],
    ["a thickness as a number", ["packs", 0, "stack", 0, "thickness"], 1.8, "expected a text with its unit"],
    ["an unknown key", ["packs", 0, "colour"], "red", "unknown key"],
    ["a missing name", ["packs", 0, "name"], undefined, "expected words, got nothing"],
    ["an unknown role", ["packs", 0, "stack", 1, "role"], "stell", "is not known here"],
    ["an id with capitals", ["stations", 0, "id"], "Drum", "is not an id"],
    ["a station that is not there", ["packs", 0, "station"], "tail", 'no station "tail"'],
    ["a series that is not there", ["chains", 0, "links", 2, 2], "ring-z", 'no series "ring-z"'],
    ["a pack that is not there", ["chains", 0, "of"], "d9", 'no pack "d9"'],
    ["a member that is not there", ["elements", 0, "joins", 1], "moon", 'no member "moon"'],
    ["an element in a range that is not there", ["ranges", 0, "applied", 0], "d7", 'no element "d7"'],
    ["a trait that is not there", ["packs", 0, "stack", 1, "when"], { year: "2001" }, 'no trait "year"'],
    [
      "a value the trait has not",
      ["packs", 0, "stack", 1, "when"],
      { body: "middle" },
      'has no value "middle"',
    ],
    ["a depth that is not there", ["packs", 0, "depth", 0], "tail", 'no depth "tail"'],
    ["an id twice", ["chains", 1, "id"], "d1-clearance", "stands twice"],
    ["limits the wrong way round", ["chains", 0, "spec", "max"], "1.00 mm", "max is not above min"],
    ["sizes that fall", ["series", 0, "sizes", 2, "size"], "1.70 mm", "sizes do not rise"],
    ["a station that ends before it begins", ["stations", 0, "to"], 10, "ends where it begins"],
    ["a count of nothing", ["packs", 0, "stack", 1, "count"], 0, "expected a whole number"],
    ["a wrong link", ["chains", 0, "links", 0], ["+", "measured"], "expected 4 values"],
    ["another format", ["format"], "yard-key/book@2", "is not known here"],
    ["no list", ["packs"], {}, "expected a list"],
    ["no object", ["unit"], "dunlin", "expected { }"],
  ])("%s", (_name, path, value, message) => {
    const problems = problemsOf(mutated(path, value));
    const place = path
      .map((step, i) => (typeof step === "number" ? `[${step}]` : i === 0 ? step : `.${step}`))
      .join("");
    const told = problems.find((problem) => problem.message.includes(message));
    expect(told).toBeDefined();
    expect(place.startsWith(told?.path ?? "?") || (told?.path ?? "").startsWith(place)).toBe(true);
    expect(told?.remedy).not.toBe("");
  });

  it("tells every problem at once", () => {
    const document = dunlinDocument();
    document.packs[0]!.name = "";
    document.chains[0]!.spec.min = "wide";
    document.series[0]!.tolerance = "0.015";
    expect(problemsOf(document)).toHaveLength(3);
  });

  it("never throws, whatever it is given", () => {
    fc.assert(
      fc.property(fc.jsonValue(), (value) => expect(Array.isArray(problemsOf(value))).toBe(true)),
      { seed: 1, numRuns: samples(150) },
    );
    const places: Path[] = [
      ["unit"],
      ["packs", 0],
      ["packs", 0, "stack"],
      ["chains", 0, "links"],
      ["series", 0, "sizes"],
      ["traits", 0, "values"],
    ];
    fc.assert(
      fc.property(fc.constantFrom(...places), fc.jsonValue(), (path, value) => {
        problemsOf(mutated(path, value));
      }),
      { seed: 2, numRuns: samples(150) },
    );
  });
});

describe("resolving configuration and scope", () => {
  const chainOf = (configuration: Record<string, string>, depth: string) =>
    resolve(dunlin(), configuration, [depth]).packs[0];

  it("takes the plates of the body that was seen", () => {
    expect(chainOf({ body: "early" }, "full")?.stack.find(({ role }) => role === "steel")?.count).toBe(3);
    expect(chainOf({ body: "late" }, "full")?.stack.find(({ role }) => role === "steel")?.count).toBe(4);
  });

  it("leaves out nothing that depends on a trait nobody has seen, and judges nothing that hangs on it", () => {
    const { present, unstated, unseen, packs } = resolve(bookOf("marram-dunlin"), { body: "late" }, ["full"]);
    expect(unseen.map(({ id }) => id)).toEqual(["plate"]);
    const [one, two] = ["one", "two"].map(
      (plate) => resolve(bookOf("marram-dunlin"), { body: "late", plate }, ["full"]).present,
    );
    const ids = (list: readonly { id: string }[] = []): string[] => list.map(({ id }) => id);
    for (const section of ["parts", "teardown", "weakPoints", "checkBalls", "fasteners"] as const)
      expect(new Set(ids(present[section]))).toEqual(
        new Set([...ids(one?.[section]), ...ids(two?.[section])]),
      );
    const undecided = present.teardown?.filter((step) => undecidedBy(step, { unseen }).length > 0) ?? [];
    expect(undecided.length).toBeGreaterThan(0);
    // Plates of two versions are no stack: the pack waits for the body to be seen.
    const blind = resolve(bookOf("marram-dunlin"), {}, ["full"]);
    expect(blind.unstated.map(({ id }) => id)).toContain("d1-clearance");
    expect(blind.packs.map(({ chain }) => chain.id)).not.toContain("d1-clearance");
    expect(packs.map(({ chain }) => chain.id)).toContain("d1-clearance");
    expect(unstated).toEqual([]);
  });

  it("keeps what is out of scope, marked so", () => {
    expect(chainOf({ body: "late" }, "full")?.inScope).toBe(true);
    expect(chainOf({ body: "late" }, "pan and body")?.inScope).toBe(false);
  });

  it("finds spec, series and allowances of a chain, and none where there is none", () => {
    const [d1, h1] = resolve(dunlin(), { body: "late" }, ["full"]).packs;
    expect(d1?.spec).toEqual({
      min: 1_050_000,
      max: 1_400_000,
      state: { soak: "soaked", facings: "new", wave: "free" },
    });
    expect(d1?.seats.map(({ id, kind, sizes }) => [id, kind, sizes.length])).toEqual([
      ["d1-clearance", "snap ring", 4],
    ]);
    expect(d1?.allowances.wave?.amount).toBe(350_000);
    expect(h1?.seats).toEqual([]);
    expect(h1?.allowances).toEqual({ soaking: undefined, bedding: undefined, wave: undefined });
  });
});
