import { nm, type Nm } from "../quantity";
import type { Book } from "./book";
import type { Chain, Seat, Series } from "./format/pack";

/** What a seat takes: a piece of a series, a screw that is set, metal that comes off, one of several grooves. */
export type SeatKind = Series["kind"] | "screw" | "cut" | "groove";

/** One size a seat can have. Without a part it is made, not taken from a shelf. */
export interface SeatSize {
  mark: string;
  size: Nm;
  part?: string;
  colour?: string;
  tabs?: number;
}

/** One seat of a chain, with its sign there and all it can have. */
export interface SeatLink {
  /** A chain’s own seat is called after the chain. */
  id: string;
  name: string;
  sign: 1 | -1;
  kind: SeatKind;
  sizes: readonly SeatSize[];
  /** Half-width of what a marked size may be off. */
  tolerance: Nm;
  /** Whether nothing needs to be in it. */
  mayBeEmpty: boolean;
  /** As the book states it; null where the chain names a series and no more. */
  seat: Seat | null;
}

/** The mark of what is in a seat with nothing in it. */
export const EMPTY_MARK = "none";
const EMPTY: SeatSize = { mark: EMPTY_MARK, size: nm(0) };
/** The mark of a part that nothing is taken off. */
export const UNCUT_MARK = "nothing off";

/** Whether what is in a seat is taken from a shelf; else it is set or made on the spot. */
export const isFromShelf = ({ kind }: Pick<SeatLink, "kind">): boolean =>
  kind !== "screw" && kind !== "cut" && kind !== "groove";

type Sort = Pick<SeatLink, "kind" | "seat" | "mayBeEmpty">;

/** Whether one would rather leave it: metal comes off, a ring goes to its other groove, a plate is not like its fellows. */
export const isLastResort = ({ kind, seat }: Omit<Sort, "mayBeEmpty">): boolean =>
  kind === "cut" || kind === "groove" || seat?.usual !== undefined;

/** Whether somebody has to decide on it: not on last resorts, nor on a second shim, which is put in only where that is wanted. */
export const isDecided = (link: Sort): boolean => !isLastResort(link) && !link.mayBeEmpty;

/** What is in it as long as nobody has said: nothing is taken off a part, and a plate is like its fellows. */
export const usualIn = ({ kind, seat, sizes }: Pick<SeatLink, "kind" | "seat" | "sizes">): SeatSize | null =>
  sizes.find(({ mark }) => mark === (kind === "cut" ? UNCUT_MARK : seat?.usual)) ?? null;

/** The seats of a chain, in the order of its links; those whose series the book does not have left out. */
export function seatsOf(book: Pick<Book, "series" | "seats">, { id, name, links }: Chain): SeatLink[] {
  return links.flatMap(([sign, kind, ref]): SeatLink[] => {
    const link = { sign: sign === "+" ? (1 as const) : (-1 as const) };
    if (kind === "series") {
      const series = book.series.find((one) => one.id === ref);
      return series ? [{ ...link, id, name, seat: null, mayBeEmpty: false, ...takes(series) }] : [];
    }
    const seat = kind === "seat" ? book.seats?.find((one) => one.id === ref) : undefined;
    const taken = seat && takenBy(book, seat);
    if (!seat || !taken) return [];
    const mayBeEmpty = seat.empty ?? false;
    const sizes = mayBeEmpty ? [EMPTY, ...taken.sizes] : taken.sizes;
    return [{ ...link, id: seat.id, name: seat.name, seat, mayBeEmpty, ...taken, sizes }];
  });
}

type Takes = Pick<SeatLink, "kind" | "sizes" | "tolerance">;

const takes = ({ kind, sizes, tolerance }: Series): Takes => ({ kind, sizes, tolerance });

/** What a seat can have: of a screw, a cut and grooves it is worked out. */
export function takenBy({ series }: Pick<Book, "series">, seat: Seat): Takes | null {
  const { screw, cut, grooves } = seat;
  if (screw)
    return {
      kind: "screw",
      tolerance: screw.tolerance,
      // travel = turns × pitch × lever ratio (domain’s chain of a band’s screw).
      sizes: Array.from({ length: screw.most * screw.steps }, (_, i) => ({
        mark: turnsText(i + 1, screw.steps),
        size: nm(Math.round(((i + 1) * screw.pitch * screw.lever) / screw.steps)),
      })),
    };
  if (cut)
    return {
      kind: "cut",
      tolerance: cut.tolerance,
      sizes: Array.from({ length: Math.floor(cut.most / cut.step) + 1 }, (_, i) => ({
        mark: i === 0 ? UNCUT_MARK : `${i} ${i === 1 ? "pass" : "passes"}`,
        size: nm(i * cut.step),
      })),
    };
  if (grooves)
    return {
      kind: "groove",
      tolerance: nm(0),
      sizes: grooves.map(({ mark, farther }) => ({ mark, size: farther })),
    };
  const of = series.find(({ id }) => id === seat.series);
  return of ? takes(of) : null;
}

/** `9 of 4` → `2 1/4 turns`. */
function turnsText(parts: number, steps: number): string {
  const whole = Math.floor(parts / steps);
  const rest = parts % steps;
  const by = divisor(rest, steps);
  const fraction = rest === 0 ? "" : `${rest / by}/${steps / by}`;
  const words = [whole > 0 || rest === 0 ? `${whole}` : "", fraction].filter(Boolean).join(" ");
  return `${words} ${parts <= steps ? "turn" : "turns"}`;
}
const divisor = (a: number, b: number): number => (b === 0 ? a : divisor(b, a % b));
