import { createRequire } from "node:module";
import PDFDocument from "pdfkit";

const MARGIN = 40;

/** A sheet of paper: facts, what was told, and one table. */
export interface Sheet {
  title: string;
  shop: string;
  facts: [string, string][];
  told: [string, string][];
  columns: readonly { words: string; part: number }[];
  lines: readonly (readonly string[])[];
  foot: string;
}

const font = (weight: 400 | 700): string =>
  createRequire(import.meta.url).resolve(
    `@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${weight}-normal.woff`,
  );

/** @returns the sheet as a PDF; a table longer than a page goes on over its heading on the next. */
export function draw({ title, shop, facts, told, columns, lines, foot }: Sheet): Promise<Buffer> {
  const document = new PDFDocument({
    size: "A4",
    margin: MARGIN,
    info: { Title: title, Author: "Yard Key" },
  });
  const chunks: Buffer[] = [];
  const done = new Promise<Buffer>((finish, fail) => {
    document.on("data", (chunk: Buffer) => chunks.push(chunk));
    document.on("end", () => finish(Buffer.concat(chunks)));
    document.on("error", fail);
  });
  document.registerFont("plain", font(400)).registerFont("bold", font(700));
  // Letter is 50 points shorter than A4 and 17 wider: keep within both.
  const width = document.page.width - 2 * MARGIN;
  const bottom = 792 - MARGIN;

  document.font("bold").fontSize(17).text(title, MARGIN, MARGIN);
  document
    .font("plain")
    .fontSize(10)
    .text(shop, MARGIN, MARGIN + 5, { width, align: "right" });
  let y = MARGIN + 34;
  facts.forEach(([name, value], i) => {
    const x = MARGIN + (i % 2) * (width / 2);
    document.font("plain").fontSize(9).text(name, x, y, { width: 55 });
    document.font("bold").text(value, x + 58, y, { width: width / 2 - 64 });
    if (i % 2 === 1) y += Math.max(15, document.heightOfString(value, { width: width / 2 - 64 }) + 3);
  });
  y += 8;
  for (const [name, value] of told) {
    // A customer can say a great deal: what does not fit one page is in the job itself.
    const text = value.length > 400 ? `${value.slice(0, 400)} …` : value;
    document.font("plain").fontSize(9).text(name, MARGIN, y, { width: 85 });
    document.font("bold").text(text, MARGIN + 88, y, { width: width - 88 });
    y += document.heightOfString(text, { width: width - 88 }) + 3;
  }
  y += 10;
  const heading = (): void =>
    row(
      columns.map(({ words }) => words),
      true,
    );
  const row = (cells: readonly string[], bold: boolean): void => {
    document.font(bold ? "bold" : "plain").fontSize(8.5);
    const widths = columns.map(({ part }) => part * width);
    const height = Math.max(
      ...cells.map((cell, i) => document.heightOfString(cell, { width: (widths[i] ?? 0) - 6 })),
    );
    if (y + height + 12 > bottom) {
      document.addPage();
      y = MARGIN;
      if (!bold) heading();
      document.font(bold ? "bold" : "plain").fontSize(8.5);
    }
    let x = MARGIN;
    cells.forEach((cell, i) => {
      document.text(cell, x, y, { width: (widths[i] ?? 0) - 6 });
      x += widths[i] ?? 0;
    });
    y += height + 5;
    document
      .moveTo(MARGIN, y)
      .lineTo(MARGIN + width, y)
      .lineWidth(bold ? 1.2 : 0.5)
      .stroke(bold ? "#222" : "#aaa");
    y += 6;
  };
  heading();
  for (const line of lines) row(line, false);
  document
    .font("plain")
    .fontSize(8)
    .text(foot, MARGIN, Math.min(y + 10, bottom - 40), { width });
  document.end();
  return done;
}

/** @returns the answer that hands a PDF over under a name. */
export const handOver = (pdf: Uint8Array, name: string): Response =>
  new Response(new Uint8Array(pdf), {
    headers: {
      "Content-Type": "application/pdf",
      "Content-Disposition": `attachment; filename="${name}.pdf"`,
    },
  });
