import type { Nm } from "../quantity";

/** A selective part in hand: what its mark says, and what a micrometer said if someone asked it. */
export interface Piece {
  /** Part number; absent for a part that is in no series. */
  part?: string;
  mark?: string;
  /** What the mark stands for; absent when there is no mark to go by. */
  size?: Nm;
  measured?: Nm;
}
