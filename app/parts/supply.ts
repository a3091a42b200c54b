import type { Supply } from "~core/needs";
import type { JobSupply } from "~store/orders";

/** What is ready for a job and on its way to it, as its list asks for it: a kit by what lies in it. */
export const supplyFrom = (
  { box, coming }: JobSupply,
  onHand: readonly (readonly [string, number])[],
): Supply => ({
  box: new Map(box.map(({ part, count }) => [part, count])),
  shelf: new Map(onHand),
  coming: coming.flatMap(({ part, pieces, due, isLate, contents }) =>
    (contents ?? [{ number: part, count: 1 }]).map(({ number, count }) => ({
      number,
      pieces: pieces * count,
      due,
      isLate,
    })),
  ),
});
