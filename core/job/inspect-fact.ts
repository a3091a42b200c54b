import type { Nm } from "../quantity";

/** What is seen on parts, and what becomes of them. */
export type InspectBody =
  /** Looked at and in good order; takes back what was found on them before. */
  | { kind: "good"; parts: string[] }
  | {
      kind: "finding";
      part: string;
      wear: string;
      severity: Severity;
      /** False for a suspicion that stays open. */
      sure: boolean;
      /** Which of several pieces, counted from the piston; absent for all of them. */
      pieces?: number[];
      note: string;
      there: boolean;
    }
  | { kind: "disposition"; part: string; is: Disposition; reason: string }
  | { kind: "weak-point"; point: string; answer: string; note: string }
  | {
      kind: "cause";
      /** The element or part that failed. */
      of: string;
      cause: string;
      standing: CauseStanding;
      note: string;
      /** What failed first, when this one followed from it. */
      after: string;
    }
  /** What one way on for this unit costs, in whole cents, with hours of work and the chance of a comeback in percent. */
  | { kind: "offer"; way: Way; cents: number; hours: number; risk: number; note: string }
  /** The same unit was here before, and left with these figures. */
  | { kind: "earlier-visit"; job: number; left: string; figures: EarlierFigure[] }
  /** The way the lead chose. */
  | { kind: "way-on"; way: Way; reason: string };

/** A figure that a unit left with at an earlier visit, as it was said there. */
export interface EarlierFigure {
  /** Of a chain or of a measurement. */
  of: "chain" | "measurement";
  id: string;
  text: string;
  /** The mean, where it is a length with one. */
  value?: Nm;
}

export const WAYS_ON = ["rebuild", "reconditioned", "used"] as const;
export type Way = (typeof WAYS_ON)[number];
export const SEVERITIES = ["trace", "worn", "beyond use"] as const;
export type Severity = (typeof SEVERITIES)[number];
export const DISPOSITIONS = ["reuse", "clean", "measure first", "machine", "upgrade", "replace"] as const;
export type Disposition = (typeof DISPOSITIONS)[number];
export const CAUSE_STANDINGS = ["found", "likely", "not found"] as const;
export type CauseStanding = (typeof CAUSE_STANDINGS)[number];
