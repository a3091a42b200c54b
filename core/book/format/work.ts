import {
  about,
  flag,
  id,
  list,
  matching,
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
import { holds, learnt, measure, pictured, shows } from "./common";
import { gate } from "./prove";

export const tool = object({
  id: names("tool"),
  name: text,
  substitutes: about(
    "What serves instead, and how far.",
    optional(list(object({ name: text, limit: optional(text) }), 1)),
  ),
  does: about("What it does, where its name does not say it.", optional(text)),
  limit: about("What the tool itself must not be asked to do.", optional(text)),
  reach: about(
    "Of a torque wrench: what it can be set to.",
    optional(object({ from: measure("torque"), to: measure("torque") })),
  ),
  ...pictured,
  ...learnt,
  ...holds,
});

/** What helps the next one who has this unit on the bench. */
export const tip = object({
  id: names("tip"),
  text,
  of: about(
    "What it is about; the whole unit where it is left out.",
    optional(refersTo(["step", "part", "chain", "measurement", "fastener group", "station"])),
  ),
  ...pictured,
  ...learnt,
  ...holds,
});

/** A picture that comes with the book: a drawing of a tool, a face with its bolts. */
export const picture = object({
  id: names("picture"),
  name: text,
  digest: about(
    "SHA-256 of its bytes, by which it is kept.",
    matching(/^[0-9a-f]{64}$/, "a digest", "write 64 hexadecimal digits, or take the picture in anew"),
  ),
  width: whole(1, 20_000),
  height: whole(1, 20_000),
  data: about(
    "Its bytes as base64, in a file that is shared; kept by itself where it is taken in.",
    optional(text),
  ),
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
  verifies: about(
    "Fasteners held against their torque without being turned, where no step of the work undoes them.",
    optional(list(refersTo("fastener group"), 1)),
  ),
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
  vehicle: about(
    "Done in the vehicle: before the engine is started, or with its first start.",
    optional(oneOf("refit", "first start")),
  ),
  sub: about("The sub-assembly it is part of, as the list of steps is headed.", optional(text)),
  after: about(
    "Steps that are behind it first, besides those its parts and figures tell.",
    optional(list(refersTo("step"), 1)),
  ),
  fit: about(
    "How a part goes in.",
    optional(
      list(
        object({
          part: refersTo("part"),
          round: about("Which way round: dish, lip, chamfer, notch.", optional(text)),
          shows: about("What of it is drawn.", optional(shows)),
          lube: about("What goes on it.", optional(text)),
          with: about("What protects or guides it.", optional(text)),
          ...holds,
        }),
        1,
      ),
    ),
  ),
  starts: about("Soaks that begin with it.", optional(list(refersTo("soak"), 1))),
  waits: about("Soaks that are over first.", optional(list(refersTo("soak"), 1))),
  check: about(
    "What is seen to, and answered for when building.",
    optional(
      list(
        object({
          id,
          what: text,
          no: about("What is done where it is not so.", optional(text)),
          last: about("Asked again when a piece is exchanged in this step.", optional(flag)),
          first: about("Seen to before the work itself begins; nothing else counts instead.", optional(flag)),
        }),
        1,
      ),
    ),
  ),
  balls: about(
    "Check balls are counted into their places: when they are laid, and again once it is turned over where that is done.",
    optional(oneOf("laid", "turned over")),
  ),
  never: about("What is never done here, whatever is in the way.", optional(text)),
  ...pictured,
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
  needs: about("What it must sit on to count: a drum its support.", optional(refersTo("part"))),
  lost: about(
    "The most it may lose, where it is read.",
    optional(object({ pressure: measure("pressure"), over: measure("time") })),
  ),
  order: about(
    "Where it leaks when it leaks: parts, in the order they were put in.",
    optional(list(refersTo("part"), 1)),
  ),
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

/** The least time things stand before they are used, and where it matters the longest. */
export const soak = object({
  id: names("soak"),
  what: text,
  time: measure("time"),
  longest: about("The longest it may stand.", optional(measure("time"))),
  ...holds,
});

export const relearn = object({
  id: names("relearn"),
  name: text,
  order: about("The routines are run in this order.", whole(1, 50)),
  after: about(
    "What calls for it; new, used, or either.",
    list(
      object({
        part: optional(refersTo("part")),
        any: about("Any pack’s frictions, instead of one part.", optional(oneOf("frictions"))),
        what: text,
        state: oneOf("new", "used", "either"),
        out: about("That the part was out is enough.", optional(flag)),
      }),
      1,
    ),
  ),
  needs: list(text, 1),
  gate: about("Of that, what can be read off the vehicle.", optional(gate)),
  minutes: optional(whole(1, 240)),
  leftOut: optional(text),
  drives: optional(flag),
  ...holds,
});

export const readOut = object({ id: names("read-out"), what: text, why: text, ...holds });

/** A tool a step asks for. */
export type Tool = Read<typeof tool>;
/** What helps the next one who has this unit on the bench, and what it is about. */
export type Tip = Read<typeof tip>;
/** A picture that comes with the book. */
export type BookPicture = Read<typeof picture>;
/** A step of the work, down or up: parts, fasteners, figures and what must be so before. */
export type Step = Read<typeof step>;
/** An air check: its port, pressure, and what is to be heard. */
export type AirCheck = Read<typeof airCheck>;
/** A time that things stand before they are used. */
export type Soak = Read<typeof soak>;
/** The unit’s fluid: its name, how much goes in where, and how its level is set. */
export type Fluid = Read<typeof fluid>;
/** Something the control unit learns anew, and what asks for it. */
export type Relearn = Read<typeof relearn>;
