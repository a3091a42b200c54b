import { describe, expect, it, test } from "@jest/globals";
import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs";
import { labelsPdf, type Label } from "./labels-pdf";
import { placeOn, SHEETS } from "./sheets";

describe("label sheets", () => {
  test.each(SHEETS)("$name: every label lies on the sheet, none over another", (sheet) => {
    const perPage = sheet.columns * sheet.rows;
    const places = Array.from({ length: perPage }, (_, n) => placeOn(sheet, n, 0));
    for (const { page, x, y } of places) {
      expect(page).toBe(0);
      expect(x).toBeGreaterThanOrEqual(0);
      expect(x + sheet.labelWidth).toBeLessThanOrEqual(sheet.width + 0.01);
      expect(y + sheet.labelHeight).toBeLessThanOrEqual(sheet.height + 0.01);
    }
    places.forEach((a, i) =>
      places.slice(i + 1).forEach((b) => {
        const apart =
          Math.abs(a.x - b.x) >= sheet.labelWidth - 0.01 || Math.abs(a.y - b.y) >= sheet.labelHeight - 0.01;
        expect(apart).toBe(true);
      }),
    );
    expect(placeOn(sheet, perPage, 0).page).toBe(1);
  });

  it("goes on after the labels that are used already", () => {
    const [sheet] = SHEETS;
    expect(placeOn(sheet, 0, 4)).toEqual(placeOn(sheet, 4, 0));
    expect(placeOn(sheet, 1, 23)).toMatchObject({ page: 1 });
  });
});

it("prints words and codes of every label, on as many pages as are needed", async () => {
  const labels = Array.from({ length: 30 }, (_, i): Label => ({
    code: `YK-1030-t-bin-${i}`,
    url: `https://shop/scan/YK-1030-t-bin-${i}`,
    title: `Bin ${i}`,
    lines: ["bin, job 1030"],
  }));
  const pdf = await getDocument({ data: new Uint8Array(await labelsPdf(labels, SHEETS[0], 2)), verbosity: 0 })
    .promise;
  expect(pdf.numPages).toBe(2);
  const words = async (n: number): Promise<string> =>
    (await (await pdf.getPage(n)).getTextContent()).items
      .map((item) => ("str" in item ? item.str : ""))
      .join(" ");
  expect(await words(1)).toContain("YK-1030-t-bin-21");
  expect(await words(1)).not.toContain("YK-1030-t-bin-22");
  expect(await words(2)).toContain("Bin 29");
});
