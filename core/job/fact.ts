import type { Point } from "../chain";
import type { LengthUnit, Nm, Pa } from "../quantity";
import type { Condition, DebrisKind } from "../diagnose";
import type { DecisionRule, Gauge, PackState, Reading } from "../reading";
import type { Piece } from "../select";
import type { InspectBody } from "./inspect-fact";
import type { WorkBody } from "./work-fact";

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
  | Booking
  | { kind: "configuration"; traits: Record<string, string> }
  | { kind: "scope"; depth: string }
  | { kind: "holder"; name: string; staff: string | null }
  | ReadingBody
  | IntakeBody
  | WorkBody
  | InspectBody
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

export interface Booking {
  kind: "booking";
  vehicle: string;
  customer: string;
  words: string;
  odometer: string;
  /** How it is driven: towing, taxi, short trips. */
  use?: string;
  /** What somebody did before: old sealant, new marks, a part turned over and used again. */
  earlier?: string;
}

/** What is told and looked at before the unit is opened. `there: false` takes back what was said before. */
export type IntakeBody =
  | {
      kind: "answer";
      /** A question of the diagnosis, and how it is answered. */
      question: string;
      outcome: string;
      conditions: Condition[];
      there: boolean;
      note?: string;
    }
  | {
      kind: "code";
      code: string;
      words: string;
      sort: string;
      related: "yes" | "no" | "unsure";
      there: boolean;
    }
  | { kind: "speeds"; range: string; input: number; output: number; there: boolean }
  | { kind: "fluid"; look: FluidLook; smell: FluidSmell; note: string }
  | { kind: "debris"; where: DebrisPlace; what: DebrisKind; amount: DebrisAmount }
  | { kind: "conclusion"; fault: "this unit" | "elsewhere" | "open"; reason: string; fee: string }
  | {
      kind: "figure";
      of: "chain" | "measurement";
      id: string;
      phase: Phase;
      /** Of which of the things the book takes it of. */
      item?: string;
      /** As typed, with its unit; absent when it could not be taken. */
      text?: string;
      cannot?: Cannot;
      note: string;
    }
  | { kind: "read-out"; readOut: string; text: string; from: "typed" | "pasted" | "scan tool" }
  | { kind: "photo"; photo: string; caption: string; of: string }
  | {
      kind: "photo-mark";
      photo: string;
      shape: "arrow" | "circle";
      /** In thousandths of the picture's width and height. */
      from: [x: number, y: number];
      to: [x: number, y: number];
      there: boolean;
      /** The mark that is taken back. */
      mark?: string;
    }
  | { kind: "place"; place: string; sort: PlaceSort; name: string };

export const FLUID_LOOKS = ["red or clear", "brown", "black", "milky", "none came out"] as const;
export type FluidLook = (typeof FLUID_LOOKS)[number];
export const FLUID_SMELLS = ["as new", "old", "burnt"] as const;
export type FluidSmell = (typeof FLUID_SMELLS)[number];
export const DEBRIS_PLACES = ["pan", "magnet", "filter", "cooler", "neighbour"] as const;
export type DebrisPlace = (typeof DEBRIS_PLACES)[number];
export const DEBRIS_AMOUNTS = ["none", "trace", "some", "much"] as const;
export type DebrisAmount = (typeof DEBRIS_AMOUNTS)[number];
/** Why a figure has no number: recorded as what it is, never left blank or made up. */
export const CANNOT = [
  ...([
    "felt only, in order",
    "felt only, not in order",
    "seen only",
    "thinnest blade does not enter",
  ] as const),
  ...(["passes with drag", "gauge not here yet", "does not run", "cannot be reached"] as const),
] as const;
export type Cannot = (typeof CANNOT)[number];
export const PLACE_SORTS = ["case", "tray", "bin", "bag"] as const;
export type PlaceSort = (typeof PLACE_SORTS)[number];

export interface ReadingBody {
  kind: "reading";
  chain: string;
  phase: Phase;
  /** Which fitting of the selective was in: 0 is what was found. */
  fit: number;
  method: Gauge;
  state: PackState;
  reading: Reading;
  resolution: Nm;
  /** The unit it was read in, and the characters typed, if it was typed. */
  unit: LengthUnit;
  typed?: string;
  air?: Pa;
  /** The links of a reading by the numbers. */
  links?: MeasuredLink[];
  /** Of which of the things the chain is read of, each by itself. */
  item?: string;
  /** Diameters of a bore and its journal, all of them; the links are the two that decide. */
  points?: Point[];
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
