import { describe, expect, it, test } from "@jest/globals";
import type { SeatLink, StackEntry } from "../book";
import { nm } from "../quantity";
import { astray } from "./index";

const um = (value: number) => nm(value * 1_000);
const size = (mark: string, value: number) => ({ mark, size: um(value), part: `R-${mark}` });
const LINK: Pick<SeatLink, "id" | "name" | "kind" | "sign" | "sizes"> = {
  id: "ring",
  name: "ring",
  kind: "snap ring",
  sign: -1,
  sizes: [size("A", 2_400), size("B", 2_600), size("C", 2_800), size("D", 3_000)],
};
const STACK = [
  { role: "piston", thickness: um(12_000) },
  { role: "steel", thickness: um(1_800) },
  { role: "friction", thickness: um(2_100) },
] as unknown as StackEntry[];
const D = { mark: "D", size: um(3_000) };
const predicted = { mean: um(1_087), expanded: um(33) };
const told = (mean: number, expanded = 20) =>
  astray(predicted, { mean: um(mean), expanded: um(expanded) }, [{ link: LINK, fitted: D }], STACK);

describe("a figure that is not what was predicted", () => {
  test.each([
    ["as predicted", 1_087, null],
    ["within what both are unsure of", 1_125, null],
    ["just beyond", 1_127, undefined],
  ])("%s", (_name, mean, expected) => {
    if (expected === null) expect(told(mean)).toBeNull();
    else expect(told(mean)).toMatchObject({ off: um(mean - 1_087) });
  });

  it("names the size that would have given it, whichever way it is off", () => {
    expect(told(1_287)?.meant?.mark).toBe("C");
    expect(told(1_487)?.meant?.mark).toBe("B");
    expect(told(1_190)?.meant).toBeNull();
    const c = { mark: "C", size: um(2_800) };
    const tight = astray(predicted, { mean: um(887), expanded: um(20) }, [{ link: LINK, fitted: c }], STACK);
    expect([tight?.meant?.mark, tight?.off]).toEqual(["D", um(-200)]);
  });

  it("names another pack’s ring that goes into this groove too", () => {
    const others = [{ name: "drum ring", sizes: [size("one", 2_350), size("two", 2_500)] }];
    const among = (mean: number) =>
      astray(predicted, { mean: um(mean), expanded: um(20) }, [{ link: LINK, fitted: D }], STACK, others);
    expect(among(1_737)?.stranger).toMatchObject({ series: "drum ring", size: { mark: "one" } });
    expect(among(1_587)?.stranger).toMatchObject({ size: { mark: "two" } });
    expect(among(1_287)?.stranger).toBeNull();
    expect(told(1_737)?.stranger).toBeNull();
  });

  it("names a plate that is missing or too many", () => {
    expect(told(2_887)?.plate).toEqual({ role: "steel", missing: true });
    expect(told(-1_013)?.plate).toEqual({ role: "friction", missing: false });
    expect(told(1_287)?.plate).toBeNull();
  });

  it("says so too where nobody knows which piece is in", () => {
    const found = astray(
      predicted,
      { mean: um(1_287), expanded: um(20) },
      [{ link: LINK, fitted: null }],
      STACK,
    );
    expect(found).toMatchObject({ off: um(200), meant: null });
  });
});
