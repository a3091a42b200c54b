import { lengthText, type LengthUnit } from "~core/quantity";
import type { Piece } from "~core/chain";

/** A piece in words: mark and size, and what it measured. */
export function pieceText(piece: Piece, unit: LengthUnit): string {
  const words = [
    piece.mark ?? "",
    piece.size === undefined ? "" : lengthText(piece.size, unit),
    piece.measured === undefined ? "" : `measured ${lengthText(piece.measured, unit)}`,
  ];
  return words.filter(Boolean).join(", ");
}
