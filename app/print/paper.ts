import PDFDocument from "pdfkit";
import { faceOf, registerFaces, type Weight, FIRST_FACE } from "./faces";

const MARGIN = 40;

/** A sheet of paper: facts, what was told, and one table. */
export interface Sheet {
  title: string;
  shop: string;
  facts: [string, string][];
  told: [string, string][];
  /** Of the table, each with its part of the width; figures stand to the right. */
  columns: readonly { words: string; part: number; figures?: boolean }[];
  lines: readonly (readonly string[])[];
  foot: string;
  /** What is filled in and signed by hand. */
  sign?: readonly string[];
}

/** @returns the sheet as a PDF; a table longer than a page goes on over its heading on the next. */
export function draw({ title, shop, facts, told, columns, lines, foot, sign = [] }: Sheet): Promise<Buffer> {
  const document = new PDFDocument({
    size: "A4",
    margin: MARGIN,
    // Kept for years with the unit's papers.
    subset: "PDF/A-2b",
    pdfVersion: "1.7",
    font: FIRST_FACE,
    info: { Title: title, Author: "Yard Key" },
  });
  const chunks: Buffer[] = [];
  const done = new Promise<Buffer>((finish, fail) => {
    document.on("data", (chunk: Buffer) => chunks.push(chunk));
    document.on("end", () => finish(Buffer.concat(chunks)));
    document.on("error", fail);
  });
  registerFaces(document);
  // Letter is 50 points shorter than A4 and 17 wider: keep within both.
  const width = document.page.width - 2 * MARGIN;
  const bottom = 792 - MARGIN;

  /** Sets the face and size a text is measured and written in. */
  const set = (words: string, weight: Weight, size: number): PDFKit.PDFDocument =>
    document.font(faceOf(words, weight)).fontSize(size);
  /** Writes a text at a place. @returns its height. */
  const put = (
    words: string,
    weight: Weight,
    size: number,
    x: number,
    y: number,
    options: { width: number; align?: "right" },
  ): number => {
    set(words, weight, size).text(words, x, y, options);
    return document.heightOfString(words, options);
  };

  put(title, "bold", 17, MARGIN, MARGIN, { width: width * 0.72 });
  put(shop, "plain", 10, MARGIN + width * 0.73, MARGIN + 5, { width: width * 0.27, align: "right" });
  let y = MARGIN + 34;
  facts.forEach(([name, value], i) => {
    const x = MARGIN + (i % 2) * (width / 2);
    put(name, "plain", 9, x, y, { width: 55 });
    const height = put(value, "bold", 9, x + 58, y, { width: width / 2 - 64 });
    if (i % 2 === 1) y += Math.max(15, height + 3);
  });
  y += 8;
  for (const [name, value] of told) {
    // A customer can say a great deal: what does not fit one page is in the job itself.
    const text = value.length > 400 ? `${value.slice(0, 400)} …` : value;
    put(name, "plain", 9, MARGIN, y, { width: 85 });
    y += put(text, "bold", 9, MARGIN + 88, y, { width: width - 88 }) + 3;
  }
  y += 10;
  const heading = (): void =>
    row(
      columns.map(({ words }) => words),
      true,
    );
  const row = (cells: readonly string[], bold: boolean): void => {
    const weight = bold ? "bold" : "plain";
    const widths = columns.map(({ part }) => part * width);
    const heights = cells.map((cell, i) =>
      set(cell, weight, 8.5).heightOfString(cell, { width: (widths[i] ?? 0) - 6 }),
    );
    const height = Math.max(...heights);
    if (y + height + 12 > bottom) {
      document.addPage();
      y = MARGIN;
      if (!bold) heading();
    }
    let x = MARGIN;
    cells.forEach((cell, i) => {
      const align = columns[i]?.figures ? "right" : undefined;
      put(cell, weight, 8.5, x, y, { width: (widths[i] ?? 0) - 6, align });
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
  put(foot, "plain", 8, MARGIN, Math.min(y + 10, bottom - 40), { width });
  if (sign.length > 0) {
    // Room for a hand above each line; on a page of its own where the table leaves none.
    y = document.y + 60;
    if (y + 20 > bottom) {
      document.addPage();
      y = MARGIN + 60;
    }
    const part = width / sign.length;
    sign.forEach((words, i) => {
      const x = MARGIN + i * part;
      document
        .moveTo(x, y)
        .lineTo(x + part - 16, y)
        .lineWidth(0.5)
        .stroke("#222");
      put(words, "plain", 8, x, y + 4, { width: part - 16 });
    });
  }
  document.end();
  return done;
}
