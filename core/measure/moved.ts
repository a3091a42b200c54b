import { thickness } from "../select";
import { seatFacts, type Job } from "../fact";
import { basisOf } from "../reading";
import { nm, type Nm } from "../quantity";
import { leavesWith, pieceAt, type Worksheet } from "./worksheet";

/** A figure as it leaves against as it came. */
export interface Moved {
  found: Nm;
  left: Nm;
  /** What it leaves with less what it came with. */
  by: Nm;
  /** What the pieces in its seats account for; null where one of them is not known. */
  byPieces: Nm | null;
  /** What is left over beyond what both are unsure of; null where nothing is. */
  unexplained: Nm | null;
}

/**
 * What became of a figure since it was found: whether it moved by what its pieces were changed by. More than that somebody should be able to say
 * the work for; less says that something did not do what it should have.
 *
 * @returns null before it was read both times.
 */
export function movedSinceFound(job: Job, sheet: Worksheet): Moved | null {
  const [found, left] = [basisOf(sheet.found.assessment), basisOf(leavesWith(sheet).assessment)];
  if (!found || !left) return null;
  const by = nm(left.mean - found.mean);
  const pieces = sheet.seats.map(({ link, fit }) => {
    const { fittings } = seatFacts(job, link.id);
    const [was, is] = [0, fit].map((n) => {
      const piece = pieceAt(fittings, link, n);
      return piece && thickness(piece, link.tolerance);
    });
    return was && is
      ? {
          moves: link.sign * (is.value - was.value),
          u: fit === 0 ? 0 : Math.hypot(was.uncertainty, is.uncertainty),
        }
      : null;
  });
  if (pieces.some((one) => one === null))
    return { found: found.mean, left: left.mean, by, byPieces: null, unexplained: null };
  const byPieces = pieces.reduce((sum, one) => sum + (one?.moves ?? 0), 0);
  // Twice the pieces’ standard uncertainty, as the figures’ own are expanded.
  const unsure = Math.hypot(found.expanded, left.expanded, ...pieces.map((one) => 2 * (one?.u ?? 0)));
  const rest = by - byPieces;
  return {
    found: found.mean,
    left: left.mean,
    by,
    byPieces: nm(byPieces),
    unexplained: Math.abs(rest) > unsure ? nm(rest) : null,
  };
}
