import { expect, it } from "@jest/globals";
import { draw } from "./paper";

it("a sheet is kept for years: PDF/A-2b, with every face it is written in", async () => {
  const pdf = await draw({
    title: "For the customer · job 1030",
    shop: "Tern Street Gearbox Works",
    facts: [["Vehicle", "Skerry"]],
    told: [["Found", "0.5 µm, Ω, ł"]],
    columns: [{ words: "Figure", part: 1 }],
    lines: [["1.10 ± 0.02 mm"]],
    foot: "made up",
  });
  const text = pdf.toString("latin1");
  expect(text).toMatch(/^%PDF-1\.7/);
  expect(text).toMatch(/<pdfaid:part>2<\/pdfaid:part>\s*<pdfaid:conformance>B</);
  expect(text).toContain("/OutputIntent");
  expect(text).not.toMatch(/Helvetica|Times-|Courier/);
});
