import { describe, expect, it, test } from "@jest/globals";
import { codeIn, codeOf, targetOf, type Target } from "./code";
import { Wedge } from "./wedge";

describe("codes", () => {
  const targets: Target[] = [
    { kind: "case", job: 1030 },
    { kind: "place", job: 1030, place: "front-tray" },
    { kind: "part", job: 7, part: "d1-piston" },
    { kind: "part", job: 7, part: "t-bar" },
    { kind: "sub", job: 1030, sub: "direction-clutches" },
  ];
  test.each(targets)("of $kind reads back as it was", (target) => {
    expect(targetOf(codeOf(target))).toEqual(target);
    expect(codeIn(`https://192.168.1.20:4343/scan/${codeOf(target)}`)).toBe(codeOf(target));
    expect(codeIn(`  ${codeOf(target)}\n`)).toBe(codeOf(target));
  });
  test.each([
    "",
    "YK-",
    "YK-x",
    "1030",
    "YK-1030-q-x",
    "YK-1030-t-",
    "https://elsewhere/jobs/1030",
    "YK-1030/../../house",
  ])("refuses %j", (text) => expect(codeIn(text)).toBeNull());
});

describe("a scanner that types", () => {
  const typed = (text: string, every: number, from = 0): [string, number][] => [
    ...[...text].map((key, i): [string, number] => [key, from + i * every]),
    ["Enter", from + text.length * every],
  ];
  const codes = (keys: [string, number][]): string[] => {
    const wedge = new Wedge();
    return keys.flatMap(([key, at]) => wedge.key(key, at) ?? []);
  };
  it("is known by its speed", () => {
    expect(codes(typed("YK-1030", 5))).toEqual(["YK-1030"]);
    expect(codes(typed("http://127.0.0.1:4310/scan/YK-1030-t-bin-2", 12))).toEqual(["YK-1030-t-bin-2"]);
  });
  it("is not a hand that types a code, nor a gauge that types a reading", () => {
    expect(codes(typed("YK-1030", 120))).toEqual([]);
    expect(codes(typed("1.234", 5))).toEqual([]);
  });
  it("is found after slow typing, with Shift between its keys, and twice in a row", () => {
    const shifted = typed("YK-1030", 8, 1000).flatMap(([key, at]): [string, number][] => [
      ["Shift", at - 3],
      [key, at],
    ]);
    expect(codes([["a", 0], ["b", 300], ...shifted, ...typed("YK-7", 5, 3000)])).toEqual(["YK-1030", "YK-7"]);
  });
});
