import type { Book, Gate } from "../book";
import { compareMeasures, limitsText } from "../quantity";
import type { Check } from "./check";

/** What is proven in the vehicle: procedures that can be run to their end, routines that are called for by what calls for them. */
export const proving: Check = {
  reads: ["procedures", "relearns", "linkage", "fluid", "packs"],
  check(book, _conditions, say) {
    const { linkage, fluid } = book;
    const positions = linkage?.positions ?? [];
    const gate = (given: Gate | undefined, path: string): void => {
      if (given?.lever !== undefined && positions.length > 0 && !positions.includes(given.lever))
        say(
          `${path}.lever`,
          `the lever has no position "${given.lever}"`,
          `use one of: ${positions.join(", ")}`,
        );
      for (const [of, range] of [
        ["revs", given?.revs],
        ["fluid", given?.fluid],
      ] as const)
        if (range?.from && range.to && compareMeasures(range.from, range.to) > 0)
          say(`${path}.${of}`, "from is above to", "swap them");
    };
    (book.procedures ?? []).forEach(({ begin, window, turns }, i) => {
      const path = `procedures[${i}]`;
      gate(begin, `${path}.begin`);
      if (window && compareMeasures(window.from, window.to) >= 0)
        say(`${path}.window`, "its window has no width", "give from below to");
      const stated = fluid?.level ?? [];
      const isStated = stated.some(
        ({ from, to }) =>
          window && compareMeasures(from, window.from) === 0 && compareMeasures(to, window.to) === 0,
      );
      if (window && stated.length > 0 && !isStated)
        say(
          `${path}.window`,
          `${limitsText(window.from, window.to)}, and the fluid’s level is set at ${stated.map(({ from, to }) => limitsText(from, to)).join(" or ")}`,
          "state the same in both",
        );
      turns.forEach((turn, n) => {
        const at = `${path}.turns[${n}]`;
        gate(turn.gate, `${at}.gate`);
        if (turns.findIndex(({ id }) => id === turn.id) !== n)
          say(`${at}.id`, `${turn.id} stands twice`, "give each its own");
        if (turn.window && !window)
          say(`${at}.window`, "there is no window to be done in", "give the procedure its window");
        if (turn.hold && !turn.gate)
          say(`${at}.hold`, "nothing says what is held", "give it a gate: the engine, its speed");
      });
    });
    const frictions = frictionsOf(book);
    (book.relearns ?? []).forEach(({ after, gate: given }, i) => {
      gate(given, `relearns[${i}].gate`);
      after.forEach(({ part }, n) => {
        if (part !== undefined && frictions.has(part) && frictions.size > 1)
          say(
            `relearns[${i}].after[${n}].part`,
            `${part} alone calls for it, and what it learns is of every pack’s frictions`,
            'write "any": "frictions", or leave it where it is of this pack alone',
            true,
          );
      });
    });
  },
};

const frictionsOf = ({ packs }: Book): Set<string> =>
  new Set(
    packs.flatMap(({ stack }) => stack.flatMap(({ role, part }) => (role === "friction" ? [part] : []))),
  );
