import { describe, expect, it, test } from "@jest/globals";
import { qrPath } from "~/look/qr";
import { codeIn, codeOf, targetOf, type Target } from "./code";
import { codeSeen } from "./seen";
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

describe("a camera", () => {
  /** A label as a camera sees it: 400 pixels wide, on a grey bench. */
  const seenAs = (text: string): Pick<ImageData, "data" | "width" | "height"> => {
    const { size, path } = qrPath(text);
    const dark = new Set(path.split(/[Mhvz]+/).filter((module) => module.includes(" ")));
    const [width, height, wide, edge] = [480, 440, 400, 20];
    const pixels = new Uint32Array(width * height).fill(0xffdddddd);
    for (let row = 0; row < size; row++)
      for (let column = 0; column < size; column++) {
        const [left, right] = [column, column + 1].map((n) => edge + Math.round((n * wide) / size));
        const [top = 0, bottom = 0] = [row, row + 1].map((n) => edge + Math.round((n * wide) / size));
        const shade = dark.has(`${column} ${row}`) ? 0xff000000 : 0xffffffff;
        for (let y = top; y < bottom; y++)
          pixels.fill(shade, y * width + (left ?? 0), y * width + (right ?? 0));
      }
    return { data: new Uint8ClampedArray(pixels.buffer), width, height };
  };
  // What a label says depends on the shop's address: one may be hard to read where the next is not.
  it("reads the labels of every shop", () => {
    for (let port = 1024; port < 65_536; port += 4001) {
      const text = `http://192.168.1.20:${port}/scan/YK-1029`;
      expect(codeSeen(seenAs(text))).toBe(text);
    }
  });
  it("sees nothing on an empty bench", () => {
    const data = new Uint8ClampedArray(100 * 80 * 4).fill(0xdd);
    expect(codeSeen({ data, width: 100, height: 80 })).toBeNull();
  });
});
