import { create } from "qrcode";
import { remembering } from "./remembering";

interface QrPath {
  size: number;
  path: string;
}

/** A page of labels shows a dozen. */
const MOST = 64;
const drawn = remembering<QrPath>(MOST);

/** A QR code as one path over a square of `size` modules, its quiet zone of four included. */
export const qrPath = (text: string): QrPath => drawn(text, () => drawnOf(text));

function drawnOf(text: string): QrPath {
  const { modules } = create(text, { errorCorrectionLevel: "M" });
  const path: string[] = [];
  for (let y = 0; y < modules.size; y++)
    for (let x = 0; x < modules.size; x++) if (modules.get(y, x)) path.push(`M${x + 4} ${y + 4}h1v1h-1z`);
  return { size: modules.size + 8, path: path.join("") };
}

/** Always dark on white, whatever the look: readers want it so. */
export function Qr({ text, className }: { text: string; className?: string }) {
  const { size, path } = qrPath(text);
  return (
    <svg
      viewBox={`0 0 ${size} ${size}`}
      className={className}
      role="img"
      aria-label={`QR code: ${text}`}
      shapeRendering="crispEdges"
    >
      <rect width={size} height={size} fill="#fff" />
      <path d={path} fill="#000" />
    </svg>
  );
}
