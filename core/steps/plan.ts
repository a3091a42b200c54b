import { stationOf, type Applied, type Book, type FastenerGroup, type Part, type Step } from "../book";
import type { FactOf, Job } from "../fact";
import { Bench } from "./bench";

/** What stands in the way of a step, or what doing it now costs. Nothing here forbids: the builder decides. */
export type Notice =
  /** Parts or fasteners still in, which hold what comes off. */
  | { kind: "held"; part: string; by: string }
  /** Fasteners of this very step that are not all out. */
  | { kind: "fasteners"; group: string; out: number; of: number }
  /** What this step fits holds something that is still out. */
  | { kind: "closes"; part: string; over: string }
  /** Parts that go in and are not clean. */
  | { kind: "dirty"; parts: readonly string[] }
  /** An earlier step left undone that cannot be made good once this is off: its figures are as found or never. */
  | { kind: "spoils"; step: string; what: readonly string[] };

/** A step of the book as this job stands. */
export interface StepState {
  step: Step;
  fact: FactOf<"step"> | null;
  at: "done" | "skipped" | "next" | "passed over" | "ahead";
  parts: Part[];
  fasteners: FastenerGroup[];
  notices: Notice[];
}

/** Taking down, or building up: the section of the book its steps stand in. */
export type Direction = "teardown" | "build";

/** The steps of a job, down or up, each as it stands. */
export interface Plan {
  steps: StepState[];
  bench: Bench;
  next: StepState | null;
  /** The step last ticked, whoever did it. */
  last: StepState | null;
}

/**
 * The book's steps for this configuration and scope, and how far this job is. Steps may be done in any order; one that was passed over keeps
 * its place and says so.
 *
 * @param direction taking down, unless told otherwise.
 */
export function planOf(
  job: Job,
  applied: Pick<Applied, "present" | "scoped"> & Partial<Pick<Applied, "asFound">>,
  direction: Direction = "teardown",
): Plan {
  const bench = new Bench(job, applied);
  // What comes out is what was found, whatever goes in.
  const { present, scoped } = (direction === "teardown" ? applied.asFound : null) ?? applied;
  const said = job.steps;
  const parts = new Map(scoped.parts.map((part) => [part.id, part]));
  const groups = new Map((scoped.fasteners ?? []).map((group) => [group.id, group]));
  const book = scoped[direction] ?? [];
  const did = (step: Step): "done" | "skipped" | null => {
    const last = said.get(step.id)?.body.did;
    return last === "done" || last === "skipped" ? last : null;
  };
  const lastDone = book.findLastIndex((step) => did(step) !== null);
  const nextOne =
    book.find((step, i) => did(step) === null && i > lastDone) ?? book.find((step) => did(step) === null);
  const steps = book.map((step, i): StepState => {
    const at = did(step) ?? (step === nextOne ? "next" : i < lastDone ? "passed over" : "ahead");
    return {
      step,
      at,
      fact: said.get(step.id) ?? null,
      parts: (step.parts ?? []).flatMap((id) => parts.get(id) ?? []),
      fasteners: (step.fasteners ?? []).flatMap((id) => groups.get(id) ?? []),
      notices: did(step)
        ? []
        : direction === "build"
          ? buildNotices(step, bench, parts)
          : noticesOf(
              step,
              book.slice(0, i).filter((one) => did(one) === null),
              bench,
              present,
            ),
    };
  });
  const ticked = steps.filter(({ at }) => at === "done" || at === "skipped");
  const last = ticked.reduce<StepState | null>(
    (latest, one) => (!latest || (one.fact?.at ?? "") >= (latest.fact?.at ?? "") ? one : latest),
    null,
  );
  return { steps, bench, next: steps.find(({ at }) => at === "next") ?? null, last };
}

/** What a build step shuts in or lets in: something it holds that is still out, and what is not clean. */
function buildNotices(step: Step, bench: Bench, parts: ReadonlyMap<string, Part>): Notice[] {
  const fitted = step.parts ?? [];
  const own = new Set([...fitted, ...(step.fasteners ?? [])]);
  const closes = [...parts.values()].flatMap(({ id, heldBy = [] }): Notice[] => {
    const thing = bench.things.get(id);
    if (!thing || own.has(id) || !bench.isOff(id)) return [];
    return heldBy.filter((by) => own.has(by)).map((part) => ({ kind: "closes", part, over: id }));
  });
  const dirty = bench.dirtyOf(fitted).map(({ part }) => part.id);
  return [...closes, ...(dirty.length > 0 ? [{ kind: "dirty", parts: dirty } as const] : [])];
}

function noticesOf(step: Step, undone: readonly Step[], bench: Bench, unit: Book): Notice[] {
  const own = new Set([...(step.parts ?? []), ...(step.fasteners ?? [])]);
  const held = (step.parts ?? []).flatMap((part) =>
    (unit.parts.find(({ id }) => id === part)?.heldBy ?? [])
      .filter((by) => !own.has(by))
      .filter((by) => (bench.things.has(by) ? !bench.isOff(by) : bench.bolts.has(by) && !bench.allOut(by)))
      .map((by): Notice => ({ kind: "held", part, by })),
  );
  const fasteners = (step.fasteners ?? []).flatMap((group): Notice[] => {
    const bolts = bench.bolts.get(group);
    return bolts && bolts.placesOut.length < bolts.count
      ? [{ kind: "fasteners", group, out: bolts.placesOut.length, of: bolts.count }]
      : [];
  });
  const spoils = undone.flatMap((one): Notice[] => {
    const what = one.parts?.length ? [] : spoiledBy(step, one, unit);
    return what.length > 0 ? [{ kind: "spoils", step: one.id, what }] : [];
  });
  return [...held, ...fasteners, ...spoils];
}

/** Stations whose parts do not stand between the two ends of a shaft. */
const BESIDE_THE_SHAFT: ReadonlySet<string> = new Set(["converter", "control", "fork", "park lock"]);

/**
 * What of a step that only reads can no longer be had once this one's parts are off: figures read on those parts, and where the book names no
 * part, at their station. What is only noted down goes with the figures of its step; alone, with the first part that comes off.
 */
function spoiledBy(
  step: Step,
  read: Step,
  { parts, chains, stations: all, measurements = [] }: Book,
): string[] {
  const own = new Set(step.parts ?? []);
  if (own.size === 0) return [];
  const taken = parts.filter(({ id, of }) => own.has(id) || (of !== undefined && own.has(of)));
  const ids = new Set(taken.map(({ id }) => id));
  const stations = new Set(taken.flatMap((part) => stationOf(parts, part) ?? []));
  const onIt = ({ parts: on = [], station, kind }: Book["chains"][number]): boolean => {
    if (on.length > 0) return on.some((id) => ids.has(id));
    const at = all.find(({ id }) => id === station);
    if (!at) return false;
    if (kind !== "end play" && kind !== "preload") return stations.has(at.id);
    // A play along a shaft is of everything that stands on it.
    return all.some(
      (one) => stations.has(one.id) && (one.line ?? 0) === (at.line ?? 0) && !BESIDE_THE_SHAFT.has(one.kind),
    );
  };
  const figures = [
    ...(read.chains ?? []).filter((id) => {
      const chain = chains.find((one) => one.id === id);
      return chain !== undefined && onIt(chain);
    }),
    ...(read.measurements ?? []).filter((id) => {
      const part = measurements.find((one) => one.id === id)?.part;
      return part !== undefined && ids.has(part);
    }),
  ];
  const noted = (read.chains?.length ?? 0) + (read.measurements?.length ?? 0) === 0 || figures.length > 0;
  // What has a page of its own can still be noted there.
  const notes = (read.record ?? []).flatMap(({ what, on }) => (on ? [] : [what]));
  return [...figures, ...(noted ? notes : [])];
}
