import { about, list, names, number, object, oneOf, optional, refersTo, text, type Read } from "../../shape";
import { holds, measure, width } from "./common";

/** Plates that go in instead of the stock ones. */
const plate = object({ thickness: width, number: text });

/**
 * One way to make an element carry more than it was built for. Several of one element add up; how many more plates fit then is worked out, not
 * stated.
 */
export const way = object({
  id: names("way"),
  name: text,
  elements: about(
    "What it makes stronger; what is done to plates is done to one pack.",
    list(refersTo("element"), 1),
  ),
  steels: about("Thinner steels: more of them find room.", optional(plate)),
  frictions: about(
    "Other frictions, with what their facing grips where it is not the stock one.",
    optional(object({ thickness: width, number: text, friction: optional(number(0.02, 0.6)) })),
  ),
  apply: about("A thinner plate next to the piston.", optional(plate)),
  reaction: about("A thinner end plate.", optional(plate)),
  without: about("A sprung plate that may be left out.", optional(oneOf("waved plate", "cushion plate"))),
  cut: about(
    "Metal that comes off piston, end plate or backing plate to make room.",
    optional(object({ part: refersTo("part"), step: width, most: width, left: optional(text) })),
  ),
  area: about("Of the larger piston or servo.", optional(measure("area"))),
  friction: about("Of a harder band lining.", optional(number(0.02, 0.6))),
  pressure: about("What the regulator is raised to.", optional(measure("pressure"))),
  turns: about(
    "An adjustable regulator: what each turn adds, and how many there are.",
    optional(object({ each: measure("pressure"), most: number(0.25, 20) })),
  ),
  carries: about("Of a wider one-way clutch, a stronger disc.", optional(measure("torque"))),
  part: about(
    "A stronger part that goes in instead: what would break before anything slips.",
    optional(refersTo("part")),
  ),
  takes: about("What that part is made to carry.", optional(measure("torque"))),
  number: about("What is bought for it, where it is no plate.", optional(text)),
  work: about("What the machine shop does.", optional(text)),
  against: about(
    "How the part differs from the stock one: splines, oil holes, journal, finish, height against its neighbour.",
    optional(list(object({ what: text, is: oneOf("fits", "machine", "forbidden") }), 1)),
  ),
  oil: about("What it changes in the way the oil takes, and what would shut that way.", optional(text)),
  oilWay: about("The way of the oil that it changes.", optional(refersTo("lubrication path"))),
  harsh: about("What the driver feels of it.", optional(text)),
  softer: about("What takes that away again.", optional(text)),
  proofs: about("What must be seen once it is together.", optional(list(text, 1))),
  ...holds,
});

/** A way to make an element stronger, as the book states it. */
export type StrongerWay = Read<typeof way>;
