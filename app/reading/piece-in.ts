import type { SeatState } from "~core/measure";
import type { Nm } from "~core/quantity";
import { thickness } from "~core/select";

/** The thickness of what is in a seat now; null while nobody has said which it is. */
export const pieceIn = (seat: SeatState | undefined): Nm | null =>
  seat?.fitted ? (thickness(seat.fitted, seat.link.tolerance)?.value ?? null) : null;
