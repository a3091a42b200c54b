import type { Quantity } from "../quantity";
import type { Measurement } from "./format/parts";

/** The quantity that each kind of measurement is stated in. */
const STATED: Readonly<Record<Measurement["kind"], Quantity | "length" | null>> = {
  resistance: "resistance",
  "turning torque": "torque",
  pressure: "pressure",
  "spring load": "force",
  "spring length": "length",
  flatness: "length",
  runout: "length",
  "valve drop": null,
  seen: null,
  "leak-down": "pressure",
  temperature: "temperature",
  voltage: "voltage",
  "plate thickness": "length",
  "fastener stretch": "length",
};

/** What a measurement's limits are stated in; null where it is seen, not measured. */
export const statedIn = (kind: Measurement["kind"]): Quantity | "length" | null => STATED[kind];
