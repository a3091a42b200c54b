import { expect, it, test } from "@jest/globals";
import { STAGES, type Next } from "~core/stage";
import { pagesOf, placeOf, stageOf } from "./stages";

const next = (what: Next["what"], stage: Next["stage"], of = "x"): Next => ({
  what,
  stage,
  subject: of,
  name: "",
  words: "",
});

test.each([
  [next("symptoms", "book in", ""), "symptoms"],
  [next("figure", "book in"), "before"],
  [next("figure", "measure"), "measure#row-x"],
  [next("figure", "choose"), "choose/x"],
  [next("pack", "choose"), "choose/x"],
  [next("part", "inspect"), "inspect?part=x"],
  [next("renew", "parts"), "parts"],
  [next("step", "take down"), "teardown?step=x"],
  [next("close", "hand over", ""), "sheet"],
] as const)("the next thing %o is done at %s", (one, place) => {
  expect(placeOf(one)).toBe(place);
  // It is done in the stage that counts it as open.
  expect(stageOf(place.split(/[?#]/)[0] ?? "")).toBe(one.stage);
});

it("every page belongs to one stage", () => {
  const all = STAGES.flatMap((id) => pagesOf(id).map(({ path }) => path));
  expect(new Set(all).size).toBe(all.length);
});
