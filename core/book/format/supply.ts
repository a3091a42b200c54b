import { about, list, names, object, optional, oneOf, refersTo, text, whole, type Read } from "../../shape";
import { measure, holds } from "./common";

/** What is used up at the work and is no part: gel, locker, sealer, grease. */
export const consumable = object({
  id: names("consumable"),
  name: text,
  number: optional(text),
  amount: about("For one unit.", optional(measure("volume"))),
  for: text,
  thread: about(
    "Where it is for threads: every bolt of the book that wants it.",
    optional(oneOf("transmission fluid", "grease", "anti-seize", "thread locker", "sealer")),
  ),
  ...holds,
});

/** Parts that are bought together, with all that lies in the box: also what this version of the unit has no use for. */
export const kit = object({
  id: names("kit"),
  name: text,
  number: text,
  grade: about("Beside the stock one.", optional(text)),
  contents: list(object({ of: refersTo(["part", "fastener group"]), count: whole(1, 80) }), 1),
  note: optional(text),
  ...holds,
});

/** A kit of the book. */
export type Kit = Read<typeof kit>;
/** What is used up at the work. */
export type Consumable = Read<typeof consumable>;
