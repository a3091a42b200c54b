import type { SeatLink } from "../book";
import type { Piece } from "../chain";
import { nm, type Nm } from "../quantity";
import type { Lot, Offer, Seat } from "./joint";
import { MICROMETER_U, thickness } from "./piece";
import { scarcityOf } from "./scarcity";
import type { Source, Stock } from "./stock";

/** What an offer of the question is, to whoever fits it. */
export interface Offered {
  piece: Piece;
  source: Source;
  /** What it is called among the candidates of a seat. */
  key: string;
}
/** What is in now, among the offers of its seat. */
export const FITTED = "fitted";
/** What can be had for the seats of a unit: seats that take the same pieces share their offers. */
export class Offers {
  readonly lots: Lot[] = [];
  /** By the id of the offer; what is in now is `FITTED`, of its own seat. */
  readonly offered = new Map<string, Offered>();
  private readonly bySizes = new Map<SeatLink["sizes"], Offer[]>();

  constructor(private readonly stock: readonly Stock[]) {}

  /** A seat of the question: what is in it, and what it could have instead. */
  seat(link: SeatLink, fitted: Piece, isTrial = false): Seat {
    const is = thickness(fitted, link.tolerance);
    const offers = this.offersOf(link);
    // Another of the size that is in, both by their marks, would predict the same: no choice.
    const same = new Set(fitted.measured === undefined ? sameAs(fitted, link) : []);
    return {
      id: link.id,
      fitted: { id: FITTED, adds: is?.value ?? nm(0), variance: Math.round((is?.uncertainty ?? 0) ** 2) },
      offers,
      barred: [...offers.flatMap(({ id }) => (same.has(id) ? [id] : [])), ...(isTrial ? [FITTED] : [])],
    };
  }

  private offersOf({ id: seat, kind, sizes, tolerance }: SeatLink): Offer[] {
    const known = this.bySizes.get(sizes);
    if (known) return known;
    const made = sizes.flatMap(({ part, mark, size }): Offer[] => {
      const piece: Piece = { ...(part === undefined ? {} : { part }), mark, size };
      const isEmpty = part === undefined && size === 0;
      const u = isEmpty ? 0 : (thickness(piece, tolerance)?.uncertainty ?? 0);
      const adds = { adds: size, variance: Math.round(u ** 2) };
      if (part !== undefined) return this.ofPart(part, piece, adds);
      const id = `${seat} ${kind} ${mark}`;
      this.offered.set(id, { piece, source: { kind: "made" }, key: mark });
      return [{ id, ...adds }];
    });
    this.bySizes.set(sizes, made);
    return made;
  }

  private ofPart(part: string, piece: Piece, adds: { adds: Nm; variance: number }): Offer[] {
    return this.stock
      .filter((one) => one.part === part)
      .flatMap(({ piece: odd, onHand, price, days, used }): Offer[] => {
        if (odd) {
          if (onHand < 1) return [];
          this.lot(odd.id, onHand);
          const source: Source = { kind: "odd piece", pieceId: odd.id };
          this.offered.set(odd.id, { piece: { ...piece, measured: odd.measured }, source, key: odd.id });
          return [{ id: odd.id, lot: odd.id, adds: odd.measured, variance: Math.round(MICROMETER_U ** 2) }];
        }
        const list: Offer[] = [];
        if (onHand > 0) {
          this.lot(part, onHand);
          this.offered.set(part, { piece, source: { kind: "shelf", onHand }, key: part });
          list.push({ id: part, lot: part, ...adds, scarce: scarcityOf({ onHand, used, days }) });
        }
        if (days !== undefined) {
          const id = orderedKey(part);
          this.offered.set(id, { piece, source: { kind: "order", price, days }, key: id });
          list.push({ id, ...adds, days, money: price ?? 0 });
        }
        return list;
      });
  }

  /** A series that several seats take from is one stock. */
  private lot(id: string, count: number): void {
    if (!this.lots.some((one) => one.id === id)) this.lots.push({ id, count });
  }
}

/** What a piece is called that has to be ordered first. */
const orderedKey = (part: string): string => `${part} ordered`;
const sameAs = ({ part, mark }: Piece, { id, kind }: SeatLink): string[] =>
  part === undefined ? [`${id} ${kind} ${mark ?? ""}`] : [part, orderedKey(part)];
