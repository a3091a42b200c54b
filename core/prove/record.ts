import { nameIn, type Applied } from "../book";
import type { BuildRecord, RecordLine } from "../build";
import {
  CODES_READ,
  CHECKED,
  DROVE,
  FLOWED,
  HAPPENED,
  isKind,
  LEARNED,
  ON_DRIVE,
  OUTCOMES,
  type Fact,
  type Job,
  type Told,
} from "../fact";
import { driveAsks, slipRead } from "./proving";

/** What the vehicle said when something was said of a procedure, short. */
const toldWords = ({ fluid, revs, engine, lever, brake, pedal }: Told): string =>
  [
    fluid && `fluid ${fluid}`,
    revs,
    engine && `engine ${engine}`,
    lever && `lever in ${lever}`,
    brake && `brake ${brake}`,
    pedal && `pedal ${pedal}`,
  ]
    .filter(Boolean)
    .join(", ");

/**
 * What was proven in the vehicle, in the manner of the as-built record: everything that was said, each time it was said, in the order of the work.
 *
 * @returns nothing where nothing was said.
 */
export function provenRecord(job: Job, applied: Applied): BuildRecord["steps"] {
  const { present } = applied;
  const of = (
    step: string,
    name: string,
    lineOf: (fact: Fact) => Omit<RecordLine, "by" | "at"> | null,
  ): BuildRecord["steps"] => {
    const lines = job.live.flatMap((fact): RecordLine[] => {
      const line = lineOf(fact);
      return line ? [{ ...line, by: fact.by, at: fact.at }] : [];
    });
    return lines.length > 0 ? [{ step, name, sub: "In the vehicle", at: "done", lines }] : [];
  };
  const asks = new Map(driveAsks(job, applied).map((one) => [one.of, one.name]));
  const drives = [...new Set([...job.drives.values()].map(({ body }) => body.drive))].sort();
  return [
    ...of("proofs", "Seen to", (fact) =>
      isKind(fact, "proof")
        ? {
            kind: "check",
            what: nameIn(present, fact.body.proof),
            said: [CHECKED.words[fact.body.said], fact.body.note].filter(Boolean).join(": "),
            against: "",
          }
        : isKind(fact, "codes-read")
          ? {
              kind: "check",
              what: `${nameIn(present, fact.body.proof)}, ${CODES_READ.words[fact.body.when]}`,
              said:
                fact.body.codes
                  .map(({ code, own }) => `${code}${own ? "" : ", not of this unit"}`)
                  .join("; ") || "none",
              against: "",
            }
          : null,
    ),
    ...(present.procedures ?? []).flatMap((procedure) =>
      of(`procedure-${procedure.id}`, procedure.name, (fact) => {
        if (!isKind(fact, "procedure") || fact.body.procedure !== procedure.id) return null;
        const { turn, did, senses, as } = fact.body;
        const say = procedure.turns.find(({ id }) => id === turn)?.say ?? procedure.name;
        return {
          kind: "procedure",
          what: say,
          said: HAPPENED.words[did],
          against: [as, toldWords(senses)].filter(Boolean).join(": "),
        };
      }),
    ),
    ...of("fluid", "Fluid in and out", (fact) =>
      isKind(fact, "filled")
        ? {
            kind: "fluid",
            what:
              fact.body.of === undefined
                ? fact.body.when
                : `${fact.body.when}, ${nameIn(present, fact.body.of)}`,
            said: `${fact.body.amount} ${FLOWED.words[fact.body.way]}`,
            against: "",
          }
        : null,
    ),
    ...of("relearns", "Learned anew", (fact) =>
      isKind(fact, "relearned")
        ? {
            kind: "learned",
            what: nameIn(present, fact.body.relearn),
            said: LEARNED.words[fact.body.outcome],
            against: [
              fact.body.before && `before ${fact.body.before}`,
              fact.body.after && `now ${fact.body.after}`,
            ]
              .filter(Boolean)
              .join(", "),
          }
        : null,
    ),
    ...drives.flatMap((drive) =>
      of(`drive-${drive}`, `Drive ${drive}`, (fact) => {
        if (isKind(fact, "driven") && fact.body.drive === drive) {
          const { of: about, said, outcome, note } = fact.body;
          return {
            kind: "driven",
            what: about.map((one) => asks.get(one) ?? one.replace(/^[a-z]+:/, "")).join(", "),
            said: [ON_DRIVE.words[said], outcome && OUTCOMES.words[outcome], note].filter(Boolean).join(", "),
            against: "",
          };
        }
        if (isKind(fact, "drive-speeds") && fact.body.drive === drive) {
          const { range, input, output } = fact.body;
          const against = slipRead(job, applied, drive, `range:${range}`) || "as listed";
          return {
            kind: "driven",
            what: `range ${range}, speeds`,
            said: `${input} rpm in, ${output} out`,
            against,
          };
        }
        if (!isKind(fact, "drive") || fact.body.drive !== drive) return null;
        const { driver, distance, is, note } = fact.body;
        return {
          kind: "driven",
          what: `driven by ${driver}, ${distance}`,
          said: [DROVE.words[is], note].filter(Boolean).join(": "),
          against: "",
        };
      }),
    ),
  ];
}
