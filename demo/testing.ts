// What is said at the bench, short, for tests of inspecting.
import { bookOf, type UnitId } from "./units";
import { resolve, type Applied, type Configuration } from "../core/book";
import { dispositions, USUAL_SCHOOLS, type PartState, type Schools } from "../core/inspect";
import { fold, type Fact, type FactBody, type Job, type Severity } from "../core/fact";
import { lengthOf } from "../core/quantity";

/** Every trait takes the value named, or its last. */
export function unitOf(id: UnitId, told: Configuration = {}, depths?: readonly string[]): Applied {
  const book = bookOf(id);
  const version = Object.fromEntries(
    book.traits.map(({ id: trait, values }) => [trait, told[trait] ?? Object.keys(values).at(-1) ?? ""]),
  );
  return resolve(book, version, depths ?? book.depths.slice(-1));
}
let n = 0;
const START = Date.UTC(2026, 4, 4, 8);
/** A job of what was said, an hour between each: what has to stand has stood. */
export const jobOf = (bodies: readonly FactBody[]): Job =>
  fold(
    bodies.map((body, i): Fact => ({
      id: `f${n++}`,
      at: new Date(START + i * 3_600_000).toISOString(),
      by: "Mira K.",
      body,
    })),
  );

export const finding = (part: string, wear: string, severity: Severity = "worn", sure = true): FactBody => ({
  kind: "finding",
  part,
  wear,
  severity,
  sure,
  note: "",
  there: true,
});
export const good = (...parts: string[]): FactBody => ({ kind: "good", parts });
export const read = (chain: string, ...values: string[]): FactBody[] =>
  values.map((value) => ({
    kind: "reading",
    chain,
    phase: "found",
    fit: 0,
    method: "feeler",
    state: { soak: "dry", facings: "run-in" },
    reading: { kind: "single", value: lengthOf(value) },
    resolution: lengthOf("0.001 mm"),
    unit: "mm",
  }));
export const figure = (id: string, text: string): FactBody => ({
  kind: "figure",
  of: "measurement",
  id,
  phase: "found",
  text,
  note: "",
});
export const wrong = (
  of: string,
  what: "turned-round" | "too-many" | "another-versions-part" | "from-another-pack",
): FactBody => ({
  kind: "wrong",
  what,
  of,
  note: "",
  there: true,
});
export const debris = (
  what: "chunks" | "flakes" | "brass" | "friction",
  amount: "some" | "much",
  where: "pan" | "cooler" = "pan",
): FactBody => ({
  kind: "debris",
  where,
  what,
  amount,
});
export const answered = (point: string, answer: string): FactBody => ({
  kind: "weak-point",
  point,
  answer,
  note: "",
});
export const booked = (use: string, earlier = ""): FactBody => ({
  kind: "booking",
  vehicle: "Skerry",
  customer: "",
  words: "slips",
  odometer: "",
  use,
  earlier,
});
export const fluid = (look: "black" | "milky", smell: "burnt" | "old"): FactBody => ({
  kind: "fluid",
  look,
  smell,
  note: "",
});

export const all = (
  unit: UnitId,
  bodies: readonly FactBody[],
  schools: Schools = USUAL_SCHOOLS,
): PartState[] => dispositions(jobOf(bodies), unitOf(unit), schools, "proven");
