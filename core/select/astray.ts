import { isSprung, type SeatLink, type SeatSize, type Series, type StackEntry } from "../book";
import type { Piece } from "../chain";
import { nm, type Nm } from "../quantity";
import type { Estimate } from "../reading";

/** A seat with what is said to be in it. */
export interface Filled {
  link: Pick<SeatLink, "id" | "name" | "kind" | "sign" | "sizes">;
  fitted: Piece | null;
}

/** What a figure as built lies off from what was predicted of it, and what would explain it. */
export interface Astray {
  /** Measured less predicted: above nothing is looser than it should be. */
  off: Nm;
  /** The size whose piece would have given what was read: perhaps that one is in. */
  meant: SeatSize | null;
  /** Of which seat. */
  seat: Filled["link"] | null;
  /** The ring of another pack that goes into this groove too, and that would have given it: the two may have been swapped. */
  stranger: { size: SeatSize; series: string } | null;
  /** The plate that would have to be missing or too many. */
  plate: { role: StackEntry["role"]; missing: boolean } | null;
}

/**
 * Whether what was read with chosen pieces in is not what was predicted of it: they differ by more than their uncertainties allow together
 * (the normalised error of ISO/IEC 17043 above one). A figure inside its limits can still be wrong so: another piece in, a plate forgotten.
 *
 * @param seats what is said to be in each.
 * @param strangers series of other packs whose rings go into the groove too.
 * @returns null where prediction and measurement agree.
 */
export function astray(
  prediction: { mean: Nm; expanded: Nm },
  measured: Pick<Estimate, "mean" | "expanded">,
  seats: readonly Filled[],
  stack: readonly StackEntry[],
  strangers: readonly Pick<Series, "name" | "sizes">[] = [],
): Astray | null {
  const off = measured.mean - prediction.mean;
  const together = Math.hypot(prediction.expanded, measured.expanded);
  if (Math.abs(off) <= together) return null;
  const near = <T>(list: readonly T[], by: (one: T) => number): T | null => {
    const [best] = [...list].sort((a, b) => Math.abs(by(a) - off) - Math.abs(by(b) - off));
    return best !== undefined && Math.abs(by(best) - off) <= together ? best : null;
  };
  // Another piece in its place: what is read is off by how much that one differs, with the sign of the seat.
  const others = seats.flatMap(({ link, fitted }) => {
    const size = fitted?.measured ?? fitted?.size;
    return size === undefined
      ? []
      : link.sizes
          .filter((one) => one.size !== (fitted?.size ?? size))
          .map((meant) => ({ meant, seat: link, by: link.sign * (meant.size - size) }));
  });
  const other = near(others, ({ by }) => by);
  const swapped = near(
    seats
      .filter(({ link }) => isSprung(link))
      .flatMap(({ link, fitted }) => {
        const size = fitted?.measured ?? fitted?.size;
        return size === undefined
          ? []
          : strangers.flatMap(({ name, sizes }) =>
              sizes.map((one) => ({ size: one, series: name, by: link.sign * (one.size - size) })),
            );
      }),
    ({ by }) => by,
  );
  const plates = stack
    .filter(({ role }) => role !== "piston")
    .flatMap(({ role, thickness }) =>
      thickness === undefined ? [] : [true, false].map((missing) => ({ role, thickness, missing })),
    );
  const plate = near(plates, ({ thickness, missing }) => (missing ? 1 : -1) * thickness);
  return {
    off: nm(off),
    meant: other?.meant ?? null,
    seat: other?.seat ?? null,
    stranger: swapped && { size: swapped.size, series: swapped.series },
    plate: plate && { role: plate.role, missing: plate.missing },
  };
}
