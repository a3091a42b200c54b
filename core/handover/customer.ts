import { nameIn, partNameIn, wearKind, type Applied, type UnitSystem } from "../book";
import { DROVE, LEARNED, OLD_PARTS, outcomeWords, questionWords, SOURCES, type Job } from "../fact";
import { candidateCauses, failed, type Failed } from "../inspect";
import { specLines, type House } from "../measure";
import { quoteChanges, type Quote } from "../needs";
import { foreignCodes, symptomsOf } from "../prove";
import { nearestTotal } from "./amounts";

/** What a customer is told in plain words, a heading with its lines; nothing is under a heading that has nothing to say. */
export interface CustomerSheet {
  parts: { title: string; lines: string[] }[];
  /** What the unit left with: each figure, what it may be, what it is. */
  figures: { name: string; spec: string; is: string }[];
}

/**
 * The plain sheet that goes with the vehicle: what was found and why it failed, what was done and with parts from where, what was used again knowingly,
 * what it left with, its fluid, what it was proven by, what is left as it is and whose name stands for it, and what to do now.
 *
 * @param unit figures are written in.
 * @param now what the parts come to now, to be held against the quote; null where nobody knows.
 */
export function customerSheet(
  job: Job,
  applied: Applied,
  house: House,
  unit: UnitSystem,
  now: Quote | null = null,
): CustomerSheet {
  const { present, book } = applied;
  const name = (id: string): string => nameIn(present, id);
  const partName = (id: string): string => partNameIn(present, id);
  const renewed = [...job.renewed.keys()];
  const sources = [...job.sources.values()].filter(({ body }) => body.from !== "bought");
  const kept = job.findings.filter(({ body: { part } }) => job.dispositions.get(part)?.body.is === "reuse");
  const signed = new Map([...job.signOffs.values()].map((fact) => [fact.id, fact]));
  const parts = [
    {
      title: "What you told us",
      lines: [
        job.booking?.body.words ?? "",
        ...symptomsOf(job).map(
          ({ body: { question, outcome } }) => `${questionWords(question)}: ${outcomeWords(outcome)}`,
        ),
      ],
    },
    {
      title: "What was found, and why it failed",
      lines: failed(job, applied).map((one) => foundWords(one, job, applied, house)),
    },
    {
      title: "What was done",
      lines: [
        (job.depths ?? []).length > 0 ? `Scope: ${(job.depths ?? []).join(" + ")}` : "",
        renewed.length > 0 ? `New: ${renewed.map(partName).join(", ")}` : "",
        ...sources.map(
          ({ body: { part, from, of } }) => `${partName(part)}: ${SOURCES.words[from]}${of ? `, ${of}` : ""}`,
        ),
      ],
    },
    {
      title: "Used again, knowingly",
      lines: kept.map(({ body: { part, wear } }) => `${partName(part)}: ${wearKind(present, wear).name}`),
    },
    {
      title: "Made stronger",
      lines: job.stronger ? job.stronger.body.ways.map(name) : [],
    },
    {
      title: "Fluid",
      lines: present.fluid
        ? [
            [
              present.fluid.name,
              nearestTotal(job.filled.filter(({ body }) => body.of === undefined).map(({ body }) => body)),
            ]
              .filter(Boolean)
              .join(", "),
            present.fluid.note ?? "",
          ]
        : [],
    },
    {
      title: "Proven by",
      lines: [
        ...[...job.relearned.values()].map(
          ({ body }) => `${name(body.relearn)}: ${LEARNED.words[body.outcome]}`,
        ),
        ...[...job.drives.values()].map(
          ({ body: { drive, driver, distance, is } }) =>
            `Drive ${drive}: ${distance} by ${driver}, ${DROVE.words[is]}`,
        ),
      ],
    },
    {
      title: "Found elsewhere in the vehicle, not of the transmission",
      lines: foreignCodes(job),
    },
    {
      title: "Left as it is",
      lines: [...signed.values()].map(({ body: { signedBy, reason, of } }) => {
        const about = of.slice(0, MOST).map((key) => {
          const id = key.replace(/^[a-z ]+ /, "");
          return /^(part|renew|question) /.test(key) ? partName(id) : name(id);
        });
        const more = of.length > MOST ? ` and ${of.length - MOST} more` : "";
        return `${about.join(", ")}${more}: ${reason} (${signedBy})`;
      }),
    },
    {
      title: "Your old parts",
      lines: [...job.oldParts.values()].map(
        ({ body: { part, goes } }) => `${partName(part)}: ${OLD_PARTS.words[goes]}`,
      ),
    },
    {
      title: "What it costs",
      lines: job.quoted && now ? quoteChanges(job.quoted.body, now) : [],
    },
    { title: "What is promised", lines: [job.quoted?.body.promised ?? ""] },
    { title: "From now on", lines: [...(book.care ?? [])] },
  ];
  return {
    parts: parts
      .map(({ title, lines }) => ({ title, lines: lines.filter(Boolean) }))
      .filter(({ lines }) => lines.length > 0),
    figures: specLines(job, applied, house, unit)
      .filter(({ subject, built }) => built.text !== "" && subject !== "chain")
      .map(({ name: of, spec, built }) => ({ name: of, spec, is: built.text })),
  };
}

/** So many of what a lead signed for are named. */
const MOST = 4;

/** What failed, what was seen of it, and its cause as it was found. */
function foundWords(one: Failed, job: Job, applied: Applied, house: House): string {
  const seen = [...new Set(one.findings.map(({ body }) => wearKind(applied.present, body.wear).name))];
  const head = `${one.name}: ${seen.join(", ")}`;
  if (!one.cause) return head;
  const { cause, standing, note, after } = one.cause.body;
  if (standing === "not-found") return `${head}. The cause was not found${note ? `: ${note}` : ""}`;
  const known = candidateCauses(job, applied, house.rule, one).find(({ id }) => id === cause)?.name ?? cause;
  const chain = after ? `, after ${nameIn(applied.present, after)} failed` : "";
  return `${head}. Because of: ${known}${standing === "likely" ? ", most likely" : ""}${chain}${note ? ` (${note})` : ""}`;
}
