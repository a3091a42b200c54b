import type { StackEntry } from "../book";
import { nm, type Nm } from "../quantity";

/** One plate as it lies in the drum. */
export interface Plate {
  role: StackEntry["role"];
  part: string;
  /** Null where the book does not know it yet. */
  thickness: Nm | null;
  /** Only of a friction. */
  faced?: StackEntry["faced"];
  /** The seat it is chosen for; its thickness is then the usual one. */
  seat?: string;
}

/**
 * The plates one by one, from the piston outwards. A group of steels and a group of frictions that stand next to each
 * other in the book alternate in the drum, beginning with the one listed first.
 */
export function plates(stack: readonly StackEntry[]): Plate[] {
  const result: Plate[] = [];
  for (let i = 0; i < stack.length; i++) {
    const entry = stack[i] as StackEntry;
    const next = stack[i + 1];
    if (next && alternates(entry, next)) {
      const longer = Math.max(countOf(entry), countOf(next));
      for (let n = 0; n < longer; n++) {
        if (n < countOf(entry)) result.push(plate(entry));
        if (n < countOf(next)) result.push(plate(next));
      }
      i++;
    } else {
      for (let n = 0; n < countOf(entry); n++) result.push(plate(entry));
    }
  }
  return result;
}

/** Plates that go in with one touch: those that alternate, or some of a kind. */
export interface PlateGroup {
  /** Places in the order they go in, from 0; `to` is not in it any more. */
  from: number;
  to: number;
}

/** The plates as they are put in, in groups: steels and frictions by turns, and every other plate by itself. */
export function plateGroups(list: readonly Pick<Plate, "role" | "part" | "seat">[]): PlateGroup[] {
  const isOfMany = ({ role, seat }: Pick<Plate, "role" | "seat">): boolean =>
    (role === "steel" || role === "friction") && seat === undefined;
  return list.reduce<PlateGroup[]>((groups, plate, i) => {
    const last = groups.at(-1);
    const before = list[i - 1];
    if (last && before && isOfMany(before) && isOfMany(plate)) last.to = i + 1;
    else groups.push({ from: i, to: i + 1 });
    return groups;
  }, []);
}

/** How many of it there are. */
export const countOf = (entry: StackEntry): number => entry.count ?? 1;
const plate = ({ role, part, thickness, faced, seat }: StackEntry): Plate => ({
  role,
  part,
  thickness: thickness ?? null,
  ...(role === "friction" ? { faced: faced ?? "both sides" } : {}),
  ...(seat === undefined ? {} : { seat }),
});
const alternates = (a: StackEntry, b: StackEntry): boolean =>
  // A plate that is chosen lies where it is listed.
  a.seat === undefined && b.seat === undefined && alternateRoles(a, b);
const alternateRoles = (a: StackEntry, b: StackEntry): boolean =>
  (a.role === "steel" && b.role === "friction") ||
  (a.role === "friction" && b.role === "steel") ||
  // Single-sided plates, lugged inside and outside by turns.
  (a.role === "friction" && b.role === "friction" && a.faced !== b.faced);

/** How many frictions and steels there are. */
export function counts(stack: readonly StackEntry[]): { frictions: number; steels: number } {
  const of = (role: StackEntry["role"]): number =>
    stack.filter((entry) => entry.role === role).reduce((sum, entry) => sum + countOf(entry), 0);
  return { frictions: of("friction"), steels: of("steel") };
}

/** How many of a plate this version takes, over all packs; null for what is no plate. */
export function platesOf(packs: readonly { stack: readonly StackEntry[] }[], part: string): number | null {
  const entries = packs.flatMap(({ stack }) => stack.filter((entry) => entry.part === part));
  return entries.length === 0 ? null : entries.reduce((sum, entry) => sum + countOf(entry), 0);
}

/** How many pieces of a part this version takes: of a plate as many as its packs have, of anything else what its entry says. */
export const piecesOf = (
  packs: readonly { stack: readonly StackEntry[] }[],
  { id, count }: { id: string; count?: number },
): number => platesOf(packs, id) ?? count ?? 1;

/** How many of its number are bought for this version: of what is sold as a set one, whatever lies in it. */
export const boughtOf = (
  packs: readonly { stack: readonly StackEntry[] }[],
  part: { id: string; count?: number; sold?: string },
): number => (part.sold === "as a set" ? 1 : piecesOf(packs, part));

/**
 * The plates' thickness added up; a piston is what they rest on, not part of the sum, and a plate that is chosen is a link of its own.
 *
 * @returns null where the book does not know one of them, or nobody has counted them.
 */
export function thicknessOf(stack: readonly StackEntry[]): Nm | null {
  const own = stack.filter(({ role, seat }) => role !== "piston" && seat === undefined);
  if (stack.length === 0 || own.some(({ thickness }) => thickness === undefined)) return null;
  return nm(own.reduce((sum, entry) => sum + countOf(entry) * (entry.thickness ?? 0), 0));
}
