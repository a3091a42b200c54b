import { createRequire } from "node:module";
import PDFDocument from "pdfkit";
import { ground } from "~/server/context";
import { appliedTo, depthOf, fold, ruleOf, worksheets } from "~core/job";
import { readHouse } from "~store/house";
import { jobByNumber } from "~store/jobs";
import type { Route } from "./+types/sheet-pdf";
import { configurationText, endedElsewhere, intakeLines, sheetLine, type SheetLine } from "./sheet-lines";

const COLUMNS: { words: string; of: keyof SheetLine; part: number }[] = [
  { words: "Pack", of: "pack", part: 0.07 },
  { words: "Spec", of: "spec", part: 0.18 },
  { words: "As found", of: "found", part: 0.15 },
  { words: "Ring", of: "chosen", part: 0.17 },
  { words: "As built", of: "built", part: 0.15 },
  { words: "Verdict", of: "verdict", part: 0.14 },
  { words: "Who, when (UTC)", of: "who", part: 0.14 },
];
const MARGIN = 40;

/** The build sheet as one A4 page that also fits Letter. */
export const loader = async ({ context, params, request }: Route.LoaderArgs): Promise<Response> => {
  const { pool } = context.get(ground);
  const [record, house] = await Promise.all([jobByNumber(pool, Number(params.number)), readHouse(pool)]);
  if (!record) throw new Response("There is no job of this number.", { status: 404 });
  const { book } = record;
  const job = fold(record.facts);
  const asked = new URL(request.url).searchParams.get("unit");
  const unit = asked === "mm" || asked === "in" ? asked : book.unit.lengthUnit;
  const depth = depthOf(book, job);
  const applied = appliedTo(book, job, record.houseValues);
  const elsewhere = endedElsewhere(job);
  const lines = worksheets(job, applied, house)
    .filter(() => !elsewhere)
    .filter(({ applied }) => applied.inScope)
    .map((sheet) => sheetLine(sheet, unit));
  const booking = job.booking?.body;
  const pdf = await draw({
    title: `${elsewhere ? "Record of looking" : "Build sheet"} · job ${record.number}`,
    shop: house.shopName,
    facts: [
      ["Vehicle", booking?.vehicle ?? ""],
      ["Unit", `${book.unit.maker} ${book.unit.name}, ${configurationText(book.traits, job.configuration)}`],
      ["Odometer", booking?.odometer || "not read"],
      ["Scope", depth],
      ["Opened", record.opened.slice(0, 10)],
      ["State", job.closed ? `closed by ${job.closed.by}, ${job.closed.at.slice(0, 10)}` : "open: not final"],
    ],
    told: intakeLines(job, applied, ruleOf(job, house), unit),
    lines,
    foot:
      `± is the expanded uncertainty (95 %), house rule ${ruleOf(job, house)}. Limits are of book ${book.unit.id}, revision ${book.unit.revision}, ` +
      `${book.unit.source}: made-up figures, not a maker’s specification. The maker’s service information comes first.`,
  });
  return new Response(new Uint8Array(pdf), {
    headers: {
      "Content-Type": "application/pdf",
      "Content-Disposition": `attachment; filename="build-sheet-${record.number}.pdf"`,
    },
  });
};

interface Sheet {
  title: string;
  shop: string;
  facts: [string, string][];
  told: [string, string][];
  lines: SheetLine[];
  foot: string;
}

const font = (weight: 400 | 700): string =>
  createRequire(import.meta.url).resolve(
    `@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${weight}-normal.woff`,
  );

function draw({ title, shop, facts, told, lines, foot }: Sheet): Promise<Buffer> {
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
  const row = (cells: string[], bold: boolean): void => {
    document.font(bold ? "bold" : "plain").fontSize(8.5);
    const widths = COLUMNS.map(({ part }) => part * width);
    const height = Math.max(
      ...cells.map((cell, i) => document.heightOfString(cell, { width: (widths[i] ?? 0) - 6 })),
    );
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
  row(
    COLUMNS.map(({ words }) => words),
    true,
  );
  for (const line of lines)
    row(
      COLUMNS.map(({ of }) => line[of]),
      false,
    );
  document
    .font("plain")
    .fontSize(8)
    .text(foot, MARGIN, Math.min(y + 10, bottom - 40), { width });
  document.end();
  return done;
}
