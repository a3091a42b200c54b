import { expect, it, test } from "@jest/globals";
import { at, changed, pathOf, pathText } from "./edit";

const document = { chains: [{ spec: { max: "1 mm" } }, { spec: { max: "2 mm" } }], name: "x" };

test.each(["chains[2].spec.max", "chains[0]", "unit.id", "packs[1].stack[3].when.body"])(
  "%s there and back",
  (text) => {
    expect(pathText(pathOf(text))).toBe(text);
  },
);

it("reads a place, and nothing where nothing is", () => {
  expect(at(document, ["chains", 1, "spec", "max"])).toBe("2 mm");
  expect(at(document, ["chains", 7, "spec", "max"])).toBeUndefined();
});

it("changes one place and shares the rest", () => {
  const after = changed(document, ["chains", 1, "spec", "max"], "3 mm") as typeof document;
  expect(after.chains[1]?.spec.max).toBe("3 mm");
  expect(after.chains[0]).toBe(document.chains[0]);
  expect(document.chains[1]?.spec.max).toBe("2 mm");
});

it("takes a key or an entry out, and makes what was not there", () => {
  expect(changed(document, ["name"], undefined)).toEqual({ chains: document.chains });
  expect((changed(document, ["chains", 0], undefined) as typeof document).chains).toEqual([
    document.chains[1],
  ]);
  expect(changed({}, ["soaking", "amount"], "-0.06 mm")).toEqual({ soaking: { amount: "-0.06 mm" } });
});
