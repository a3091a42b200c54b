import type { Drawn, Part, PartKind, WearId } from "../book";

/** What each severity means for a kind of wear: a trace, worn, beyond use. The bench’s rules of thumb; a book’s limit comes first. */
export const DEGREES: Readonly<Record<Drawn, readonly [trace: string, worn: string, beyond: string]>> = {
  spots: ["a shade, gone with a rub", "several, no nail feels them", "blue or raised, all round"],
  scores: ["seen, not felt", "a nail catches", "metal moved, a step"],
  crack: ["a hair line: try it with dye", "opens when flexed", "a piece gone"],
  "worn face": ["thinner at its edge", "grooves nearly gone", "bare metal"],
  burnt: ["dark, still tough", "black at its edge", "black, comes off on the thumb"],
  glazed: ["shines in places", "shines all over, no pores", "like glass"],
  loose: ["a little more than new", "felt by hand", "has left its place"],
  bent: ["light under its edge", "rocks", "touches what is beside it"],
  pits: ["one or two pinpricks", "a row of them", "flaking"],
  lip: ["edge dull", "slow to spring back", "hard, flat or torn"],
  blocked: ["slow", "hangs, or passes half", "shut"],
  step: ["bright, not felt", "a nail catches its edge", "a step one sees"],
  notch: ["bright marks", "dents a nail catches", "plates hang in them"],
  rounded: ["corner bright", "corner gone", "does not hold"],
  weak: ["a shade shorter", "shorter than the others", "set or broken"],
  leak: ["damp", "a drop hangs", "runs"],
  squared: ["a bright flat", "flat on two sides", "a square cord"],
  off: ["near its limit", "outside, cold or hot", "open or shorted"],
};

/** The kinds of wear a part is looked at for, by their ids: those its book names, then those its kind is known for. */
export function wearsOf(part: Part): string[] {
  const usual = part.kind ? (USUAL[part.kind] ?? []) : [];
  return [...new Set([...(part.wear ?? []), ...usual])];
}
const USUAL: Readonly<Partial<Record<PartKind, readonly WearId[]>>> = {
  friction: [
    "burnt",
    "glazed",
    "flaked",
    "worn-to-the-groove-bottom",
    "facing-debonded",
    "splines-hammered",
    "coned",
  ],
  steel: ["heat-spots", "bluing", "scored", "coned", "lugs-worn"],
  "waved plate": ["flattened", "cracked", "worn-lip"],
  "apply plate": ["heat-spots", "coned", "scored"],
  "reaction plate": ["heat-spots", "coned", "scored"],
  piston: ["cracked", "lip-hard", "bond-torn", "bleed-plugged", "pitted"],
  spring: ["weak", "cracked"],
  "dished spring": ["fingers-worn", "cracked"],
  drum: ["cracked", "ring-groove-rounded", "lug-slots-notched", "ring-bore-grooved"],
  bushing: ["copper-showing", "spun", "lost"],
  "thrust bearing": ["pitted", "race-grooved", "rollers-out"],
  bearing: ["pitted", "rough", "races-brinelled"],
  "taper bearing": ["pitted", "races-brinelled"],
  carrier: ["pinion-play", "pin-loose", "teeth-pitted"],
  gear: ["teeth-pitted", "teeth-chipped"],
  "one-way clutch": ["rollers-galled", "springs-weak", "lets-go"],
  pump: ["pocket-scored"],
  "pump gears": ["faces-scored", "tips-worn"],
  "valve body": ["bores-worn", "cracked"],
  valve: ["sticking", "bore-worn"],
  seal: ["lip-hard"],
  "O-ring": ["squared", "cut", "hard"],
  "sealing ring": ["ends-rounded", "run-off"],
  shaft: ["journal-worn", "splines-hammered"],
  band: ["glazed", "burnt", "cracked"],
  pulley: ["scored", "polished-band", "runout"],
  belt: ["elements-worn-at-the-edge", "band-cracked"],
  fork: ["pads-worn", "bent"],
  synchroniser: ["cone-worn", "teeth-rounded"],
  "park lock": ["edge-rounded", "pin-worn"],
  housing: ["cracked", "bore-worn"],
  solenoids: ["resistance-off", "sticking"],
  filter: ["blocked"],
  converter: ["hub-worn", "lock-up-lining-loose"],
};

/** What good looks like, for a kind of part; a book’s own words come first. */
export const goodOf = ({ good, kind }: Part): string | null => good ?? (kind ? (GOOD[kind] ?? null) : null);
const GOOD: Readonly<Partial<Record<PartKind, string>>> = {
  friction: "even colour, grooves open, facing springs back, flat",
  steel: "dull and even, no colour, flat on the plate, lugs square",
  "waved plate": "stands up free by its wave, no crack at the lugs",
  piston: "lip soft and sharp, bond whole, bleed open: a drop runs through",
  "O-ring": "round and soft all the way, no flat, no cut",
  drum: "ring bore smooth, lug slots square, groove edges sharp",
  bushing: "grey all round, no copper, oil hole in line",
  "thrust bearing": "turns without a click, races bright without a track",
  carrier: "pinions turn free with a little end play, pins staked",
  gear: "flanks bright, no pits, no chipped ends",
  "one-way clutch": "locks one way, runs free the other, every roller sprung",
  valve: "falls through its bore by its own weight, in and out",
  spring: "all the same length, no polished side",
  pulley: "even grey faces, no ring, no step",
  belt: "elements close up, bands whole, edges even",
  synchroniser: "cone rough to the nail, gap within the book",
  fork: "pads even, no shine on the sides",
  pump: "pocket without a step, tool marks still there",
  shaft: "journals bright, ring grooves square",
  bearing: "turns like oil, no click",
  "taper bearing": "no marks at the rollers’ spacing",
};
