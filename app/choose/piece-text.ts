import { lengthText, parseLength, type LengthUnit } from "~core/quantity";
import type { Piece } from "~core/chain";

/** A piece in words: mark and size, and what it measured. */
export function pieceText(piece: Piece, unit: LengthUnit): string {
  // A ring marked with its own size is said once.
  const marked = piece.mark === undefined ? null : parseLength(piece.mark, unit);
  const same = marked?.ok === true && marked.length === piece.size;
  const words = [
    same ? "" : (piece.mark ?? ""),
    piece.size === undefined ? "" : lengthText(piece.size, unit),
    piece.measured === undefined ? "" : `measured ${lengthText(piece.measured, unit)}`,
  ];
  return words.filter(Boolean).join(", ");
}
