import PDFDocument from "pdfkit";
import { qrPath } from "~/look/qr";
import { faceOf, registerFaces } from "~/print/faces";
import { placeOn, type Sheet } from "./sheets";

export interface Label {
  code: string;
  /** The address that opens it. */
  url: string;
  title: string;
  lines: string[];
}

const MM = 72 / 25.4;

/** Labels as a PDF for a sheet, each with its QR code and words. */
export function labelsPdf(labels: readonly Label[], sheet: Sheet, used: number): Promise<Buffer> {
  const size: [number, number] = [sheet.width * MM, sheet.height * MM];
  const pdf = new PDFDocument({ size, margin: 0, autoFirstPage: false, info: { Title: "Labels" } });
  registerFaces(pdf);
  const parts: Buffer[] = [];
  const done = new Promise<Buffer>((resolve, reject) => {
    pdf.on("data", (part: Buffer) => parts.push(part));
    pdf.on("end", () => resolve(Buffer.concat(parts)));
    pdf.on("error", reject);
  });
  let page = -1;
  labels.forEach((label, n) => {
    const place = placeOn(sheet, n, used);
    for (; page < place.page; page++) pdf.addPage({ size, margin: 0 });
    draw(pdf, label, place.x * MM, place.y * MM, sheet);
  });
  pdf.end();
  return done;
}

function draw(
  pdf: PDFKit.PDFDocument,
  { url, code, title, lines }: Label,
  x: number,
  y: number,
  sheet: Sheet,
): void {
  const [width, height] = [sheet.labelWidth * MM, sheet.labelHeight * MM];
  const pad = 1.5 * MM;
  const side = Math.min(height - 2 * pad, width * 0.42);
  const { size, path } = qrPath(url);
  pdf
    .save()
    .translate(x + pad, y + pad)
    .scale(side / size)
    .path(path)
    .fill("#000")
    .restore();
  const left = x + pad + side + pad;
  const room = width - side - 3 * pad;
  pdf
    .fillColor("#000")
    .font(faceOf(title, "bold"))
    .fontSize(13)
    .text(title, left, y + 2.4 * pad, { width: room, height: 30, ellipsis: true });
  // Of many lines each is one line high, and what does not fit ends in dots: nothing is printed over the code.
  const many = lines.length > 3;
  const foot = y + height - 3.6 * pad;
  for (const line of lines) {
    const high = many ? 9 : 20;
    if (pdf.y + (many ? 9 : 0) > foot) break;
    pdf
      .font(faceOf(line, "plain"))
      .fontSize(many ? 7.5 : 8.5)
      .text(line, { width: room, height: high, ellipsis: true, lineBreak: !many });
  }
  pdf
    .font("bold")
    .fontSize(7.5)
    .text(code, left, y + height - 3.2 * pad, { width: room, lineBreak: false, ellipsis: true });
}
