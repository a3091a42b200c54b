import { describe, expect, it, test } from "@jest/globals";
import { bookOf, UNITS } from "../../demo/units";
import { DRAWN, LOOKS, WEAR, wearKind, type Drawn } from "../book";
import { DEGREES, wearsOf } from "./index";

const named = UNITS.flatMap((unit) => bookOf(unit).parts.flatMap((part) => wearsOf(part)));

describe("wear", () => {
  it("has words of its own for every kind the books name", () => {
    expect(new Set(named).size).toBeGreaterThan(100);
    expect([...new Set(named)].filter((id) => !wearKind({}, id).look.looks)).toEqual([]);
  });

  test.each<[name: string, drawn: Drawn]>([
    ["burnt", "burnt"],
    ["glazed", "glazed"],
    ["heat-spots", "spots"],
    ["worn-to-the-groove-bottom", "worn face"],
    ["lock-up-lining-loose", "worn face"],
    ["copper-showing", "worn face"],
    ["hub-worn", "step"],
    ["journal-worn", "step"],
    ["worn-lip", "step"],
    ["gap-between-elements", "step"],
    ["ring-groove-stepped", "scores"],
    ["polished-band", "scores"],
    ["splines-hammered", "notch"],
    ["lug-slots-notched", "notch"],
    ["ends-rounded", "rounded"],
    ["dogs-rounded", "rounded"],
    ["teeth-stripped", "rounded"],
    ["flattened", "weak"],
    ["lip-flat", "lip"],
    ["seal-hard", "lip"],
    ["insulation-hard", "crack"],
    ["bond-torn", "crack"],
    ["cover-flatness", "bent"],
    ["races-brinelled", "pits"],
    ["springs-weak", "weak"],
    ["rollers-out", "loose"],
    ["lets-go", "loose"],
    ["check-ball-stuck", "blocked"],
    ["drifts", "off"],
    ["resistance-off", "off"],
    ["oil-on-a-disc", "leak"],
    ["porous", "leak"],
  ])("%s is drawn as %s", (name, drawn) => {
    expect(wearKind({}, name).look.drawn).toBe(drawn);
  });

  it("a book's own kind counts as the one it is like, and one nobody knows is told plainly", () => {
    const wears = [
      { id: "cracked-at-the-rib", name: "cracked at the rib", look: "cracked", like: "cracked" } as const,
    ];
    expect(wearKind({ wears: [...wears] }, "cracked-at-the-rib")).toMatchObject({
      as: "cracked",
      name: "cracked at the rib",
      breaks: true,
    });
    expect(wearKind({}, "never-heard-of")).toMatchObject({ name: "never heard of", as: "never-heard-of" });
  });

  it("every kind has a look, and every look a drawing", () => {
    for (const { look } of Object.values(WEAR)) expect(LOOKS[look].drawn).toBeDefined();
  });

  it("says another thing at each severity of every drawing", () => {
    for (const drawn of DRAWN) expect(new Set(DEGREES[drawn]).size).toBe(3);
  });
});
