import { isSprung } from "../book";
import { plates } from "../pack";
import { once, versions, type Check } from "./check";

/** Plates that may lie against each other, in every version; sizes of facing and piston. */
export const packs: Check = {
  reads: ["packs", "chains", "series"],
  check(book, conditions, say) {
    const tell = once(say);
    for (const { unit, words } of versions(book, conditions, ["packs"])) {
      for (const pack of unit.packs) {
        const path = `packs[${book.packs.findIndex(({ element }) => element === pack.element)}].stack`;
        const laid = plates(pack.stack);
        laid.forEach((plate, i) => {
          const next = laid[i + 1];
          if (plate.role !== "friction" || next?.role !== "friction") return;
          if (plate.faced !== next.faced && plate.faced !== "both sides" && next.faced !== "both sides")
            return;
          tell(
            path,
            `two frictions lie together${words}`,
            "alternate them with steels; neighbouring groups alternate when their counts are equal or differ by one",
          );
        });
        if (pack.stack.length > 0 && !laid.some(({ role }) => role === "friction"))
          tell(path, `no friction in it${words}`, "list the frictions");
        if (laid.slice(1).some(({ role }) => role === "piston"))
          tell(path, "a stack is listed from the piston outwards", "put the piston first");
      }
    }
    book.packs.forEach(({ facing, piston, stack, element, grooves = [] }, i) => {
      const path = `packs[${i}]`;
      if (facing && facing.inner >= facing.outer)
        say(`${path}.facing.outer`, "the outer radius is not above the inner", "swap or correct them");
      if (piston && piston.inner >= piston.outer)
        say(`${path}.piston.outer`, "the outer diameter is not above the inner", "swap or correct them");
      grooves.forEach(({ ring, alsoTakes = [] }, g) => {
        const series = book.series.find(({ id }) => id === ring);
        if (series && !isSprung(series))
          say(
            `${path}.grooves[${g}].ring`,
            `a ${series.kind} does not spring into a groove`,
            "name a series of rings",
          );
        if (alsoTakes.includes(ring))
          say(`${path}.grooves[${g}].alsoTakes`, "its own ring is no mistake", "take it out of the list");
      });
      if (!stack.some(({ wave }) => wave)) return;
      book.chains.forEach(({ of, kind, spec }, c) => {
        spec.forEach(({ wave }, s) => {
          if (of === element && kind === "pack clearance" && wave === undefined)
            say(
              `chains[${c}].spec${spec.length > 1 ? `[${s}]` : ""}.wave`,
              "the pack has a waved plate: is it read free or pressed flat?",
              'write "free" or "flat"',
            );
        });
      });
    });
  },
};

export const series: Check = {
  reads: ["series"],
  check({ series: all }, _conditions, say) {
    const numbers = new Map<string, string>();
    all.forEach(({ sizes, tolerance }, i) =>
      sizes.forEach(({ size, mark, part }, j) => {
        const path = `series[${i}].sizes[${j}]`;
        const before = sizes[j - 1];
        if (before && size <= before.size)
          say(`${path}.size`, "sizes do not rise", "list them from thin to thick");
        else if (before && size - before.size < tolerance)
          say(
            `${path}.size`,
            "closer to the size before than its tolerance",
            "correct the size or the tolerance",
          );
        if (sizes.findIndex((other) => other.mark === mark) !== j)
          say(`${path}.mark`, `the mark "${mark}" stands twice`, "give each size its own mark");
        const first = numbers.get(part);
        if (first) say(`${path}.part`, `part ${part} is already ${first}`, "give each size its own part");
        numbers.set(part, path);
      }),
    );
  },
};
