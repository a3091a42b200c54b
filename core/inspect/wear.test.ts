import { describe, expect, it, test } from "@jest/globals";
import { UNITS } from "../../demo/units";
import { books } from "../../demo/testing";
import { DEGREES, DRAWN, wearOf, wearsOf, type Drawn } from "./index";

const named = UNITS.flatMap((unit) => (books.get(unit)?.parts ?? []).flatMap((part) => wearsOf(part)));

describe("wear", () => {
  it("has words of its own for every kind the books name", () => {
    expect(new Set(named).size).toBeGreaterThan(100);
    expect([...new Set(named)].filter((name) => wearOf(name).looks === name)).toEqual([]);
  });

  test.each<[name: string, drawn: Drawn]>([
    ["burnt", "burnt"],
    ["glazed", "glazed"],
    ["heat spots", "spots"],
    ["worn to the groove bottom", "worn face"],
    ["lock-up lining loose", "worn face"],
    ["copper showing", "worn face"],
    ["hub worn", "step"],
    ["journal worn", "step"],
    ["worn lip", "step"],
    ["gap between elements", "step"],
    ["ring groove stepped", "scores"],
    ["polished band", "scores"],
    ["splines hammered", "notch"],
    ["lug slots notched", "notch"],
    ["ends rounded", "rounded"],
    ["dogs rounded", "rounded"],
    ["teeth stripped", "rounded"],
    ["flattened", "weak"],
    ["lip flat", "lip"],
    ["seal hard", "lip"],
    ["insulation hard", "crack"],
    ["bond torn", "crack"],
    ["cover flatness", "bent"],
    ["races brinelled", "pits"],
    ["springs weak", "weak"],
    ["rollers out", "loose"],
    ["lets go", "loose"],
    ["check ball stuck", "blocked"],
    ["drifts", "off"],
    ["resistance off", "off"],
    ["oil on a disc", "leak"],
    ["porous", "leak"],
  ])("%s is drawn as %s", (name, drawn) => {
    expect(wearOf(name).drawn).toBe(drawn);
  });

  it("says another thing at each severity of every drawing", () => {
    for (const drawn of DRAWN) expect(new Set(DEGREES[drawn]).size).toBe(3);
  });
});
