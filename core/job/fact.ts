import type { LengthUnit, Nm, Pa } from "../quantity";
import type { DecisionRule, Method, PackState, Reading } from "../reading";
import type { Piece } from "../select";

/** As found in the unit before anything was changed, or with the parts that will stay in. */
export type Phase = "found" | "built";

/** A link measured one by one for a reading by the numbers. */
export interface MeasuredLink {
  name: string;
  sign: 1 | -1;
  value: Nm;
  uncertainty: Nm;
}

/** What a fact can say. Later places of the shop add kinds; none is ever changed or taken away. */
export type FactBody =
  | { kind: "booking"; vehicle: string; customer: string; words: string; odometer: string }
  | { kind: "configuration"; traits: Record<string, string> }
  | { kind: "scope"; depth: string }
  | { kind: "holder"; name: string; staff: string | null }
  | ReadingBody
  | { kind: "leave-out"; reading: string; out: boolean; reason: string }
  | {
      kind: "fitting";
      chain: string;
      fit: number;
      piece: Piece;
      origin: "found" | "shelf" | "odd piece" | "ordered";
    }
  | {
      kind: "choice";
      chain: string;
      fit: number;
      kept: boolean;
      reason: string;
      /** What was expected when choosing: kept to be held against the outcome, never shown as a measurement. */
      prediction: { mean: Nm; expanded: Nm; chance: number };
    }
  | { kind: "waiver"; chain: string; reason: string; signedBy: string }
  | { kind: "closed"; rule: DecisionRule };

export interface ReadingBody {
  kind: "reading";
  chain: string;
  phase: Phase;
  /** Which fitting of the selective was in: 0 is what was found. */
  fit: number;
  method: Method;
  state: PackState;
  reading: Reading;
  resolution: Nm;
  /** The unit it was read in, and the characters typed, if it was typed. */
  unit: LengthUnit;
  typed?: string;
  air?: Pa;
  /** The links of a reading by the numbers. */
  links?: MeasuredLink[];
}

export type FactKind = FactBody["kind"];

/** Somebody said something about a job, once and for all. The id is made where it was said, so sending twice stores once. */
export interface Fact<B extends FactBody = FactBody> {
  id: string;
  /** When it was said, by the clock of whoever said it; ISO 8601. */
  at: string;
  by: string;
  /** The fact this one corrects; the old one stays visible. */
  replaces?: string;
  body: B;
}
