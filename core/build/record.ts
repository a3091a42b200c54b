import { believed, checksOf, houseTorque, type Applied, type UnitSystem } from "../book";
import { AIR, CHECKED, isKind, LAID, PLACE_DONE, TIMERS, type Fact, type FactOf, type Job } from "../fact";
import type { SpecLine } from "../measure";
import { airResult } from "./air";
import { roundWords, type Face } from "./face";
import type { Asked } from "./asks";
import type { Build, BuildStep } from "./plan";

/** One thing that was done or answered: by whom, and when. */
export interface RecordLine {
  kind:
    | (
        | "done"
        | "skipped"
        | "undone"
        | "new"
        | "plates"
        | "soak"
        | "torque"
        | "check"
        | "air"
        | "figure"
        | "otherwise"
      )
    // In the vehicle: `core/prove`.
    | ("procedure" | "fluid" | "learned" | "driven");
  what: string;
  /** What was said of it: an answer, places, a figure with its unit. */
  said: string;
  /** What it was held against, or under which conditions. */
  against: string;
  by: string;
  at: string;
}

/** What was built, step by step, as it stands: what was laid open again and not built since is not in it, but that it was is. */
export interface BuildRecord {
  steps: { step: string; name: string; sub: string; at: BuildStep["at"]; lines: RecordLine[] }[];
}

/**
 * The as-built record of a unit, in the book's order, each step in the order it was done.
 *
 * @param lines of the spec sheet, for the figures the steps read.
 * @param unit lengths and torques are written in.
 */
export function recordOf(
  job: Job,
  applied: Applied,
  build: Build,
  lines: readonly SpecLine[],
  unit: UnitSystem,
): BuildRecord {
  const figures = new Map(lines.map((line) => [line.id, line]));
  return {
    steps: build.steps.map((one) => ({
      step: one.step.id,
      name: one.step.name,
      sub: one.step.sub ?? "",
      at: one.at,
      lines: [
        ...said(job, one, applied, unit),
        ...one.asked.flatMap((asked) => ofFigure(asked, figures)),
      ].sort((a, b) => a.at.localeCompare(b.at)),
    })),
  };
}

const lineOf = (
  kind: RecordLine["kind"],
  what: string,
  said: string,
  against: string,
  { by, at }: Fact,
): RecordLine => ({
  kind,
  what,
  said,
  against,
  by,
  at,
});

/** Everything that was said of a step, each time: what was answered again, and a pull that stopped short, stand there too. */
function said(job: Job, { step, parts, faces }: BuildStep, applied: Applied, unit: UnitSystem): RecordLine[] {
  const checks = new Map(checksOf(applied.scoped, step).map(({ id, what }) => [id, what]));
  const soaks = new Map((applied.scoped.soaks ?? []).map(({ id, what }) => [id, what]));
  const named = new Map(parts.map(({ part }) => [part.id, part.name]));
  return job.live.flatMap((fact): RecordLine[] => {
    if (isKind(fact, "step"))
      return fact.body.step === step.id ? [lineOf(fact.body.did, step.name, fact.body.reason, "", fact)] : [];
    if (isKind(fact, "check")) {
      const { step: of, check, said: is, note } = fact.body;
      const words = [CHECKED.words[is], note].filter(Boolean).join(": ");
      return of === step.id ? [lineOf("check", checks.get(check) ?? check, words, "", fact)] : [];
    }
    if (isKind(fact, "plates")) {
      const { step: of, element, in: there } = fact.body;
      return of === step.id
        ? [lineOf("plates", `${element.toUpperCase()}, plates`, `${there} in`, "", fact)]
        : [];
    }
    if (isKind(fact, "laid"))
      return fact.body.step === step.id
        ? [
            lineOf(
              "check",
              `check balls, ${LAID.words[fact.body.round]}`,
              `${fact.body.balls.length} in their places`,
              "",
              fact,
            ),
          ]
        : [];
    if (isKind(fact, "timer"))
      return fact.body.step === step.id
        ? [lineOf("soak", soaks.get(fact.body.soak) ?? fact.body.soak, TIMERS.words[fact.body.did], "", fact)]
        : [];
    if (isKind(fact, "deviation")) {
      const { step: of, reason, there } = fact.body;
      return of === step.id
        ? [lineOf("otherwise", "otherwise than the book", there ? reason : `taken back: ${reason}`, "", fact)]
        : [];
    }
    if (isKind(fact, "renewed"))
      return fact.body.parts.flatMap((id) => {
        const name = named.get(id);
        return name === undefined
          ? []
          : [lineOf("new", name, fact.body.there ? "new" : "not new after all", "", fact)];
      });
    if (isKind(fact, "air")) return step.airChecks?.includes(fact.body.element) ? [ofAir(fact, applied)] : [];
    if (isKind(fact, "tightened")) {
      const face = faces.find(({ group }) => group.id === fact.body.group);
      return face ? [ofTorque(fact, face, applied, unit)] : [];
    }
    return [];
  });
}

function ofAir(fact: FactOf<"air">, { scoped }: Applied): RecordLine {
  const { element, pressure = "", lost, over = "", note } = fact.body;
  const check = scoped.airChecks?.find((one) => one.element === element);
  const result = check ? airResult(check, fact.body) : fact.body.result;
  const words = [AIR.words[result], lost === undefined ? "" : `lost ${lost} in ${over}`, note];
  const against = [pressure, check?.port].filter(Boolean).join(", ");
  return lineOf("air", `${element.toUpperCase()} with air`, words.filter(Boolean).join(", "), against, fact);
}

/** Every place of a round that was said at once. */
function ofTorque(
  fact: FactOf<"tightened">,
  { group, rounds }: Face,
  { house }: Applied,
  unit: UnitSystem,
): RecordLine {
  const { round: id, places, did, read } = fact.body;
  const own = houseTorque(group, house)?.torque;
  const round = rounds.find((one) => one.id === id);
  const where = `${places.length === 1 ? "place" : "places"} ${places.map((place) => place + 1).join(", ")}`;
  return lineOf(
    "torque",
    `${group.name}, ${round ? roundWords(group, round, { house: own, unit }) : id}`,
    [`${where} ${PLACE_DONE.words[did]}`, read ?? ""].filter(Boolean).join(", read "),
    own === undefined ? believed(group).slice(", ".length) : "house value",
    fact,
  );
}

/** A figure as it stands, with its limits and the conditions it was read under; or whose name stands for it. */
function ofFigure(
  { kind, subject, name, words, fact }: Asked,
  figures: ReadonlyMap<string, SpecLine>,
): RecordLine[] {
  if (kind !== "figure" || !fact) return [];
  const line = figures.get(subject);
  const conditions = line?.sheet?.conditions.said?.body.met ?? [];
  return [lineOf("figure", name, words, [line?.spec, ...conditions].filter(Boolean).join(", "), fact)];
}
