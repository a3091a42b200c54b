import { packEntries, packId } from "../book";
import type { FactOf, Job } from "../fact";
import { exactLength, type Nm } from "../quantity";
import { codeFor, isRecord } from "../shape";

type Act = FactOf<"came-off">["body"];
type Entry = Record<string, unknown>;

/** What a job did otherwise than its book says, or without it. */
export interface Learned {
  /** What came off that the book has no step for. */
  acts: readonly Act[];
  /** Steps of the book that were passed over, with the reason. */
  skipped: readonly { step: string; reason: string }[];
}

/** What the work on a unit tells of its book; closed and open jobs alike. */
export function learnedOf(job: Job): Learned {
  return {
    acts: job.cameOff.map(({ body }) => body),
    skipped: [...job.steps.values()].flatMap(({ body }) =>
      body.did === "skipped" ? [{ step: body.step, reason: body.reason }] : [],
    ),
  };
}

/** A picture of a job that is kept for its book: by its digest, with its size. */
export interface KeptPicture {
  digest: string;
  width: number;
  height: number;
}

/** A document that learned from a job, and in words what it did. */
export interface Taught {
  document: Entry;
  words: string[];
}

/** A document while it learns. */
class Learning {
  readonly document: Entry;
  readonly words: string[] = [];
  readonly lengthUnit: "mm" | "in";

  constructor(
    document: unknown,
    private readonly pictures: ReadonlyMap<string, KeptPicture>,
  ) {
    this.document = isRecord(document) ? { ...document } : {};
    const { unit } = this.document;
    this.lengthUnit = isRecord(unit) && unit.lengthUnit === "in" ? "in" : "mm";
  }

  list(section: string): readonly Entry[] {
    const known = this.document[section];
    return Array.isArray(known) ? (known as Entry[]) : [];
  }
  set(section: string, list: readonly Entry[]): void {
    if (list.length > 0) this.document[section] = list;
  }
  /** Adds what is not there yet under its key. */
  add(section: string, key: string, entries: readonly Entry[]): void {
    const fresh = entries.filter((entry) => !this.list(section).some((one) => one[key] === entry[key]));
    this.set(section, [...this.list(section), ...fresh]);
  }
  /** An id that nothing of a section has: made of words, counted on where it is taken. */
  fresh(section: string, words: string): string {
    const taken = new Set(this.list(section).map(({ id }) => id));
    const base = codeFor(words) || "thing";
    let id = base;
    for (let n = 2; taken.has(id); n++) id = `${base}-${n}`;
    return id;
  }
  /** A picture of the job among the book’s: its id there; none where it is not kept. */
  picture(photo: string | undefined, name: string): { picture?: string } {
    const kept = photo === undefined ? undefined : this.pictures.get(photo);
    if (!kept) return {};
    const known = this.list("pictures").find(({ digest }) => digest === kept.digest);
    if (typeof known?.id === "string") return { picture: known.id };
    const id = this.fresh("pictures", name);
    this.set("pictures", [...this.list("pictures"), { id, name, ...kept }]);
    return { picture: id };
  }
  length(length: Nm): string {
    const { figure, unit } = exactLength(length, this.lengthUnit);
    return `${figure} ${unit}`;
  }
}

/**
 * Writes what was done by hand into a book’s document: each act a step of taking down in its order, a step of building in the reverse of it, its
 * parts, bolts and plates. Nothing is invented: a torque, a pattern, a limit that nobody said stays out, and what was measured once is no limit.
 *
 * @param document of the book as it is now.
 * @param learned of one job.
 * @param number the job’s, which stands as the source.
 * @param pictures the job’s pictures that are kept for the book, by their ids.
 * @returns the document, to be checked like any other, as a draft.
 */
export function learn(
  document: unknown,
  { acts, skipped }: Learned,
  number: number,
  pictures: ReadonlyMap<string, KeptPicture> = new Map(),
): Taught {
  const learning = new Learning(document, pictures);
  // Of several after one step the last stands last; what stood before all stands first.
  const behind = new Map<string, string>();
  for (const act of acts) {
    const { down, up } = entriesOf(learning, act, number);
    const after = act.after ?? "";
    const place = behind.get(after) ?? after;
    insert(learning, place, down, up);
    behind.set(after, String(down.id));
    learning.words.push(
      `${act.what}: comes off${act.after ? ` after ${nameOf(learning, act.after)}` : ""}, and goes in again`,
    );
  }
  for (const { step, reason } of skipped) {
    for (const section of ["teardown", "build"])
      learning.set(
        section,
        learning.list(section).map((one) => {
          if (one.id !== step) return one;
          const note = `Job ${number} passed it over: ${reason}.`;
          const how = typeof one.how === "string" ? one.how : "";
          if (how.includes(note)) return one;
          learning.words.push(`${String(one.name)}: passed over, ${reason}`);
          return { ...one, how: `${how} ${note}`.trim() };
        }),
      );
  }
  return { document: learning.document, words: learning.words };
}

const nameOf = (learning: Learning, id: string): string => {
  const name = learning.list("teardown").find((one) => one.id === id)?.name;
  return typeof name === "string" ? name : id;
};

/** The two steps of an act, behind the step it was done after; building goes the other way round. */
function insert(learning: Learning, after: string, down: Entry, up: Entry): void {
  const downs = learning.list("teardown");
  const at = downs.findIndex(({ id }) => id === after);
  learning.set("teardown", [...downs.slice(0, at + 1), down, ...downs.slice(at + 1)]);
  const ups = learning.list("build");
  // What came off just before goes in just after.
  const own = new Set(partsOf(downs[at] ?? {}));
  const before = at < 0 ? ups.length : ups.findIndex((one) => partsOf(one).some((part) => own.has(part)));
  const place = before < 0 ? ups.length : before;
  learning.set("build", [...ups.slice(0, place), up, ...ups.slice(place)]);
}

const partsOf = ({ parts }: Entry): unknown[] => (Array.isArray(parts) ? (parts as unknown[]) : []);

/** What an act makes in the document, and its two steps. */
function entriesOf(learning: Learning, act: Act, number: number): { down: Entry; up: Entry } {
  const { what, part: kind, count, way, bolts, plates, balls, at, photo } = act;
  const parts: string[] = [];
  const chains: string[] = [];
  if (plates) {
    const { packs, parts: own, chains: figures } = platesOf(learning, plates, number);
    parts.push(...own);
    chains.push(...figures);
    learning.words.push(`${plates.pack}: ${packs}`);
  } else {
    const known = learning.list("parts").find((one) => one.name === what);
    const id = typeof known?.id === "string" ? known.id : learning.fresh("parts", what);
    learning.add("parts", "id", [
      {
        id,
        name: what,
        number: `not known, ${what}`,
        ...(kind ? { kind } : {}),
        ...(count > 1 ? { count } : {}),
      },
    ]);
    parts.push(id);
  }
  const places = at.map(([x, y]) => [Math.round(x / 10), Math.round(y / 10)]);
  const group = bolts && learning.fresh("fasteners", `${what} bolts`);
  if (bolts && group)
    learning.add("fasteners", "id", [
      {
        id: group,
        name: `${what} bolts`,
        count: bolts.count,
        size: bolts.size || "not known",
        ...(bolts.length === undefined ? {} : { length: learning.length(bolts.length) }),
        ...(!balls && places.length === bolts.count
          ? { places: places.map((one) => ({ at: one })), ...learning.picture(photo, `${what}: its bolts`) }
          : {}),
      },
    ]);
  const laid = balls?.size !== undefined && places.length === balls.count ? balls.size : null;
  if (laid !== null)
    for (const one of places)
      learning.add("checkBalls", "id", [
        {
          id: learning.fresh("checkBalls", `${what} ball`),
          at: one,
          size: learning.length(laid),
          ...learning.picture(photo, `${what}: its balls`),
        },
      ]);
  const down = learning.fresh("teardown", `t-${codeFor(what)}`);
  // A picture without bolts or balls on it shows the part as it sat.
  const sat = group || laid !== null ? {} : learning.picture(photo, `${what} as it sat`);
  const step = { parts, ...(group ? { fasteners: [group] } : {}), ...sat };
  return {
    down: {
      id: down,
      name: `${what} off`,
      ...step,
      ...(way ? { round: way } : {}),
      ...(balls && laid === null
        ? {
            record: [
              {
                id: `balls-${down}`,
                what: `How many check balls lie in it: ${balls.count} did on job ${number}`,
              },
            ],
          }
        : {}),
    },
    up: {
      id: learning.fresh("build", `b-${codeFor(what)}`),
      name: `${what} in`,
      ...step,
      ...(way ? { fit: parts.slice(0, 1).map((part) => ({ part, round: way })) } : {}),
      ...(chains.length > 0 ? { chains } : {}),
    },
  };
}

/** A pack as its plates were counted and measured: what it came to is told, and is no limit. */
function platesOf(
  learning: Learning,
  { pack, frictions, steels, friction, steel, clearance }: NonNullable<Act["plates"]>,
  number: number,
): { packs: string; parts: string[]; chains: string[] } {
  const made = packEntries(
    { name: pack, kind: "clutch", frictions, steels, soak: "dry", rings: [], within: "" },
    { checked: "" },
  );
  const thick: Readonly<Record<string, Nm | undefined>> = { friction, steel };
  const withThickness = made.packs.map((one) => ({
    ...one,
    stack: (one.stack as Entry[]).map((entry) => {
      const length = thick[String(entry.role)];
      return length === undefined ? entry : { ...entry, thickness: learning.length(length) };
    }),
  }));
  const found =
    clearance === undefined
      ? ""
      : `As found ${learning.length(clearance)} on job ${number}: one unit, no limit.`;
  const chains = made.chains.map((one): Entry => ({
    ...one,
    spec: {},
    read: { ...(one.read as Entry), ...(found ? { how: found } : {}) },
  }));
  const before = learning.list("packs").some(({ element }) => element === packId(pack));
  learning.add("elements", "id", made.elements);
  learning.add("packs", "element", withThickness);
  learning.add("chains", "id", chains);
  learning.add("parts", "id", made.parts);
  return {
    packs: before ? "is in the book" : `${frictions} frictions, ${steels} steels${found ? `; ${found}` : ""}`,
    parts: made.parts.map(({ id }) => String(id)),
    chains: chains.map(({ id }) => String((id as string | undefined) ?? "")),
  };
}
