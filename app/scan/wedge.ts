import { codeIn } from "./code";

/** A scanner that types is faster than any hand: so long at most between two of its keys. */
export const FAST_MS = 40;
const MOST = 200;

/** Finds the bursts of a scanner among what is typed. */
export class Wedge {
  private typed = "";
  private last = -Infinity;
  /** Characters of the burst so far. */
  get length(): number {
    return this.typed.length;
  }

  /**
   * Takes one key.
   *
   * @param at milliseconds, of any clock that only goes on.
   * @returns the code when an Enter ends a burst that is one of our labels, else null.
   */
  key(key: string, at: number): string | null {
    // Shift and the like come between; they type nothing.
    if (key !== "Enter" && [...key].length !== 1) return null;
    const fast = at - this.last <= FAST_MS;
    this.last = at;
    if (key === "Enter") {
      const read = fast ? codeIn(this.typed) : null;
      this.typed = "";
      return read;
    }
    this.typed = (fast ? this.typed : "").slice(-MOST) + key;
    return null;
  }
}
