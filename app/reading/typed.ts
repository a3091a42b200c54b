import type { Phase, ReadingBody } from "~core/fact";
import { isPackChain, type ReadingSet, type Worksheet } from "~core/measure";
import { plausible } from "~core/pack";
import { pascalsOf, type LengthUnit, type Nm, type Pa } from "~core/quantity";
import {
  METHODS,
  parseReading,
  question,
  stepOf,
  type Facings,
  type Gauge,
  type Meaning,
  type PackState,
  type Reading,
} from "~core/reading";

/** The conditions a run of readings is taken under. */
export interface Conditions {
  method: Gauge;
  /** Of a pack’s facings. */
  state?: PackState & { facings: Facings };
  air?: Pa;
}

/** What the next reading most likely is taken under: as the last one was, else as the spec is stated. */
export function usualConditions({ applied }: Worksheet, phase: Phase, set: ReadingSet): Conditions {
  const last = set.readings.at(-1)?.fact.body;
  if (!isPackChain(applied)) return { method: last?.method ?? applied.chain.read.with[0] ?? "dial" };
  const method = METHODS.find((one) => one === last?.method);
  if (last?.state && method) return { method, state: last.state, air: last.air };
  const facings = phase === "found" ? "run-in" : "new";
  const { air } = applied.chain.read;
  const hasWave = applied.stack.some(({ role }) => role === "waved plate" || role === "cushion plate");
  return {
    method: applied.methods[0] ?? "air and dial",
    state: {
      soak: applied.spec.state.soak,
      facings,
      ...(hasWave ? { wave: applied.spec.state.wave ?? "free" } : {}),
    },
    ...(air ? { air: pascalsOf(air) } : {}),
  };
}

/** What a reading on this page is of, as one says it. */
export const whatIsRead = ({ applied }: Worksheet): string =>
  isPackChain(applied) ? "this pack’s clearance" : `this ${applied.chain.kind}`;

export type TypedReading =
  | { ok: true; body: ReadingBody }
  | {
      ok: false;
      problem: string;
      /** Present when it was understood but cannot be meant. */ asked?: { length: Nm; meanings: Meaning[] };
    };

/** A dial reading from what was typed; an implausible one is questioned unless the builder is sure. */
export function readTyped(
  text: string,
  unit: LengthUnit,
  sheet: Worksheet,
  phase: Phase,
  sure: boolean,
  conditions?: Conditions,
): TypedReading {
  const parsed = parseReading(text, unit);
  if (!parsed.ok) return { ok: false, problem: `${parsed.problem}; ${parsed.remedy}` };
  const { length, unit: read } = parsed;
  if (!sure) {
    const meanings = question(length, read, plausible(sheet.applied));
    if (meanings)
      return {
        ok: false,
        problem: `That cannot be ${whatIsRead(sheet)}.`,
        asked: { length, meanings },
      };
  }
  const set = sheet[phase === "found" ? "found" : sheet.choice ? "built" : "trial"];
  const under = conditions ?? usualConditions(sheet, phase, set);
  const body = bodyOf(sheet, phase, under, { kind: "single", value: length }, read);
  return { ok: true, body: { ...body, typed: text.trim() } };
}

/** A reading of this pack as the fact it becomes. */
export function bodyOf(
  { applied, fit }: Worksheet,
  phase: Phase,
  { method, state, air }: Conditions,
  reading: Reading,
  unit: LengthUnit,
): ReadingBody {
  return {
    kind: "reading",
    chain: applied.chain.id,
    phase,
    fit,
    method,
    ...(state ? { state } : {}),
    reading,
    resolution: stepOf(isPackChain(applied) ? "dial" : method, unit),
    unit,
    ...(method === "air and dial" && air ? { air } : {}),
  };
}
