import type { Book } from "../book";
import { bookShape } from "../book";
import { gather, type Condition } from "../shape";
import type { Check, Say } from "./check";

/** Which values of which traits something holds for; a trait that is not named does not matter. */
type Holds = ReadonlyMap<string, ReadonlySet<string>>;

/**
 * What an entry names must be there in every version the entry is in. Reckoned from the conditions themselves and not by trying versions, so that
 * no version is left out however many there are.
 */
export const versionsReach: Check = {
  reads: ["stations", "elements", "parts", "packs", "chains", "fasteners", "ranges", "measurements"],
  check(book, conditions, say) {
    if (conditions.length === 0) return;
    const { referred, named } = gather(bookShape, book);
    const owned = ownersOf(conditions);
    // What holds always can be named from anywhere; most things do.
    const at = new Map<string, Holds>();
    const holdsOf = (place: string): Holds => {
      const known = at.get(place) ?? holdsAt(place, owned);
      at.set(place, known);
      return known;
    };
    for (const { things, id, path } of referred) {
      if (!isNeeded(path)) continue;
      const to = things.map((thing) => named.get(thing)?.get(id)).find((at) => at !== undefined);
      if (to === undefined) continue;
      const there = holdsOf(to);
      const missing = there.size === 0 ? null : unmet(holdsAt(path, owned), there, book);
      if (missing)
        say(
          path,
          `${id} is not there in every version this is in (${missing})`,
          `give this the \`when\` of ${id}, or have it in that version as well`,
        );
    }
  },
};

/** One thing named alone, and what a range or an axis is made of. A list of several names what is there of them. */
const isNeeded = (path: string): boolean =>
  !/lookAlikes|alsoTakes|heldBy|onlyIf|relearns|\.of$/.test(path) &&
  (!path.endsWith("]") || /^ranges\[\d+\]\.(applied|braking)|^elements\[\d+\]\.joins/.test(path));

/** A condition with the place of what it is said of. */
interface Owned {
  owner: string;
  when: Condition["when"];
}
const ownersOf = (conditions: readonly Condition[]): Owned[] =>
  conditions.map(({ path, when }) => ({ owner: path.replace(/\.?when$/, ""), when }));

/** Under which conditions a place of the document stands, all around it taken together. */
function holdsAt(path: string, owned: readonly Owned[]): Holds {
  const holds = new Map<string, Set<string>>();
  for (const { owner, when } of owned) {
    if (!path.startsWith(`${owner}.`) && path !== owner) continue;
    for (const [trait, values] of Object.entries(when)) {
      const before = holds.get(trait);
      holds.set(trait, new Set(before ? values.filter((value) => before.has(value)) : values));
    }
  }
  return holds;
}

/** A version in which the one holds and the other does not, in words; null when there is none. */
function unmet(one: Holds, other: Holds, { traits }: Book): string | null {
  for (const [trait, values] of other) {
    const all = one.get(trait) ?? Object.keys(traits.find(({ id }) => id === trait)?.values ?? {});
    const lost = [...all].find((value) => !values.has(value));
    if (lost !== undefined) return `${trait} ${lost}`;
  }
  return null;
}

/** Everything that belongs to the unit comes off with some step, itself or with what it is part of. */
export const takenOut: Check = {
  reads: ["teardown", "parts"],
  check(book, _conditions, say) {
    const { teardown = [], parts } = book;
    if (teardown.length === 0) return;
    const named = new Set(teardown.flatMap((step) => step.parts ?? []));
    const byId = new Map(parts.map((part) => [part.id, part]));
    const comes = (id: string, seen: ReadonlySet<string>): boolean => {
      const of = byId.get(id)?.of;
      return named.has(id) || (of !== undefined && !seen.has(of) && comes(of, new Set([...seen, of])));
    };
    // What everything else sits in stays where it is, and so does what the vehicle keeps; fluid is drained.
    const stays = ({ kind, of, heldBy, inVehicle }: Book["parts"][number]): boolean =>
      inVehicle === true || kind === "fluid" || (kind === "housing" && !of && !heldBy);
    parts.forEach((part, i) => {
      if (!stays(part) && !comes(part.id, new Set([part.id])))
        say(
          `parts[${i}]`,
          `no step takes ${part.id} out`,
          "name it in the step it comes off with, say what it is part `of`, or that it stays `inVehicle`",
        );
    });
  },
};

/** Whether two conditions can hold in the same version. */
const together = (one: Holds, other: Holds): boolean =>
  [...other].every(([trait, values]) => {
    const theirs = one.get(trait);
    return !theirs || [...theirs].some((value) => values.has(value));
  });

/** Two check balls in one place could both be looked for there. */
export const ballPlaces: Check = {
  reads: ["checkBalls"],
  check({ checkBalls = [] }, conditions, say: Say) {
    const owned = ownersOf(conditions);
    const holds = checkBalls.map((_ball, i) => holdsAt(`checkBalls[${i}]`, owned));
    checkBalls.forEach(({ id, at: [x, y] }, i) => {
      const other = checkBalls.findIndex(
        ({ at: [a, b] }, j) =>
          j < i && a === x && b === y && together(holds[i] ?? new Map(), holds[j] ?? new Map()),
      );
      if (other >= 0)
        say(
          `checkBalls[${i}].at`,
          `${id} lies where ${checkBalls[other]?.id} lies`,
          "correct the position, or tell by `when` which version has which",
        );
    });
  },
};
