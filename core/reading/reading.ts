import { nm, type LengthUnit, type Nm } from "../quantity";

/** How a clearance was read. */
export type Method = "air and dial" | "hand and dial" | "feeler" | "by the numbers";
/** Ways a clearance is read, the best first. */
export const METHODS: readonly Method[] = ["air and dial", "hand and dial", "feeler", "by the numbers"];

/** How any length is read: the ways of a clutch pack, and the other gauges of the bench. */
export const GAUGES = [
  ...([
    "air and dial",
    "hand and dial",
    "feeler",
    "by the numbers",
    "dial",
    "micrometer",
    "bore gauge",
  ] as const),
  ...(["depth gauge", "caliper", "straight edge", "turning torque"] as const),
] as const;
/** A gauge readings are taken with. */
export type Gauge = (typeof GAUGES)[number];

/** The smallest step of a gauge where nobody said otherwise: a micrometer and a bore gauge read finer than a dial. */
export function stepOf(gauge: Gauge, unit: LengthUnit): Nm {
  const fine = gauge === "micrometer" || gauge === "bore gauge";
  if (unit === "mm") return nm(fine ? 1_000 : 10_000);
  return nm(fine ? 2_540 : 12_700);
}

/** Whether the facings had taken up fluid when the reading was taken, or when the spec holds. */
export type Soak = "dry" | "soaked";
/** Whether the facings were new or had bedded in. */
export type Facings = "new" | "run-in";
/** Whether a waved plate was left free or pressed flat. */
export type Wave = "free" | "flat";

/** The state of a pack, either at a reading or as the spec states it. */
export interface PackState {
  soak: Soak;
  /** Absent where a spec does not say: then readings are held against it as they are. */
  facings?: Facings | undefined;
  /** Absent where the pack has no waved plate. */
  wave?: Wave;
}

/** A dial reading: the value, and where the needle came back to when the pack was let down. */
export interface Single {
  kind: "single";
  value: Nm;
  /** Needle after the pack was let down, against the zero before; absent when not looked at. */
  back?: Nm;
}

/** Feeler blades: the thickest that passes and the thinnest that does not, or only one of them. */
export type Bracket =
  | { kind: "bracket"; passes: Nm; refuses: Nm }
  | { kind: "bracket"; passes: Nm; refuses?: undefined }
  | { kind: "bracket"; passes?: undefined; refuses: Nm };

/** Worked out from links measured one by one; `uncertainty` is the standard uncertainty the chain gave. */
export interface Summed {
  kind: "summed";
  value: Nm;
  uncertainty: Nm;
}

/** One reading of a clearance or an end play. */
export type Reading = Single | Bracket | Summed;

/** A reading with the state of the pack it was taken in, and whether it counts. */
export interface TakenReading {
  reading: Reading;
  state: PackState;
  /** Left out by the builder: it stays visible and does not count. */
  leftOut?: boolean;
  /** Smallest step of the gauge. */
  resolution: Nm;
}
