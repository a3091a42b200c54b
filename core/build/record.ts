import { houseTorque, type Applied, type UnitSystem } from "../book";
import { AIR, isKind, PLACE_DONE, type Fact, type Job } from "../fact";
import type { SpecLine } from "../measure";
import { roundWords } from "./face";
import type { Build, BuildStep } from "./plan";

/** One thing that was done or answered: by whom, and when. */
export interface RecordLine {
  kind: "done" | "skipped" | "undone" | "new" | "soak" | "torque" | "check" | "air" | "figure" | "otherwise";
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
        ...ticks(job, one),
        ...one.asked.flatMap((asked) => ofAsked(asked, figures, applied)),
        ...torques(job, one, applied, unit),
        ...one.otherwise.map((fact) => lineOf("otherwise", "done otherwise", fact.body.reason, "", fact)),
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

/** That it was done, passed over or taken back: each time. */
const ticks = (job: Job, { step }: BuildStep): RecordLine[] =>
  job.live.flatMap((fact) =>
    isKind(fact, "step") && fact.body.step === step.id
      ? [lineOf(fact.body.did, step.name, fact.body.reason, "", fact)]
      : [],
  );

function ofAsked(
  { kind, subject, name, words, answer, fact }: BuildStep["asked"][number],
  figures: ReadonlyMap<string, SpecLine>,
  applied: Applied,
): RecordLine[] {
  if (!fact) return [];
  if (answer === "otherwise") return [lineOf("otherwise", name, words, "", fact)];
  switch (kind) {
    case "part":
      return [lineOf("new", name, isKind(fact, "renewed") ? "new" : words, "", fact)];
    case "begin":
      return [lineOf("soak", name, "begun", "", fact)];
    case "check":
      return [lineOf("check", name, words, "", fact)];
    case "air": {
      const check = applied.scoped.airChecks?.find(({ element }) => element === subject);
      if (!isKind(fact, "air")) return [];
      const { result, pressure = "", lost, over = "", note } = fact.body;
      const said = [AIR.words[result], lost === undefined ? "" : `lost ${lost} in ${over}`, note];
      return [
        lineOf(
          "air",
          name,
          said.filter(Boolean).join(", "),
          [pressure, check?.port].filter(Boolean).join(", "),
          fact,
        ),
      ];
    }
    case "figure": {
      const line = figures.get(subject);
      const conditions = line?.sheet?.conditions.said?.body.met ?? [];
      return [lineOf("figure", name, words, [line?.spec, ...conditions].filter(Boolean).join(", "), fact)];
    }
    case "put":
    case "behind":
    case "soak":
    case "bolts":
      return [];
  }
}

/** Every place in every round, those said together in one line. */
function torques(job: Job, { faces }: BuildStep, applied: Applied, unit: UnitSystem): RecordLine[] {
  return faces.flatMap(({ group, rounds, said }) => {
    const house = houseTorque(group, applied.house)?.torque;
    return rounds.flatMap((round) => {
      const by = new Map<Fact, number[]>();
      group.places.forEach((_, place) => {
        const fact = said(round.id, place);
        if (fact) by.set(fact, [...(by.get(fact) ?? []), place]);
      });
      return [...by].flatMap(([fact, places]) =>
        isKind(fact, "tightened")
          ? [
              lineOf(
                "torque",
                `${group.name}, ${roundWords(group, round, { house, unit })}`,
                [
                  `${places.length === 1 ? "place" : "places"} ${places.map((place) => place + 1).join(", ")} ${PLACE_DONE.words[fact.body.did]}`,
                  fact.body.read ?? "",
                ]
                  .filter(Boolean)
                  .join(", read "),
                house === undefined ? "" : "house value",
                fact,
              ),
            ]
          : [],
      );
    });
  });
}
