import {
  about,
  flag,
  id,
  list,
  names,
  object,
  oneOf,
  optional,
  refersTo,
  suchThat,
  text,
  type Read,
} from "../../shape";
import { readDistance } from "../../quantity";
import { holds, measure } from "./common";

/** What must be so before something counts: read off the vehicle, or said by whoever stands there. */
export const gate = object({
  fluid: about(
    "How warm the fluid is.",
    optional(object({ from: optional(measure("temperature")), to: optional(measure("temperature")) })),
  ),
  engine: optional(oneOf("off", "running")),
  revs: optional(object({ from: measure("speed"), to: measure("speed") })),
  lever: about("The position it stands in.", optional(text)),
  brake: optional(oneOf("held", "free")),
  pedal: optional(oneOf("untouched", "pressed")),
});

/** One turn of a procedure: somebody's, who may be alone. */
export const turn = object({
  id,
  who: about("In the seat, or under the lift.", oneOf("seat", "lift")),
  say: about("What is done, as it is said aloud.", text),
  not: about("What is not touched meanwhile.", optional(text)),
  gate: about("What must be so when it is done.", optional(gate)),
  hold: about("How long the gate must be so.", optional(measure("time"))),
  window: about("Done only within the procedure’s window.", optional(flag)),
  amount: about("What ran in or out is written down.", optional(flag)),
  caution: optional(refersTo("caution")),
  ...holds,
});

/** Something that is run with the engine and its fluid, turn by turn, by two people or one. */
export const procedure = object({
  id: names("procedure"),
  name: text,
  begin: about("What must be so when it is begun.", optional(gate)),
  window: about(
    "How warm the fluid is meanwhile; past it the procedure is begun anew.",
    optional(object({ from: measure("temperature"), to: measure("temperature") })),
  ),
  missed: about("What is done where the window is passed.", optional(text)),
  turns: list(turn, 1),
  ...holds,
});

/** Something to see to once the unit is in the vehicle. */
export const proof = object({
  id: names("proof"),
  what: text,
  at: about(
    "Before the engine may be started, at the first start, or after it was driven.",
    oneOf("before the engine", "first start", "after the drive"),
  ),
  codes: about(
    "What the control unit remembers is read for it: each code of this unit or not, cleared, and read again.",
    optional(flag),
  ),
  no: about("What is done where it is not so.", optional(text)),
  caution: optional(refersTo("caution")),
  ...holds,
});

/** What is asked of whoever drives it, besides each range and what it was brought with. */
export const drives = object({
  items: list(object({ id, what: text, ...holds })),
  second: about("When it is driven again, by somebody else.", text),
  again: about(
    "The least of that, to be held against what is said: so long after the first drive, or so far.",
    optional(
      object({
        time: measure("time"),
        distance: suchThat(text, {
          test: (given) => readDistance(given) !== null,
          message: "no distance",
          remedy: "write it as 100 km",
        }),
      }),
    ),
  ),
});

/** What must be so before something counts. */
export type Gate = Read<typeof gate>;
/** A turn of a procedure. */
export type ProcedureTurn = Read<typeof turn>;
/** A procedure, turn by turn. */
export type Procedure = Read<typeof procedure>;
/** Something seen to in the vehicle. */
export type Proof = Read<typeof proof>;
