import { boltsOf, partsOf, type Applied, type Pack, type Part } from "../book";
import { IN_UNIT, SCRAPPED, type Cleanliness, type Fact, type FactOf, type Job } from "../fact";

/** Where one part of this unit is, and how it came there. */
export interface Thing {
  part: Part;
  /** `unit` while it is in, `scrap` out of circulation, a place of the job's, or null: off the unit and nowhere. */
  place: string | null;
  /** Who put it there, or took it off, and when; null while nobody has touched it. */
  moved: Fact | null;
  howItSat: FactOf<"sat"> | null;
  state: Cleanliness;
}

/** Fasteners of one group: which of their places are out, and where they lie. */
export interface Bolts {
  group: string;
  name: string;
  count: number;
  placesOut: readonly number[];
  place: string | null;
  fact: FactOf<"out"> | null;
}

/** Where something was put, and by which fact. */
interface Put {
  place: string | null;
  by: Fact;
}

/**
 * Facts one after the other, in the order they were said: where every part and group of bolts is in the end, and which bolts of a group are
 * out.
 */
function replayed(
  job: Job,
  { teardown = [], build = [] }: Applied["present"],
  parts: ReadonlyMap<string, Part>,
): { places: Map<string, Put>; outs: Map<string, readonly number[]> } {
  const places = new Map<string, Put>();
  const outs = new Map<string, readonly number[]>();
  const down = new Map(teardown.map((step) => [step.id, step]));
  const up = new Map(build.map((step) => [step.id, step]));
  /** What a build step found: an undone one leaves it so again. */
  const before = new Map<string, { place: string | null; out: readonly number[] }>();
  for (const fact of job.live) {
    const { body } = fact;
    if (body.kind === "lies")
      for (const thing of body.things) places.set(thing, { place: body.place, by: fact });
    if (body.kind === "out") outs.set(body.group, body.places);
    if (body.kind !== "step" || body.did === "skipped") continue;
    const built = up.get(body.step);
    if (built) {
      const things: [thing: string, group: string | null][] = [
        ...(built.parts ?? []).map((id): [string, null] => [id, null]),
        ...(built.fasteners ?? []).map((id): [string, string] => [boltsOf(id), id]),
      ];
      for (const [thing, group] of things) {
        const key = `${body.step} ${thing}`;
        const was = before.get(key);
        if (body.did === "done") {
          const out = group === null ? [] : (outs.get(group) ?? []);
          before.set(key, { place: places.get(thing)?.place ?? null, out });
          places.set(thing, { place: IN_UNIT, by: fact });
          if (group !== null) outs.set(group, []);
        } else if (was) {
          // What went in new for one out of circulation is off again, and lies nowhere yet.
          places.set(thing, { place: was.place === SCRAPPED ? null : was.place, by: fact });
          if (group !== null) outs.set(group, was.out);
        }
      }
      continue;
    }
    const { parts: taken = [], fasteners = [] } = down.get(body.step) ?? {};
    const to = body.did === "undone" ? IN_UNIT : (body.to ?? null);
    for (const id of taken) {
      const known = places.get(id)?.place;
      // Laid down before the step was ticked: it stays where it was put.
      if (body.did === "done" && known !== undefined && known !== IN_UNIT) continue;
      const once = body.did === "done" && parts.get(id)?.oneTime;
      places.set(id, { place: once ? SCRAPPED : to, by: fact });
    }
    for (const group of fasteners) if (to !== null) places.set(boltsOf(group), { place: to, by: fact });
  }
  return { places, outs };
}

/**
 * What lies where. A step done takes its parts off, laying them down says where, a step undone puts them back; a build step puts them in,
 * undone it leaves them where they lay. A part of an assembly is where its assembly is until somebody says otherwise.
 */
export class Bench {
  readonly things: ReadonlyMap<string, Thing>;
  readonly bolts: ReadonlyMap<string, Bolts>;

  constructor(
    job: Job,
    private readonly applied: Pick<Applied, "present" | "scoped"> & Partial<Pick<Applied, "asFound">>,
  ) {
    const { present, scoped, asFound } = applied;
    const found = asFound?.scoped ?? scoped;
    const parts = new Map([...found.parts, ...present.parts].map((part) => [part.id, part]));
    const { places, outs } = replayed(job, present, parts);
    const placeOf = (part: Part): { place: string | null; by: Fact } | null => {
      const own = places.get(part.id);
      if (own) return own;
      const whole = part.of === undefined ? undefined : parts.get(part.of);
      return whole ? placeOf(whole) : null;
    };
    const { sat, cleaning } = job;
    const was = new Set(found.parts.map(({ id }) => id));
    const all = [...found.parts, ...scoped.parts.filter(({ id }) => !was.has(id))];
    this.things = new Map(
      // What comes with a later part was never in: it is nowhere to be looked for before somebody put it somewhere.
      all
        .filter(({ id }) => was.has(id) || places.has(id))
        .map((part): [string, Thing] => {
          const at = placeOf(part);
          const place = at ? at.place : IN_UNIT;
          const cleaned = cleaning.get(part.id)?.body.state;
          return [
            part.id,
            {
              part,
              place,
              moved: at?.by ?? null,
              howItSat: sat.get(part.id) ?? null,
              state: cleaned ?? "dirty",
            },
          ];
        }),
    );
    this.bolts = new Map(
      (scoped.fasteners ?? []).map(({ id, name, count }): [string, Bolts] => {
        const place = places.get(boltsOf(id))?.place ?? null;
        return [
          id,
          { group: id, name, count, place, fact: job.outs.get(id) ?? null, placesOut: outs.get(id) ?? [] },
        ];
      }),
    );
  }

  /** Whether a part is off the unit. */
  isOff = (part: string): boolean => {
    const thing = this.things.get(part);
    return thing !== undefined && thing.place !== IN_UNIT;
  };
  allOut = (group: string): boolean => {
    const bolts = this.bolts.get(group);
    return bolts !== undefined && bolts.placesOut.length >= bolts.count;
  };

  /** Off the unit and nowhere: what gets lost. */
  get nowhere(): Thing[] {
    return [...this.things.values()].filter(({ place }) => place === null);
  }
  /** What lies in one place, in the order it was laid there. */
  at(place: string): Thing[] {
    return [...this.things.values()]
      .filter((thing) => thing.place === place)
      .sort((a, b) => (a.moved?.at ?? "").localeCompare(b.moved?.at ?? ""));
  }
  /** What of a pack is off and not clean: its plates, and what sits at its station. */
  dirtyOfPack = (pack: Pick<Pack, "stack" | "station">): Thing[] =>
    this.dirtyOf(partsOf(this.applied.scoped.parts, pack).map(({ id }) => id));
  /** Parts of an assembly that are off and not clean, so that nothing dirty goes in unnoticed. */
  dirtyOf(assembly: readonly string[]): Thing[] {
    return assembly.flatMap((id) => {
      const thing = this.things.get(id);
      const off = thing && thing.place !== IN_UNIT && thing.place !== SCRAPPED;
      return off && thing.state !== "clean" && thing.state !== "bagged" ? [thing] : [];
    });
  }
}
