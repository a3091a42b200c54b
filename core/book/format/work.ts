import {
  about,
  flag,
  list,
  names,
  object,
  oneOf,
  optional,
  refersTo,
  text,
  tuple,
  whole,
  type Read,
} from "../../shape";
import { holds, measure } from "./common";

export const tool = object({
  id: names("tool"),
  name: text,
  substitutes: about(
    "What serves instead, and how far.",
    optional(list(object({ name: text, limit: optional(text) }), 1)),
  ),
  limit: about("What the tool itself must not be asked to do.", optional(text)),
  ...holds,
});

export const caution = object({ id: names("caution"), text });

/** One thing done, taking down or building up. */
export const step = object({
  id: names("step"),
  name: text,
  how: about("How, when it needs saying.", optional(text)),
  round: about("Which way up and round the thing sits.", optional(text)),
  tools: optional(list(refersTo("tool"), 1)),
  parts: optional(list(refersTo("part"), 1)),
  fasteners: optional(list(refersTo("fastener group"), 1)),
  chains: optional(list(refersTo("chain"), 1)),
  measurements: optional(list(refersTo("measurement"), 1)),
  airChecks: optional(list(refersTo("element"), 1)),
  pry: about("Where one may pry or strike, and where not.", optional(text)),
  lies: about("How the unit lies.", optional(text)),
  caution: optional(refersTo("caution")),
  leave: about(
    "Parts that stay where they are for now; a later step takes them.",
    optional(list(refersTo("part"), 1)),
  ),
  record: about(
    "What is noted down here; what has a page of its own is noted there.",
    optional(
      list(
        object({
          id: names("record"),
          what: text,
          on: optional(oneOf("debris", "fluid", "read-outs")),
        }),
        1,
      ),
    ),
  ),
  check: optional(list(text, 1)),
  minutes: optional(whole(1, 600)),
  onlyIf: about(
    "Done only when the part has this disposition.",
    optional(
      object({ part: refersTo("part"), is: oneOf("reuse", "clean", "replace", "machine", "upgrade") }),
    ),
  ),
  ...holds,
});

export const airCheck = object({
  element: refersTo("element"),
  port: text,
  at: optional(tuple([whole(0, 100), whole(0, 100)])),
  pressure: measure("pressure"),
  expect: text,
  hiss: about("A leak that belongs there.", optional(text)),
  ...holds,
});

export const pressureTap = object({
  id: names("pressure tap"),
  name: text,
  where: text,
  thread: text,
  element: about("The element it is fed with; absent for line pressure.", optional(refersTo("element"))),
  ...holds,
});

export const connector = object({
  id: names("connector"),
  name: text,
  where: text,
  pins: whole(1, 80),
  sensors: optional(list(text)),
  ...holds,
});

export const parkLock = object({ parts: list(refersTo("part"), 1), checks: list(text, 1) });

export const linkage = object({ positions: list(text, 2), keep: text, checks: list(text, 1) });

/** Fluid's way from where it comes to what it feeds, and the mistake that closes it unseen. */
export const lubePath = object({
  id: names("lubrication path"),
  from: text,
  through: list(text, 1),
  to: text,
  closedBy: text,
  ...holds,
});

export const trap = object({ id: names("metal trap"), where: text, how: text, ...holds });

export const fluid = object({
  name: text,
  note: optional(text),
  others: about(
    "Other fluids of the unit, each in a room of its own and looked at by itself.",
    optional(list(object({ id: names("other fluid"), name: text, number: optional(text), ...holds }), 1)),
  ),
  number: about("As it is bought.", optional(text)),
  fills: list(
    object({
      what: text,
      amount: measure("volume"),
      room: about("Which other fluid of the unit; absent for this one.", optional(refersTo("other fluid"))),
      ...holds,
    }),
    1,
  ),
  level: list(
    object({
      how: text,
      persons: whole(1, 2),
      from: measure("temperature"),
      to: measure("temperature"),
      revs: measure("speed"),
      wait: measure("time"),
      ...holds,
    }),
    1,
  ),
});

/** The least time things stand before they are used. */
export const soak = object({ id: names("soak"), what: text, time: measure("time"), ...holds });

export const relearn = object({
  id: names("relearn"),
  name: text,
  order: about("The routines are run in this order.", whole(1, 50)),
  after: about(
    "What calls for it; new, used, or either.",
    list(object({ part: optional(refersTo("part")), what: text, state: oneOf("new", "used", "either") }), 1),
  ),
  needs: list(text, 1),
  minutes: optional(whole(1, 240)),
  leftOut: optional(text),
  drives: optional(flag),
  ...holds,
});

export const readOut = object({ id: names("read-out"), what: text, why: text, ...holds });

/** A tool a step asks for. */
export type Tool = Read<typeof tool>;
/** A step of the work, down or up: parts, fasteners, figures and what must be so before. */
export type Step = Read<typeof step>;
/** The unit’s fluid: its name, how much goes in where, and how its level is set. */
export type Fluid = Read<typeof fluid>;
/** Something the control unit learns anew, and what asks for it. */
export type Relearn = Read<typeof relearn>;
