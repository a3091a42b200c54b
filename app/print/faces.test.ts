import { describe, expect, it, test } from "@jest/globals";
import PDFDocument from "pdfkit";
import { faceOf, registerFaces, type Weight } from "./faces";

const document = new PDFDocument();
registerFaces(document);
/** Whether a face has a drawing for a character; without one a box is printed. */
function draws(face: string, character: string): boolean {
  document.font(face);
  const { _font } = document as unknown as {
    _font: { font: { hasGlyphForCodePoint: (point: number) => boolean } };
  };
  return _font.font.hasGlyphForCodePoint(character.codePointAt(0) ?? 0);
}

describe.each(["plain", "bold"] as const)("what is printed %s", (weight: Weight) => {
  test.each([
    "5.0 to 5.8 Ω",
    "D1 drum’s clearance, 1.05 ± 0.02 mm — “too close”",
    "Łódź, Kraków, Győr, Plzeň, İzmir, Αθήνα, Київ",
    "≤ 3 × 10⁻³, 20 °C → 80 °C, ½ turn, ✓",
  ])("has a drawing for every character of %j", (text) => {
    const face = faceOf(text, weight);
    expect([...text].filter((character) => !draws(face, character))).toEqual([]);
  });
  it("keeps to the pages’ face wherever that draws what is to be printed", () => {
    const printable = Array.from({ length: 0x2213 }, (_, point) => String.fromCodePoint(point)).filter(
      (character) => /[\p{L}\p{N}\p{P}\p{S}]/u.test(character),
    );
    const own = printable.filter((character) => faceOf(character, weight) === weight);
    expect(own.length).toBeGreaterThan(180);
    expect(own.filter((character) => !draws(weight, character))).toEqual([]);
  });
});
