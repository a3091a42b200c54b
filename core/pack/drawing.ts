import { nm, type Nm } from "../quantity";
import type { Plate } from "./plates";

/** One piece of the drawing along the stacking direction, in nanometres from the piston face. */
export interface DrawnPiece {
  kind: Plate["role"] | "gap" | "ring";
  part: string;
  from: Nm;
  to: Nm;
  thickness: Nm;
}

/** A pack to scale, from the piston outwards: plates, the gap drawn wider than it is, the ring. */
export interface StackDrawing {
  pieces: DrawnPiece[];
  length: Nm;
}

/** A gap of a millimetre between plates of two would hardly be seen: it is drawn this many times as wide. */
export const GAP_DRAWN = 3;

/** A plate of which nobody knows the thickness is drawn so thick, and the drawing says that it is not to scale. */
const UNKNOWN_DRAWN = nm(2_000_000);

/**
 * @param gap the clearance to draw; null draws none (nothing read yet).
 * @param ring the ring in the groove; null leaves the groove empty.
 */
export function drawStack(plates: readonly Plate[], gap: Nm | null, ring: Nm | null): StackDrawing {
  let at = 0;
  const pieces: DrawnPiece[] = [];
  const lay = (kind: DrawnPiece["kind"], part: string, thickness: Nm, drawn: number): void => {
    pieces.push({ kind, part, from: nm(at), to: nm(at + drawn), thickness });
    at += drawn;
  };
  for (const { role, part, thickness } of plates) {
    const drawn = thickness ?? UNKNOWN_DRAWN;
    lay(role, part, drawn, drawn);
  }
  if (gap !== null && gap > 0) lay("gap", "clearance", gap, gap * GAP_DRAWN);
  if (ring !== null) lay("ring", "snap ring", ring, ring);
  return { pieces, length: nm(at) };
}
