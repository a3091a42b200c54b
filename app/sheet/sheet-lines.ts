import type { When } from "~/door/when";
import { verdictWords } from "~/look/mark";
import {
  nameIn,
  seatWord,
  type Applied,
  type Book,
  type UnitSystem,
  limitWords,
  believed,
  unitName,
} from "~core/book";
import { otherUnit, otherUnitWords, warrantyWords } from "~core/inspect";
import {
  asFound,
  isPackSheet,
  lastAt,
  leavesWith,
  readers,
  titleOf,
  type ReadingSet,
  type Worksheet,
} from "~core/measure";
import {
  CANNOT,
  CONDITIONS,
  FAULTS,
  FLUID_LOOKS,
  FLUID_SMELLS,
  outcomeWords,
  questionWords,
  USES,
  type Job,
} from "~core/fact";
import { plusMinusText, roundedText, type LengthUnit } from "~core/quantity";
import type { DecisionRule } from "~core/reading";
import { pieceText } from "~/choose/piece-text";
import { torqueText } from "~/stronger/figures";

/** One pack on the build sheet, in words: the page and the PDF say the same. */
export interface SheetLine {
  pack: string;
  name: string;
  spec: string;
  found: string;
  chosen: string;
  built: string;
  verdict: string;
  /** Who took the as-built readings, or signed, and when. */
  who: string;
}

const figure = ({ assessment: { estimate } }: ReadingSet, unit: LengthUnit): string =>
  estimate ? plusMinusText(estimate.mean, estimate.expanded, unit) : "not read";

/** @param when how moments are written in the shop. */
export function sheetLine(sheet: Worksheet, unit: LengthUnit, { moment }: When): SheetLine {
  const { applied, found, waiver, seats, choice, kept } = sheet;
  const { state } = applied.spec;
  const common = {
    pack: titleOf(sheet),
    name: isPackSheet(sheet) ? sheet.applied.pack.name : applied.chain.kind,
    spec: `${limitWords(applied.spec, unit)}${isPackSheet(sheet) ? `, ${state.soak}` : ""}${applied.house ? ", house limit" : believed(applied.book)}`,
    found: figure(found, unit),
    chosen: seatsText(seats, choice !== null, kept, unit),
  };
  const last = leavesWith(sheet);
  const at = lastAt(last);
  if (waiver) {
    return {
      ...common,
      built: figure(last, unit),
      verdict: `Signed: ${waiver.body.reason}`,
      who: `${waiver.body.signedBy}, ${moment(waiver.at)}`,
    };
  }
  return {
    ...common,
    built: figure(last, unit),
    verdict: verdictOf(sheet, last, unit),
    who: `${readers(last).join(", ")} ${at ? moment(at) : ""}`.trim(),
  };
}

function verdictOf({ conditions }: Worksheet, last: ReadingSet, unit: LengthUnit): string {
  if (last.readings.length === 0) return "not read";
  return conditions.missing.length > 0 ? "conditions not said" : verdictWords(last.assessment.verdict, unit);
}

/** What is in the seats of a figure: one piece by itself, several with their places. */
function seatsText(seats: Worksheet["seats"], chosen: boolean, kept: boolean, unit: LengthUnit): string {
  const known = seats.flatMap(({ link, fitted }) =>
    fitted
      ? [seats.length > 1 ? `${seatWord(link)} ${pieceText(fitted, unit)}` : pieceText(fitted, unit)]
      : [],
  );
  if (known.length === 0) return "none";
  return `${known.join("; ")}${chosen ? (kept ? " (kept)" : "") : " (as found)"}`;
}

/** A unit with what was seen of it: its name, and which version it is. */
export const unitWords = (
  { unit, traits }: Pick<Book, "unit" | "traits">,
  configuration: Readonly<Record<string, string>>,
): string => [unitName(unit), configurationText(traits, configuration)].filter(Boolean).join(", ");

/** What was seen of the unit, in the book's words. */
export const configurationText = (
  traits: readonly { id: string; values: Record<string, { name: string }> }[],
  configuration: Readonly<Record<string, string>>,
): string =>
  traits.map(({ id, values }) => values[configuration[id] ?? ""]?.name ?? `${id} not seen`).join(", ");

/** What was told and found before the unit was opened, a line each; those without a word are left out. */
/** What the unit was made to carry beyond what it was built for, with every way that was taken; nothing where it is built as it was. */
export function strongerText(
  { stronger }: Pick<Job, "stronger">,
  { present }: Pick<Applied, "present">,
  unit: UnitSystem,
): string {
  if (!stronger) return "";
  const { ways, turns, torque, use, reason } = stronger.body;
  const names = ways.map((id) => nameIn(present, id)).join(", ");
  return `for ${USES.words[use]} behind ${torqueText(torque, unit)}: ${names}${turns ? `, regulator ${turns} turns in` : ""} (${stronger.by}, “${reason}”)`;
}

export function intakeLines(
  job: Job,
  applied: Applied,
  rule: DecisionRule,
  unit: UnitSystem,
): [name: string, value: string][] {
  const booking = job.booking?.body;
  const answers = job.answers.filter(({ body }) =>
    /^(range|manual|neutral|standing|whole)/.test(body.question),
  );
  const symptoms = answers.map(({ body: { question, outcome, conditions } }) => {
    const when = conditions.map((one) => CONDITIONS.words[one]);
    return [questionWords(question), outcomeWords(outcome), ...when].join(" ");
  });
  const debris = job.debris.filter(({ body }) => body.amount !== "none");
  const figures = asFound(job, applied, rule).flatMap((one) => {
    const name = one.kind === "chain" ? one.applied.chain.name : one.measurement.name;
    const estimate = one.kind === "chain" ? one.assessment.estimate : null;
    const value = estimate
      ? roundedText(estimate.mean, unit)
      : one.said && (one.said.body.text ?? CANNOT.words[one.said.body.cannot]);
    return value ? [`${name} ${value}`] : [];
  });
  const fluid = job.fluid?.body;
  const conclusion = job.conclusion?.body;
  const lines: [string, string | undefined][] = [
    ["Customer’s words", booking?.words],
    ["Use", booking?.use],
    ["Earlier work", booking?.earlier],
    ["Symptoms", symptoms.join(", ")],
    ["Codes", job.codes.map(({ body }) => `${body.code} ${body.words}`.trim()).join(", ")],
    [
      "Fluid",
      fluid &&
        `${FLUID_LOOKS.words[fluid.look]}, smells ${FLUID_SMELLS.words[fluid.smell]}${fluid.note ? `, ${fluid.note}` : ""}`,
    ],
    ["Debris", debris.map(({ body }) => `${body.where}: ${body.amount} ${body.what}`).join(", ")],
    ["As found", figures.join(", ")],
    ["Made stronger", strongerText(job, applied, unit)],
    ["Goes in", otherUnitText(job, applied.book)],
    [
      "Fault",
      conclusion && conclusion.fault !== "open"
        ? `${FAULTS.words[conclusion.fault]}: ${conclusion.reason}`
        : undefined,
    ],
    ["Fee for looking", conclusion?.fee],
    ["Photos", job.photos.length > 0 ? `${job.photos.length}, kept with the job` : undefined],
  ];
  return lines.filter((line): line is [string, string] => Boolean(line[1]));
}

/** The other unit that goes in, what is promised on it and renewed before, and who decided it. */
function otherUnitText(job: Job, { unit, parts }: Book): string | undefined {
  const other = otherUnit(job);
  if (!other) return undefined;
  const { offer, renew, decided } = other;
  const renewed = parts.filter(({ id }) => renew.includes(id)).map(({ name }) => name);
  return [
    otherUnitWords(other, unit.name),
    ...warrantyWords(offer),
    ...(renewed.length > 0 ? [`renewed: ${renewed.join(", ")}`] : []),
    `${decided.body.reason} (${decided.by})`,
  ].join("; ");
}

/** Whether the job ended without anything being built: the fault lay elsewhere, or it was called off. */
export const endedUnbuilt = (job: Job): boolean =>
  job.closed !== null &&
  (job.closed.body.calledOff !== undefined || job.conclusion?.body.fault === "elsewhere");

/** Whether the unit that was here is not built: then no figure it leaves with stands on the sheet. */
export const isUnbuilt = (job: Job): boolean => endedUnbuilt(job) || otherUnit(job) !== null;

/** What the sheet of a job is called. */
export function sheetTitle(job: Job): string {
  if (job.closed?.body.calledOff) return "Called off";
  if (endedUnbuilt(job)) return "Record of looking";
  return otherUnit(job) ? "Another unit" : "Build sheet";
}

/** How a closed job ended, and who says so; empty while it goes on. */
export function endedWords(job: Job): string {
  if (!job.closed) return "";
  const { by, body } = job.closed;
  const named = by.replace(/\.$/, "");
  if (body.calledOff) return `Called off by ${named}: ${body.calledOff.reason}`;
  return endedUnbuilt(job) ? `Ended by ${named}: not this unit.` : `Closed by ${named}.`;
}
