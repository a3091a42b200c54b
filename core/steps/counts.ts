import {
  boltsOf,
  configurations,
  resolve,
  undecidedBy,
  type Applied,
  type Configuration,
  type Trait,
} from "../book";
import type { FactOf, Job } from "../fact";
import { lengthText, type LengthUnit, type Nm } from "../quantity";

/** Something that is counted as it comes out: plates of a pack, bearings, bolts of one length. */
export interface Count {
  /** What a fact counts it under. */
  id: string;
  name: string;
  /** The pack, for its plates. */
  element?: string;
  expected: number;
  fact: FactOf<"count"> | null;
  found: number | null;
  /** What must be seen before a count can be held against the book; empty where it is known. */
  waitsFor: string;
}

/** Check balls: where the book has one, and what was seen there. */
export interface BallCount {
  expected: { id: string; name: string; at: readonly [number, number] }[];
  found: FactOf<"balls"> | null;
  missing: string[];
  extra: number;
  /** What must be seen before the number can be right or wrong; empty where it is known. */
  waitsFor: string;
}

/** Another version of the unit under which what was counted would be right. */
export interface OtherVersion {
  trait: string;
  value: string;
}

/** Everything the book counts in this configuration and scope, packs first. */
export function counts(
  job: Job,
  { scoped, asFound, unseen }: Pick<Applied, "scoped" | "unseen"> & Partial<Pick<Applied, "asFound">>,
): Count[] {
  return expectedCounts(asFound?.scoped ?? scoped, scoped.unit.lengthUnit, unseen).map((one): Count => {
    const fact = job.counts.get(one.id) ?? null;
    return { ...one, fact, found: fact?.body.found ?? null };
  });
}

type Expected = Omit<Count, "fact" | "found">;

function expectedCounts(
  work: Applied["scoped"],
  unit: LengthUnit,
  unseen: readonly Trait[] = [],
): Expected[] {
  const waits = (entry: unknown): string => waitsFor(entry, unseen);
  const plates = work.packs.flatMap((pack) =>
    pack.stack
      .filter(({ role }) => role === "friction" || role === "steel")
      .map((entry): Expected => ({
        id: entry.part,
        element: pack.element,
        expected: entry.count ?? 1,
        name: `${pack.element.toUpperCase()} ${entry.role}s`,
        waitsFor: waits(pack.stack),
      })),
  );
  const counted = new Set(plates.map(({ id }) => id));
  const bearings = work.parts
    .filter(({ id, kind }) => kind === "thrust bearing" && !counted.has(id))
    .map((part): Expected => ({
      id: part.id,
      name: part.name,
      expected: part.count ?? 1,
      waitsFor: waits(part),
    }));
  const springs = work.parts
    .filter(({ kind, count }) => kind === "spring" && (count ?? 1) > 1)
    .map((part): Expected => ({
      id: part.id,
      name: part.name,
      expected: part.count ?? 1,
      waitsFor: waits(part),
    }));
  const bolts = (work.fasteners ?? []).flatMap((group) => {
    const { id, name, places, length } = group;
    const byLength = new Map<Nm | undefined, number>();
    for (const place of places) {
      const its = place.length ?? length;
      byLength.set(its, (byLength.get(its) ?? 0) + 1);
    }
    // Bolts of one length are counted by their places; only several lengths can be mixed up.
    return byLength.size < 2
      ? []
      : [...byLength].map(([its, count]): Expected => ({
          id: boltsOf(id, its),
          expected: count,
          waitsFor: waits(group),
          name: its === undefined ? name : `${name}, ${lengthText(its, unit)}`,
        }));
  });
  return [...plates, ...bearings, ...springs, ...bolts];
}

/** The names of the traits that decide an entry and that nobody has seen. */
const waitsFor = (entry: unknown, unseen: readonly Trait[]): string =>
  undecidedBy(entry, { unseen: [...unseen] })
    .map(({ name }) => name)
    .join(", ");

/** Check balls in this version against those counted; null while nothing is to be counted. */
export function ballCount(
  job: Job,
  { scoped, unseen }: Pick<Applied, "scoped" | "unseen">,
): BallCount | null {
  const expected = (scoped.checkBalls ?? []).map(({ id, name, at }) => ({ id, name: name ?? id, at }));
  if (expected.length === 0) return null;
  const found = job.balls;
  const there = new Set(found?.body.there ?? []);
  return {
    expected,
    found,
    extra: found?.body.extra ?? 0,
    waitsFor: waitsFor(scoped.checkBalls, unseen),
    missing: found ? expected.filter(({ id }) => !there.has(id)).map(({ id }) => id) : [],
  };
}

/**
 * Versions that differ from this configuration in one trait and under which what was counted would be right: a plate too many may mean that
 * the unit is another than was thought.
 *
 * @param of what was counted, or `balls`.
 */
export function otherVersions(
  job: Job,
  { book, scoped }: Pick<Applied, "book" | "scoped">,
  configuration: Configuration,
  depths: readonly string[],
  of: string,
): OtherVersion[] {
  const matches = (unit: Applied["scoped"]): boolean => {
    if (of !== "balls") {
      const one = expectedCounts(unit, unit.unit.lengthUnit).find((each) => each.id === of);
      return (one?.expected ?? 0) === job.counts.get(of)?.body.found;
    }
    const said = job.balls?.body;
    const total = (said?.there.length ?? 0) + (said?.extra ?? 0);
    return (unit.checkBalls ?? []).length === total;
  };
  if (matches(scoped)) return [];
  return book.traits.flatMap((trait) =>
    configurations([trait], new Set([trait.id]))
      .filter((change) => change[trait.id] !== configuration[trait.id])
      .filter((change) => matches(resolve(book, { ...configuration, ...change }, depths).scoped))
      .map((change) => ({ trait: trait.id, value: change[trait.id] ?? "" })),
  );
}
