import type { Nm } from "../quantity";

/** What the shelf says of one size of a series, or of one odd measured piece. */
export interface Stock {
  part: string;
  /** What can be taken for this job: what lies there less what other jobs have reserved. */
  onHand: number;
  /** Of what lies there, reserved by other jobs. */
  reserved?: number;
  /** How many of it were fitted in the last `USED_OVER_DAYS`. */
  used?: number;
  /** Present for an odd piece: which one, and what it measures. */
  piece?: { id: string; measured: Nm };
  /** In cents of the shop's currency. */
  price?: number;
  /** Days until it comes when ordered. */
  days?: number;
}

/** Where a piece is to be had. */
export type Source =
  | { kind: "fitted" }
  | { kind: "shelf"; onHand: number }
  | { kind: "odd piece"; pieceId: string }
  | { kind: "order"; price?: number; days?: number }
  /** Set or made on the spot: a screw, a cut, another groove, nothing at all. */
  | { kind: "made" };
