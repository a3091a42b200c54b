import { expect, test } from "@jest/globals";
import { nm } from "~core/quantity";
import type { Verdict } from "~core/reading";
import { readLook } from "./look-cookie";
import { adviceWords, markOf, verdictWords } from "./mark";
import { skipTabChanges } from "./revalidate";

test.each<[Verdict, string, string, string]>([
  [{ kind: "inside", margin: nm(120_000) }, "inside", "Inside", "0.120 mm from the nearer limit."],
  [
    { kind: "outside", side: "tight", by: nm(41_000) },
    "tight",
    "Outside, tight by 0.041 mm",
    "A thinner ring opens it.",
  ],
  [
    { kind: "outside", side: "loose", by: nm(41_000) },
    "loose",
    "Outside, loose by 0.041 mm",
    "A thicker ring closes it.",
  ],
  [
    { kind: "too few", more: 1 },
    "too few",
    "Too few readings",
    "1 more reading; turn the drum between them.",
  ],
  [
    { kind: "too close", limit: "max", advice: { kind: "read again", more: 3 } },
    "too close",
    "Too close to call",
    "Near the max. Turn the drum and take 3 more.",
  ],
  [
    { kind: "too close", limit: "min", advice: { kind: "finer gauge or other part" } },
    "too close",
    "Too close to call",
    "More readings will not settle it",
  ],
  [{ kind: "creeping" }, "creeping", "Still creeping", "read on until it stands"],
])("%j is said as it is drawn", (verdict, mark, words, advice) => {
  expect(markOf(verdict)).toBe(mark);
  expect(verdictWords(verdict, "mm")).toBe(words);
  expect(adviceWords(verdict, "mm")).toContain(advice);
});

test("the look is read from cookies, and nonsense in them is no look", () => {
  expect(readLook("yard-key=abc; look-theme=lamp; look-unit=in")).toEqual({ theme: "lamp", unit: "in" });
  expect(readLook("look-theme=neon; look-unit=furlong")).toEqual({});
  expect(readLook(null)).toEqual({});
});

test.each([
  ["another tab of the page", "?show=trial", undefined, undefined, false],
  ["the same place again", "?show=found", undefined, undefined, true],
  ["after sending a form", "?show=built", "POST", 200, true],
  ["after a refusal because another was quicker", "?show=found", "POST", 409, true],
] as const)("%s", (_name, search, formMethod, actionStatus, expected) => {
  const at = (query: string): URL => new URL(`http://shop/jobs/1/choose/d1${query}`);
  const args = {
    currentUrl: at("?show=found"),
    nextUrl: at(search),
    formMethod,
    actionStatus,
    defaultShouldRevalidate: true,
  };
  expect(skipTabChanges(args as never)).toBe(expected);
});
