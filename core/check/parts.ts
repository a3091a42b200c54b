import { statedIn } from "../book";
import { lengthOf, measureOf, compareMeasures } from "../quantity";
import type { FastenerGroup } from "../book";
import type { Book } from "../book";
import type { Condition } from "../shape";
import { once, versions, type Check, type Say } from "./check";

/** Parts trees without loops, numbers once, traits that exist, no part sold only with what this version has not. */
export const parts: Check = {
  reads: ["parts", "traits"],
  check(book, conditions, say) {
    const { parts: all, traits } = book;
    captured(book, conditions, once(say));
    const byId = new Map(all.map((part, i) => [part.id, { part, i }]));
    const numbers = new Map<string, string>();
    all.forEach((part, i) => {
      const path = `parts[${i}]`;
      const loop = loopFrom(part.id, (id) => [byId.get(id)?.part.of ?? []].flat());
      if (loop) say(`${path}.of`, `goes round in a loop: ${loop.join(" → ")}`, "cut it at one place");
      const held = loopFrom(part.id, (id) => byId.get(id)?.part.heldBy ?? []);
      if (held)
        say(`${path}.heldBy`, `each holds the other: ${held.join(" → ")}`, "say which comes off first");
      if (part.sold && !part.of && part.sold === "with its assembly")
        say(`${path}.of`, "with which assembly is it sold?", "name the assembly");
      const first = numbers.get(part.number);
      if (first) say(`${path}.number`, `number ${part.number} is already ${first}`, "give each part its own");
      else numbers.set(part.number, part.id);
      for (const [trait, value] of Object.entries(part.sets ?? {})) {
        const values = traits.find(({ id }) => id === trait)?.values;
        if (!values || !Object.hasOwn(values, value))
          say(
            `${path}.sets.${trait}`,
            values ? `trait ${trait} has no value "${value}"` : `no trait "${trait}"`,
            `use one of: ${(values ? Object.keys(values) : traits.map(({ id }) => id)).join(", ")}`,
          );
      }
      part.then?.forEach(({ part: other }, j) => {
        if (other === part.id)
          say(`${path}.then[${j}].part`, "looks at itself next", "name the part that is looked at then");
      });
      part.lookAlikes?.forEach(({ part: other }, j) => {
        if (other === part.id)
          say(`${path}.lookAlikes[${j}].part`, "a part looks like itself", "name the other one");
      });
    });
  },
};

/** An answer that does something to no part changes nothing of what is needed. */
export const weakPoints: Check = {
  reads: ["weakPoints"],
  check({ weakPoints: all = [] }, _conditions, say) {
    all.forEach(({ parts: own = [], answers }, i) =>
      answers.forEach(({ name, does, parts: its = own }, j) => {
        if (does !== "look" && its.length === 0)
          say(
            `weakPoints[${i}].answers[${j}]`,
            `“${name}” is done to no part`,
            "name the parts of the weak point, or of this answer",
            true,
          );
      }),
    );
  },
};

/** A part that is sold with its assembly only needs one in every version it is in: else it could not be had there at all. */
function captured(book: Book, conditions: readonly Condition[], say: Say): void {
  for (const { unit, words } of versions(book, conditions, ["parts"])) {
    const there = new Set(unit.parts.map(({ id }) => id));
    for (const { id, of, sold } of unit.parts) {
      if (sold !== "with its assembly" || of === undefined || there.has(of)) continue;
      const at = book.parts.findIndex((part) => part.id === id);
      say(
        `parts[${at}].of`,
        `${of} is not there in this version${words}`,
        "give the part its assembly’s `when`, and each assembly its own part",
      );
    }
  }
}

/** The way round from an id back to itself, or null. */
export function loopFrom(start: string, next: (id: string) => readonly string[]): string[] | null {
  const seen = new Set<string>();
  const walk = (id: string, way: readonly string[]): string[] | null => {
    for (const other of next(id)) {
      if (other === start) return [...way, other];
      if (seen.has(other)) continue;
      seen.add(other);
      const found = walk(other, [...way, other]);
      if (found) return found;
    }
    return null;
  };
  return walk(start, [start]);
}

const samePlace = (a: readonly number[], b: readonly number[]): boolean => a[0] === b[0] && a[1] === b[1];

/** As many places as fasteners, torques that rise, nothing turned on from nothing. */
export const fasteners: Check = {
  reads: ["fasteners", "build"],
  check({ fasteners: all = [], build = [] }, _conditions, say) {
    all.forEach((group, i) => {
      const path = `fasteners[${i}]`;
      const { count, places, torque, angle, retorque, length } = group;
      if (count !== places.length)
        say(`${path}.count`, `${count} fasteners and ${places.length} places`, "make them equal");
      places.forEach(({ at, length: own }, j) => {
        if (places.findIndex((other) => samePlace(other.at, at)) !== j)
          say(`${path}.places[${j}].at`, "two fasteners in one place", "correct the position");
        if (own === undefined && length === undefined)
          say(
            `${path}.places[${j}].length`,
            "how long is it?",
            "give the length here or for the group",
            true,
          );
      });
      if (!torque) say(`${path}.torque`, "no torque is stated", 'write it as "42 N·m"', true);
      if (angle && !torque) say(`${path}.angle`, "turned on from what?", "give the torque before the angle");
      if (torque) passesRise(group, path, say);
      const isVerified = build.some(({ verifies }) => verifies?.includes(group.id));
      if (isVerified && (angle || !torque))
        say(
          path,
          "what nobody undid is held against a torque, and this one has none at its end",
          "leave it out of `verifies`",
        );
      if (group.rest && !group.passes)
        say(`${path}.rest`, "nothing is tightened before it rests", "give its passes, or leave the rest out");
      if (retorque && torque && compareMeasures(retorque.torque, torque) > 0)
        say(`${path}.retorque.torque`, "tighter than the torque itself", "correct one of the two");
    });
  },
};

function passesRise(
  { passes = [], torque }: FastenerGroup,
  path: string,
  say: Parameters<Check["check"]>[2],
): void {
  const all = [...passes, ...(torque ? [torque] : [])];
  all.forEach((one, j) => {
    const before = all[j - 1];
    if (before && compareMeasures(before, one) >= 0)
      say(
        `${path}.passes[${j - 1}]`,
        "each pass is tighter than the one before, the torque the tightest",
        "order them",
      );
  });
}

/** Each of a list once, and not of a figure that is taken before anything can be told apart. */
export function eachOnce(
  each: readonly string[] | undefined,
  path: string,
  asFound: boolean | undefined,
  say: Say,
): void {
  if (!each) return;
  each.forEach((name, i) => {
    if (each.indexOf(name) !== i)
      say(`${path}.each[${i}]`, `"${name}" stands there twice`, "give each a name of its own");
  });
  if (asFound) say(`${path}.each`, "before opening there is one figure", "leave out `each` or `asFound`");
}

export const measurements: Check = {
  reads: ["measurements"],
  check({ measurements: all = [] }, _conditions, say) {
    all.forEach(({ kind, min, max, expect, each, over, under, asFound }, i) => {
      const path = `measurements[${i}]`;
      const quantity = statedIn(kind);
      eachOnce(each, path, asFound, say);
      if (over && each) say(`${path}.each`, "`over` says already what it is taken of", "keep one of the two");
      if ((under !== undefined) !== (kind === "plate thickness"))
        say(
          `${path}.under`,
          kind === "plate thickness" ? "how much thinner may a plate be?" : `a ${kind} has no \`under\``,
          "give `under` for a plate thickness, and only for it",
        );
      if (kind === "plate thickness" && !over)
        say(`${path}.over`, "of which plates?", "say steels or frictions");
      if (min === undefined && max === undefined && expect === undefined && under === undefined)
        say(path, "nothing is expected of it", "give `min`, `max` or `expect`");
      const read = { min, max };
      for (const end of ["min", "max"] as const) {
        const text = read[end];
        if (text === undefined) continue;
        if (quantity === null) {
          say(`${path}.${end}`, `a ${kind} is seen, not measured`, "say it in `expect`");
          delete read[end];
          continue;
        }
        try {
          if (quantity === "length") lengthOf(text);
          else measureOf(text, quantity);
        } catch (error) {
          delete read[end];
          say(
            `${path}.${end}`,
            error instanceof Error ? error.message : text,
            `a ${kind} is a ${quantity} with its unit`,
          );
        }
      }
      if (read.min === undefined || read.max === undefined || !quantity) return;
      const crossed =
        quantity === "length"
          ? lengthOf(read.min) - lengthOf(read.max)
          : compareMeasures(measureOf(read.min, quantity), measureOf(read.max, quantity));
      if (crossed >= 0) say(`${path}.max`, "max is not above min", "swap or correct them");
    });
  },
};
