import { behindOf, checksOf, type Applied, type Book } from "../book";
import { isKind, type Fact, type FactOf } from "./fact";
import { Job, seatFacts, type SeatFacts } from "./job";
import { VERIFY } from "../torque";

/** What laid a step open again: a step undone, or a piece exchanged, at itself or behind it. */
export interface Reopened {
  by: FactOf<"step" | "fitting" | "taken-out">;
  /** The step it was said of. */
  step: string;
}

/** A step of the build, and since when what was said of it counts: places among the facts, −1 where nothing was opened. */
interface Opened {
  reopened: Reopened | null;
  ofStep: number;
  /** With a piece exchanged at the step itself: what is seen to last is seen to again. */
  ofPiece: number;
}

type Work = Pick<Applied, "scoped" | "chains">;
type Opening = Pick<Reopened, "by"> & { place: number };

const known = new WeakMap<Job, { applied: Work; job: Job }>();

/**
 * The job with what still says something of what is assembled now. A step undone and a piece exchanged lay open everything that depended on it: its
 * steps, answers, torques, soaks, air and figures as built say nothing any more. Computed from what stands behind what, never told by hand; the facts stay.
 *
 * @returns the very same job where nothing was laid open.
 */
export function asAssembled(job: Job, applied: Work): Job {
  const found = known.get(job);
  if (found?.applied === applied) return found.job;
  const made = assembled(job, applied);
  known.set(job, { applied, job: made });
  return made;
}

function assembled(job: Job, applied: Work): Job {
  const { build = [] } = applied.scoped;
  // Nothing was said of the build yet: nothing of it can be laid open.
  if (!isBuilding(job, build)) return job;
  const opened = openedSteps(job, applied);
  if ([...opened.values()].every(({ reopened, ofPiece }) => !reopened && ofPiece < 0)) return job;
  const isVoid = voids(opened, applied);
  const gone = new Set(job.live.filter(isVoid));
  const live = job.live.filter((fact) => !gone.has(fact));
  const touched = touchedBy([...gone], build);
  // Of what nobody had begun nothing was opened.
  const reopened = new Map(
    [...opened].flatMap(([id, one]): [string, Reopened][] =>
      one.reopened && (touched.has(id) || one.reopened.step === id) ? [[id, one.reopened]] : [],
    ),
  );
  return new Job(live, job.stored, reopened);
}

const verified = (group: string): string => `${group} ${VERIFY.id}`;

/** The steps that facts were said of, by what they ask for. */
function touchedBy(facts: readonly Fact[], build: NonNullable<Book["build"]>): Set<string> {
  const asks = new Map<string, string[]>();
  for (const { id, chains = [], measurements = [], airChecks = [], fasteners = [], verifies = [] } of build)
    for (const asked of [...chains, ...measurements, ...airChecks, ...fasteners, ...verifies.map(verified)])
      asks.set(asked, [...(asks.get(asked) ?? []), id]);
  return new Set(
    facts.flatMap(({ body }): string[] => {
      switch (body.kind) {
        case "step":
        case "check":
        case "plates":
        case "laid":
        case "timer":
        case "deviation":
          return [body.step];
        case "air":
          return asks.get(body.element) ?? [];
        case "tightened":
          return asks.get(body.round === VERIFY.id ? verified(body.group) : body.group) ?? [];
        case "reading":
        case "conditions":
          return asks.get(body.chain) ?? [];
        case "figure":
          return asks.get(body.id) ?? [];
        default:
          return [];
      }
    }),
  );
}

/** Whether anything was said of the build yet. */
export const isBuilding = (job: Job, build: Book["build"] = []): boolean =>
  job.checks.size +
    job.plates.size +
    job.laid.size +
    job.timers.size +
    job.airs.size +
    job.tightened.size +
    job.deviations.size >
    0 || build.some(({ id }) => job.steps.has(id));

function openedSteps(job: Job, { scoped, chains }: Work): Map<string, Opened> {
  const { all } = behindOf(scoped);
  const places = new Map(job.live.map((fact, i) => [fact, i]));
  const opening = (by: Reopened["by"] | undefined): Opening[] =>
    by ? [{ by, place: places.get(by) ?? -1 }] : [];
  const steppedOn = job.live.flatMap((fact, i) => (isKind(fact, "step") ? [{ body: fact.body, i }] : []));
  const wasDone = (step: string, { place }: Opening): boolean =>
    steppedOn.findLast(({ body, i }) => body.step === step && i < place)?.body.did === "done";
  const last = (list: readonly Opening[]): Opening | null =>
    list.reduce<Opening | null>((latest, one) => (latest && latest.place >= one.place ? latest : one), null);
  const steps = new Map(
    (scoped.build ?? []).map(({ id, chains: read = [] }) => {
      const seats = chains.filter(({ chain }) => read.includes(chain.id)).flatMap((one) => one.seats);
      const exchanged = seats.flatMap((seat) => {
        const { fittings, outs } = seatFacts(job, seat.id);
        return [...fittings.filter(({ body }) => body.fit > 0), ...cameOut(outs)].flatMap(opening);
      });
      return [
        id,
        {
          undone: last(opening(job.undone.get(id))),
          exchanged: last(exchanged),
          // Until a step is done, trying pieces is part of it: nothing stands on it yet.
          openedFor: last(exchanged.filter((one) => wasDone(id, one))),
        },
      ] as const;
    }),
  );
  return new Map(
    [...steps].map(([id, own]): [string, Opened] => {
      let latest = own.undone ? { one: own.undone, step: id } : null;
      for (const behind of all.get(id) ?? [])
        for (const one of [steps.get(behind)?.undone, steps.get(behind)?.openedFor])
          if (one && (!latest || one.place > latest.one.place)) latest = { one, step: behind };
      const ofStep = latest?.one.place ?? -1;
      return [
        id,
        {
          reopened: latest && { by: latest.one.by, step: latest.step },
          ofStep,
          ofPiece: Math.max(ofStep, own.exchanged?.place ?? -1),
        },
      ];
    }),
  );
}

/** Each time a piece came out or went in again, but for what was taken back: it never came out. */
const cameOut = (outs: SeatFacts["outs"]): SeatFacts["outs"] =>
  outs.reduce<SeatFacts["outs"]>(
    (all, fact) => (fact.body.was === "not-out" ? all.slice(0, -1) : [...all, fact]),
    [],
  );

/** Whether a fact was said of something that was laid open since. */
function voids(
  opened: ReadonlyMap<string, Opened>,
  { scoped }: Work,
): (fact: Fact, place: number) => boolean {
  const build = scoped.build ?? [];
  const last = new Set(
    build.flatMap((step) =>
      checksOf(scoped, step).flatMap((one) => (one.last ? [`${step.id} ${one.id}`] : [])),
    ),
  );
  const since = (step: string, which: "ofStep" | "ofPiece" = "ofStep"): number =>
    opened.get(step)?.[which] ?? -1;
  /** By what a step asks for: since when it counts. */
  const sinceOf = (
    key: "chains" | "measurements" | "airChecks" | "fasteners",
    which: "ofStep" | "ofPiece",
  ) => {
    const by = new Map<string, number>();
    for (const step of build)
      for (const id of step[key] ?? []) by.set(id, Math.max(by.get(id) ?? -1, since(step.id, which)));
    return (id: string): number => by.get(id) ?? -1;
  };
  const chain = sinceOf("chains", "ofStep");
  const measurement = sinceOf("measurements", "ofStep");
  const air = sinceOf("airChecks", "ofPiece");
  const bolts = sinceOf("fasteners", "ofPiece");
  // What was proven in the vehicle was proven of what was in it.
  const refitted = Math.max(
    -1,
    ...build.map(({ id, vehicle }) => (vehicle === "first start" ? -1 : since(id))),
  );
  return ({ body }, place) => {
    switch (body.kind) {
      case "step":
        // What undid it stands, so that it is known why.
        return body.did !== "undone" && place < since(body.step);
      case "check":
        return place < since(body.step, last.has(`${body.step} ${body.check}`) ? "ofPiece" : "ofStep");
      case "plates":
      case "laid":
      case "timer":
      case "deviation":
        return place < since(body.step);
      case "procedure":
      case "proof":
      case "codes-read":
      case "relearned":
      case "driven":
      case "drive-speeds":
      case "drive":
        return place < refitted;
      case "air":
        return place < air(body.element);
      case "tightened":
        return place < bolts(body.group);
      case "reading":
      case "conditions":
        return body.phase === "built" && place < chain(body.chain);
      case "figure":
        return body.phase === "built" && place < (body.of === "chain" ? chain : measurement)(body.id);
      default:
        return false;
    }
  };
}
