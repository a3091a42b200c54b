import {
  reasonOf,
  wearKind,
  type Applied,
  type Book,
  type Part,
  type StrongerWay,
  type WeakPoint,
} from "../book";
import { figures } from "../measure";
import { DISPOSITIONS, SEVERITIES, type Disposition, type FactOf, type Job } from "../fact";
import type { DecisionRule } from "../reading";

/** What the shop does as a rule, where practice differs. */
export interface Schools {
  steels: "reuse if flat" | "always new";
  bushings: "on measurement" | "always new";
}
/** The schools of a shop that has chosen none. */
export const USUAL_SCHOOLS: Schools = { steels: "reuse if flat", bushings: "on measurement" };

/** Why a disposition is proposed. */
export interface Because {
  rule:
    | "one-time part"
    | "always replaced"
    | "known weak point"
    | "linked look"
    | "measured"
    | "to be measured"
    | "worn"
    | "suspected"
    | "another version"
    | "not sold alone"
    | "sold as a set"
    | "house"
    | "metal everywhere"
    | "made stronger"
    | "later part"
    | "in good order";
  words: string;
  is: Disposition;
}

/** What becomes of one part: proposed with its reasons, and what somebody decided. */
export interface PartState {
  part: Part;
  /** Null: nobody has looked at it, and no rule speaks. */
  proposed: Disposition | null;
  because: Because[];
  decided: FactOf<"disposition"> | null;
  /** What holds: what was decided, else what is proposed. */
  is: Disposition | null;
  good: boolean;
  findings: FactOf<"finding">[];
}

const RANK: Readonly<Record<Disposition, number>> = {
  reuse: 0,
  clean: 1,
  "measure-first": 2,
  machine: 3,
  upgrade: 4,
  replace: 4,
};

/** Wear that machining mends, by the kind of part it is on. */
const MACHINED: Readonly<Record<string, readonly string[]>> = {
  "pump cover": ["face-scored", "cover-flatness"],
  housing: ["bore-worn", "bushing-spun"],
  pump: ["cover-flatness"],
  converter: ["hub-worn"],
};
/** Kinds whose wear is a matter of a figure, not of the eye. */
const MEASURED = [
  "bushing",
  "carrier",
  "gear",
  "shaft",
  "drum",
  "pump gears",
  "pump",
  "spring",
  "valve body",
  "fork",
  "synchroniser",
];

/**
 * What becomes of every part in scope, in the book's order. Each rule that speaks gives its reason; the gravest holds. The person decides:
 * what was decided stands beside what is proposed.
 */
export function dispositions(job: Job, applied: Applied, schools: Schools, rule: DecisionRule): PartState[] {
  const measured = measuredParts(job, applied, rule);
  const heated = besideBurnt(job, applied);
  const metal = metalEverywhere(job);
  const points = weakPoints(job, applied);
  const twins = lookedNext(job, applied);
  const come = withLater(job, applied);
  const other = new Set(
    job.wrongs.filter(({ body }) => body.what === "another-versions-part").map(({ body }) => body.of),
  );
  const states = applied.scoped.parts.map((part): PartState => {
    const findings = job.findings.filter(({ body }) => body.part === part.id);
    const good = job.good.has(part.id);
    const because = [
      ...byBook(part, applied.present),
      ...bySchool(part, schools),
      ...byMetal(part, metal),
      ...byPoints(part, points),
      ...byTwins(twins.get(part.id) ?? [], good || findings.length > 0),
      ...(measured.get(part.id) ?? []),
      ...(good && heated.has(part.id) && !measured.has(part.id) ? [BESIDE_BURNT] : []),
      ...findings.map(byFinding(part, applied.present)),
      ...byPlan(part, job, applied.present),
      ...(come.get(part.id) ?? []),
      ...(other.has(part.id)
        ? [
            {
              rule: "another version" as const,
              words: "another version’s part was in",
              is: "replace" as const,
            },
          ]
        : []),
      ...(good
        ? [{ rule: "in good order" as const, words: "looked at, in good order", is: "reuse" as const }]
        : []),
    ];
    return settle(part, because, job.dispositions.get(part.id) ?? null, good, findings);
  });
  return withAssemblies(states);
}

function settle(
  part: Part,
  because: Because[],
  decided: FactOf<"disposition"> | null,
  good: boolean,
  findings: FactOf<"finding">[],
): PartState {
  const sorted = [...because].sort((a, b) => RANK[b.is] - RANK[a.is]);
  const first = sorted[0]?.is ?? null;
  // A later part that goes in instead is an upgrade, with what it brings along.
  const upgrade = first === "replace" && part.instead?.length;
  const proposed = upgrade ? "upgrade" : first;
  return { part, proposed, because: sorted, decided, is: decided?.body.is ?? proposed, good, findings };
}

function byBook({ oneTime, always, kind }: Part, unit: Book): Because[] {
  const reason = always === undefined ? null : reasonOf(unit, always);
  return [
    ...(oneTime
      ? [{ rule: "one-time part" as const, words: "never used twice", is: "replace" as const }]
      : []),
    // What the book replaces after metal only is a matter of the metal.
    ...(reason && reason.only === undefined && kind !== "converter"
      ? [{ rule: "always replaced" as const, words: reason.words, is: "replace" as const }]
      : []),
  ];
}

function bySchool({ kind }: Part, { steels, bushings }: Schools): Because[] {
  if (kind === "steel" && steels === "always new")
    return [{ rule: "house", words: "this house puts new steels in always", is: "replace" }];
  if (kind === "bushing" && bushings === "always new")
    return [{ rule: "house", words: "this house replaces every bushing", is: "replace" }];
  return [];
}

function byMetal({ kind }: Part, metal: string | null): Because[] {
  if (metal === null || kind === undefined || !["converter", "cooler", "filter", "cassette"].includes(kind))
    return [];
  return [{ rule: "metal everywhere", words: `${metal}: metal stays in it`, is: "replace" }];
}

function byPoints(part: Part, points: readonly PointState[]): Because[] {
  return points.flatMap(({ point, fact, answer }): Because[] => {
    // One that nobody has answered is open by itself: it says nothing of its parts yet.
    if (!fact || !(answer?.parts ?? point.parts ?? []).includes(part.id)) return [];
    const words = `${point.name}: ${answer?.name ?? fact.body.answer}`;
    return [{ rule: "known weak point", words, is: answer ? DOES[answer.does] : "reuse" }];
  });
}

/** What is made stronger takes another plate, or metal off this part. */
function byPlan({ id }: Part, { stronger }: Job, { stronger: ways = [] }: Book): Because[] {
  if (!stronger) return [];
  const { packs, cuts, ways: taken } = stronger.body;
  const because = (is: Disposition, of: (way: StrongerWay) => boolean): Because[] => {
    const names = ways.filter((way) => taken.includes(way.id) && of(way)).map(({ name }) => name);
    return [{ rule: "made stronger", words: `made stronger: ${names.join(", ")}`, is }];
  };
  const pack = packs.find(({ plates }) => plates.some((one) => one.part === id && one.number !== undefined));
  const cut = cuts.find(({ part }) => part === id);
  const another = ways.find(({ id: of, part }) => part === id && taken.includes(of));
  return [
    ...(pack ? because("upgrade", ({ elements }) => elements.includes(pack.element)) : []),
    ...(another ? because("upgrade", (way) => way === another) : []),
    ...(cut ? because("machine", (way) => way.id === cut.way) : []),
  ];
}

/** Parts that were not in the unit as it was found: later ones, and what comes with them. */
function withLater({ later }: Job, { book, scoped, asFound }: Applied): ReadonlyMap<string, Because[]> {
  if (!asFound || later.length === 0) return new Map();
  const was = new Set(asFound.scoped.parts.map(({ id }) => id));
  const nameOf = (is: (part: Part) => boolean): string => book.parts.find(is)?.name ?? "";
  return new Map(
    scoped.parts
      .filter(({ id }) => !was.has(id))
      .map(({ id, number }) => {
        const its = later.find(({ body }) => body.number === number);
        const words = its
          ? `in place of ${nameOf((part) => part.id === its.body.part)}, says ${its.by}`
          : `comes with ${later.map(({ body }) => nameOf((part) => part.number === body.number)).join(", ")}`;
        return [id, [{ rule: "later part", words, is: "replace" }]];
      }),
  );
}

/** Where the book says to look next when a part is worn, by the part to look at. */
function lookedNext(job: Job, { scoped, present }: Applied): ReadonlyMap<string, string[]> {
  const next = new Map<string, string[]>();
  const bad = new Set(
    job.findings.flatMap(({ body: { part, sure, severity } }) =>
      sure && severity !== "trace" ? [part] : [],
    ),
  );
  for (const { name, then = [] } of present.parts.filter((part) => bad.has(part.id)))
    for (const { part, look } of then)
      if (scoped.parts.some((one) => one.id === part))
        next.set(part, [...(next.get(part) ?? []), `${name} is worn: ${look}`]);
  return next;
}

const byTwins = (words: readonly string[], looked: boolean): Because[] =>
  looked ? [] : words.map((each) => ({ rule: "linked look", words: each, is: "measure-first" }));

/** What an answer to a weak point makes of its parts. */
const DOES = { replace: "replace", machine: "machine", clean: "clean", look: "reuse" } as const;

const byFinding =
  (part: Part, unit: Book) =>
  ({ body: { wear, severity, sure, note } }: FactOf<"finding">): Because => {
    const { as, name, cleans } = wearKind(unit, wear);
    const words = `${name}, ${SEVERITIES.words[severity]}${note ? `: ${note}` : ""}`;
    if (!sure) return { rule: "suspected", words: `${name} suspected`, is: "measure-first" };
    const worn = (is: Disposition): Because => ({ rule: "worn", words, is });
    const kind = part.kind ?? "";
    if (severity === "beyond-use") return worn(MACHINED[kind]?.includes(as) ? "machine" : "replace");
    if (severity === "trace") return worn(cleans ? "clean" : "reuse");
    if (cleans) return worn("clean");
    if (MACHINED[kind]?.includes(as)) return worn("machine");
    if (MEASURED.includes(kind)) return { rule: "to be measured", words, is: "measure-first" };
    return worn("replace");
  };

const BESIDE_BURNT: Because = {
  rule: "to be measured",
  words: "beside burnt frictions: flat, and no heat spots?",
  is: "measure-first",
};

/** Steels and plates of packs whose frictions burnt: they saw the same heat, however good they look. */
function besideBurnt(job: Job, { packs, present }: Applied): ReadonlySet<string> {
  const burnt = new Set(
    job.findings.flatMap(({ body: { part, wear, severity, sure } }) =>
      sure && severity !== "trace" && wearKind(present, wear).as === "burnt" ? [part] : [],
    ),
  );
  const hot = packs.filter(({ stack }) => stack.some(({ part }) => burnt.has(part)));
  return new Set(
    hot.flatMap(({ stack }) => stack.flatMap(({ role, part }) => (role === "steel" ? [part] : []))),
  );
}

/** What figures say of the parts whose wear they show. */
function measuredParts(job: Job, applied: Applied, rule: DecisionRule): Map<string, Because[]> {
  const found = new Map<string, Because[]>();
  const add = (parts: readonly string[], because: Because): void => {
    for (const part of parts) found.set(part, [...(found.get(part) ?? []), because]);
  };
  for (const one of figures(job, applied, rule, "found")) {
    if (one.kind === "chain") {
      const { chain } = one.applied;
      const { verdict } = one.assessment;
      // What nobody has a limit for says nothing of its parts.
      if (one.readings.length === 0 || !chain.parts || verdict.kind === "not stated") continue;
      if (verdict.kind === "outside")
        add(chain.parts, { rule: "measured", words: `${chain.name} outside`, is: "replace" });
      else if (verdict.kind !== "inside")
        add(chain.parts, {
          rule: "to be measured",
          words: `${chain.name} not decided yet`,
          is: "measure-first",
        });
      else add(chain.parts, { rule: "measured", words: `${chain.name} inside`, is: "reuse" });
    } else if (one.measurement.part && one.verdict) {
      const { name, part } = one.measurement;
      if (one.verdict === "outside")
        add([part], { rule: "measured", words: `${name} outside`, is: "replace" });
      else if (one.verdict === "inside")
        add([part], { rule: "measured", words: `${name} inside`, is: "reuse" });
    }
  }
  return found;
}

/** A part that cannot be had alone takes its assembly with it. */
function withAssemblies(states: PartState[]): PartState[] {
  const gone = states.filter(
    ({ part, is }) =>
      part.sold === "with its assembly" && part.of !== undefined && (is === "replace" || is === "upgrade"),
  );
  return states.map((state) => {
    const taken = gone.filter(({ part }) => part.of === state.part.id);
    const set = state.part.sold === "as a set" && state.is === "replace";
    if (taken.length === 0 && !set) return state;
    const because = [
      ...taken.map(({ part }): Because => ({
        rule: "not sold alone",
        is: "replace",
        words: `${part.name} cannot be had alone`,
      })),
      ...(set ? [{ rule: "sold as a set" as const, words: "only as a set", is: "replace" as const }] : []),
      ...state.because,
    ];
    return settle(state.part, because, state.decided, state.good, state.findings);
  });
}

/** Whether a weak point, or an answer to it, is of a part. */
export const isOfPoint = (part: string, { parts = [], answers }: WeakPoint): boolean =>
  [...parts, ...answers.flatMap((answer) => answer.parts ?? [])].includes(part);

/** A known weak point of this version, and what was answered. */
export interface PointState {
  point: WeakPoint;
  fact: FactOf<"weak-point"> | null;
  /** The book’s answer that was given; null while there is none, or where the words are somebody’s own. */
  answer: WeakPoint["answers"][number] | null;
}

/** @returns the weak points of this configuration and scope; each must be answered before the unit is closed. */
export const weakPoints = (job: Job, { scoped }: Pick<Applied, "scoped">): PointState[] =>
  (scoped.weakPoints ?? []).map((point) => {
    const fact = job.weakPoints.get(point.id) ?? null;
    return { point, fact, answer: point.answers.find(({ id }) => id === fact?.body.answer) ?? null };
  });

/** What is flushed rather than cleaned, and kept rather than used again. */
const FLUSHED: ReadonlySet<string> = new Set(["converter", "cooler"]);

/** What a disposition is called for a part. */
export function becomesWord(is: Disposition, { kind }: Pick<Part, "kind">): string {
  const isFlushed = kind !== undefined && FLUSHED.has(kind);
  if (isFlushed && is === "reuse") return "keep";
  return isFlushed && is === "clean" ? "flush" : DISPOSITIONS.words[is];
}

/** Whether metal has gone everywhere, in words; null when it has not. Then converter, cooler and filters go, and perhaps the unit. */
export function metalEverywhere(job: Job): string | null {
  const much = job.debris.find(({ body: { what, amount, where } }) => {
    if (what === "chunks") return amount === "some" || amount === "much";
    if (what === "friction" || what === "fuzz") return false;
    return amount === "much" || (where === "cooler" && amount === "some");
  });
  return much ? debrisWords(much.body) : null;
}

const debrisWords = ({ amount, what, where }: FactOf<"debris">["body"]): string =>
  `${amount} ${what} ${where === "magnet" ? "on" : "in"} the ${where}`;

/** Whether a new one is wanted of this part itself: what cannot be had alone comes with its assembly, which is wanted then. */
export const isWanted = ({ is, part: { sold } }: PartState): boolean =>
  (is === "replace" || is === "upgrade") && sold !== "with its assembly";

/** Parts nobody has looked at, and on which no rule speaks. */
export const unlooked = (states: readonly PartState[]): PartState[] =>
  states.filter(({ is, good, findings }) => is === null && !good && findings.length === 0);
