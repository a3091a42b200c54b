import { chain, order, pack, seat, series } from "./format/pack";
import { checkBall, fastenerGroup, measurement, ownReason, ownWear, part, weakPoint } from "./format/parts";
import { way } from "./format/stronger";
import { drives, procedure, proof } from "./format/prove";
import { consumable, kit } from "./format/supply";
import { element, gearSet, range, station, train } from "./format/train";
import {
  airCheck,
  caution,
  connector,
  fluid,
  linkage,
  lubePath,
  parkLock,
  pressureTap,
  readOut,
  relearn,
  soak,
  picture,
  step,
  tip,
  tool,
  trap,
} from "./format/work";
import { measure } from "./format/common";
import {
  about,
  check,
  id,
  jsonSchemaOf,
  list,
  map,
  names,
  number,
  object,
  oneOf,
  optional,
  text,
  usually,
  whole,
  type JsonSchema,
  type Read,
} from "../shape";

import { NOT_KNOWN, upcastBook } from "./upcast";

/** `yard-key/book@1`: what is known about one unit. This file is the one description of the document. */
export const BOOK_FORMAT = "yard-key/book@1";

/** Families of transmissions a book can be of. */
export const FAMILIES = ["automatic", "cvt", "dual-clutch"] as const;

/** The book of one unit, as the document states it: `docs/book.schema.json` is made from this. */
export const book = object({
  format: oneOf(BOOK_FORMAT),
  unit: object({
    id: about("Made of its maker and name where it is left out.", usually(id, "")),
    maker: usually(text, NOT_KNOWN.maker),
    name: text,
    family: oneOf(...FAMILIES),
    lengthUnit: oneOf("mm", "in"),
    revision: usually(whole(1, 100_000), 1),
    source: about("Where its figures are from.", usually(text, NOT_KNOWN.source)),
    summary: optional(text),
    behind: about(
      "The strongest engine it was built behind.",
      optional(
        object({
          torque: measure("torque"),
          speed: about("Of the input when it shifts at full throttle.", measure("speed")),
          stall: about("What the converter makes of the torque at a standstill.", optional(number(1, 4))),
          held: about(
            "How much of its torque the engine is let give in a range, where the control unit holds it back.",
            optional(map(number(0.1, 1))),
          ),
        }),
      ),
    ),
  }),
  traits: usually(
    list(object({ id: names("trait"), name: text, values: map(object({ name: text, tell: text })) })),
    [],
  ),
  depths: usually(list(names("depth", text), 1), ["full"]),
  stations: usually(list(station), []),
  train: usually(train, { input: "input", output: "output", held: "case" }),
  members: usually(list(names("member"), 1), ["input", "output", "case"]),
  gearSets: usually(list(gearSet), []),
  elements: usually(list(element), []),
  ranges: usually(list(range), []),
  series: usually(list(series), []),
  seats: optional(list(seat)),
  packs: usually(list(pack), []),
  chains: usually(list(chain), []),
  orders: optional(list(order)),
  parts: usually(list(part), []),
  wears: optional(list(ownWear)),
  reasons: optional(list(ownReason)),
  kits: optional(list(kit)),
  consumables: optional(list(consumable)),
  stronger: optional(list(way)),
  weakPoints: optional(list(weakPoint)),
  measurements: optional(list(measurement)),
  fasteners: optional(list(fastenerGroup)),
  checkBalls: optional(list(checkBall)),
  airChecks: optional(list(airCheck)),
  pressureTaps: optional(list(pressureTap)),
  connectors: optional(list(connector)),
  parkLock: optional(parkLock),
  linkage: optional(linkage),
  lubrication: optional(list(lubePath)),
  tools: optional(list(tool)),
  tips: optional(list(tip)),
  pictures: optional(list(picture)),
  cautions: optional(list(caution)),
  teardown: optional(list(step)),
  build: optional(list(step)),
  traps: optional(list(trap)),
  fluid: optional(fluid),
  soaks: optional(list(soak)),
  readOuts: optional(list(readOut)),
  relearns: optional(list(relearn)),
  procedures: optional(list(procedure)),
  proofs: optional(list(proof)),
  drives: optional(drives),
  care: about(
    "What whoever drives it is told: how it is run in, when it comes back.",
    optional(list(text, 1)),
  ),
});

/** A book as it was read: lengths in nanometres, references known to hold. */
export type Book = Read<typeof book>;
/** A trait that tells versions of the unit apart, with its values and how each is told. */
export type Trait = Book["traits"][number];

/** The format for editors: JSON Schema 2020-12, made from the shapes that read a book. */
export const bookSchema = (): JsonSchema => ({
  $schema: "https://json-schema.org/draft/2020-12/schema",
  title: BOOK_FORMAT,
  ...jsonSchemaOf(book),
});

/**
 * A book that is kept already: its form alone, so that a job goes on with the revision it was opened with when the check has learned
 * to refuse more.
 *
 * @returns null when its form is broken.
 */
export function keptBook(document: unknown): Book | null {
  const { value, problems } = check(book, upcastBook(document));
  return problems.length === 0 ? value : null;
}
