import Joi from "joi";
import { check } from "~/server/check";
import { CONDITIONS, DEBRIS_KINDS } from "~core/diagnose";
import {
  CANNOT,
  CAUSE_STANDINGS,
  CLEANING_STEPS,
  CLEANLINESS,
  DEBRIS_AMOUNTS,
  DEBRIS_PLACES,
  DISPOSITIONS,
  FLUID_LOOKS,
  FLUID_SMELLS,
  FOUND_WRONG,
  MATCH_MARKS,
  PLACE_SORTS,
  SEVERITIES,
  STEP_DONE,
  WAYS_ON,
  type Fact,
} from "~core/job";
import { GAUGES } from "~core/reading";

/** Ten metres in nanometres: nothing on a bench is longer. */
const LONGEST = 10_000_000_000;
const length = Joi.number().integer().min(-LONGEST).max(LONGEST);
const id = Joi.string().uuid();
const name = Joi.string().max(80);

const reading = Joi.alternatives(
  Joi.object({ kind: Joi.valid("single").required(), value: length.required(), back: length }),
  Joi.object({ kind: Joi.valid("bracket").required(), passes: length, refuses: length }).or(
    "passes",
    "refuses",
  ),
  Joi.object({
    kind: Joi.valid("summed").required(),
    value: length.required(),
    uncertainty: length.min(0).required(),
  }),
);

const words = Joi.string().trim().allow("").max(500);
const there = Joi.boolean().required();
const rpm = Joi.number().integer().min(0).max(20_000);
/** A point of a picture, in thousandths. */
const point = Joi.array().items(Joi.number().integer().min(0).max(1000)).length(2).required();
const booking = Joi.object({
  kind: Joi.valid("booking").required(),
  vehicle: Joi.string().trim().min(2).max(120).required(),
  customer: Joi.string().trim().allow("").max(120).required(),
  words: Joi.string().trim().min(3).max(4000).required(),
  odometer: Joi.string().trim().allow("").max(40).required(),
  use: words,
  earlier: Joi.string().trim().allow("").max(2000),
});

/** What is told and looked at before the unit is opened. */
const intake = {
  booking,
  answer: Joi.object({
    kind: Joi.valid("answer").required(),
    question: name.required(),
    outcome: name.required(),
    conditions: Joi.array()
      .items(Joi.valid(...CONDITIONS))
      .unique()
      .max(4)
      .required(),
    there,
    note: words,
  }),
  code: Joi.object({
    kind: Joi.valid("code").required(),
    code: Joi.string().trim().min(1).max(30).required(),
    words: words.required(),
    sort: name.required(),
    related: Joi.valid("yes", "no", "unsure").required(),
    there,
  }),
  speeds: Joi.object({
    kind: Joi.valid("speeds").required(),
    range: name.required(),
    input: rpm.required(),
    output: rpm.required(),
    there,
  }),
  fluid: Joi.object({
    kind: Joi.valid("fluid").required(),
    look: Joi.valid(...FLUID_LOOKS).required(),
    smell: Joi.valid(...FLUID_SMELLS).required(),
    note: words.required(),
  }),
  debris: Joi.object({
    kind: Joi.valid("debris").required(),
    where: Joi.valid(...DEBRIS_PLACES).required(),
    what: Joi.valid(...DEBRIS_KINDS).required(),
    amount: Joi.valid(...DEBRIS_AMOUNTS).required(),
  }),
  conclusion: Joi.object({
    kind: Joi.valid("conclusion").required(),
    fault: Joi.valid("this unit", "elsewhere", "open").required(),
    reason: Joi.string().trim().min(2).max(2000).required(),
    fee: Joi.string().trim().allow("").max(40).required(),
  }),
  figure: Joi.object({
    kind: Joi.valid("figure").required(),
    of: Joi.valid("chain", "measurement").required(),
    id: name.required(),
    phase: Joi.valid("found", "built").required(),
    item: name.min(1),
    text: Joi.string().trim().min(1).max(40),
    cannot: Joi.valid(...CANNOT),
    note: words.required(),
  }).xor("text", "cannot"),
  "read-out": Joi.object({
    kind: Joi.valid("read-out").required(),
    readOut: name.required(),
    text: Joi.string().trim().min(1).max(20_000).required(),
    from: Joi.valid("typed", "pasted", "scan tool").required(),
  }),
  photo: Joi.object({
    kind: Joi.valid("photo").required(),
    photo: id.required(),
    caption: Joi.string().trim().allow("").max(300).required(),
    of: name.required(),
  }),
  "photo-mark": Joi.object({
    kind: Joi.valid("photo-mark").required(),
    photo: id.required(),
    shape: Joi.valid("arrow", "circle").required(),
    from: point,
    to: point,
    there,
    mark: id,
  }),
  place: Joi.object({
    kind: Joi.valid("place").required(),
    place: name.required(),
    sort: Joi.valid(...PLACE_SORTS).required(),
    name: Joi.string().trim().min(1).max(60).required(),
  }),
} as const;

/** A thing of the bench: a part, or a group of bolts. */
const things = Joi.array().items(name).min(1).max(300).unique().required();
/** What is said while the unit comes apart, is cleaned and looked at. */
const work = {
  step: Joi.object({
    kind: Joi.valid("step").required(),
    step: name.required(),
    did: Joi.valid(...STEP_DONE).required(),
    reason: words.required().when("did", { is: "skipped", then: Joi.string().trim().min(2).max(500) }),
    to: name,
  }),
  out: Joi.object({
    kind: Joi.valid("out").required(),
    group: name.required(),
    places: Joi.array().items(Joi.number().integer().min(0).max(199)).unique().max(200).required(),
  }),
  lies: Joi.object({ kind: Joi.valid("lies").required(), things, place: name.required() }),
  sat: Joi.object({
    kind: Joi.valid("sat").required(),
    part: name.required(),
    way: words.required(),
    mark: Joi.valid(...MATCH_MARKS).required(),
    note: words.required(),
  }),
  count: Joi.object({
    kind: Joi.valid("count").required(),
    of: name.required(),
    found: Joi.number().integer().min(0).max(999).required(),
  }),
  balls: Joi.object({
    kind: Joi.valid("balls").required(),
    there: Joi.array().items(name).unique().max(60).required(),
    extra: Joi.number().integer().min(0).max(60).required(),
  }),
  wrong: Joi.object({
    kind: Joi.valid("wrong").required(),
    what: Joi.valid(...FOUND_WRONG).required(),
    of: name.required(),
    note: words.required(),
    there,
  }),
  cleaning: Joi.object({
    kind: Joi.valid("cleaning").required(),
    things,
    state: Joi.valid(...CLEANLINESS).required(),
    did: Joi.array()
      .items(Joi.valid(...CLEANING_STEPS))
      .unique()
      .required(),
  }),
} as const;

/** What is seen on parts, and what becomes of them. */
const inspect = {
  good: Joi.object({ kind: Joi.valid("good").required(), parts: things }),
  finding: Joi.object({
    kind: Joi.valid("finding").required(),
    part: name.required(),
    wear: name.required(),
    severity: Joi.valid(...SEVERITIES).required(),
    sure: Joi.boolean().required(),
    pieces: Joi.array().items(Joi.number().integer().min(1).max(60)).unique().min(1).max(60),
    note: words.required(),
    there,
  }),
  disposition: Joi.object({
    kind: Joi.valid("disposition").required(),
    part: name.required(),
    is: Joi.valid(...DISPOSITIONS).required(),
    reason: Joi.string().trim().min(2).max(500).required(),
  }),
  "weak-point": Joi.object({
    kind: Joi.valid("weak-point").required(),
    point: name.required(),
    answer: Joi.string().trim().min(2).max(200).required(),
    note: words.required(),
  }),
  "earlier-visit": Joi.object({
    kind: Joi.valid("earlier-visit").required(),
    job: Joi.number().integer().min(1).required(),
    left: Joi.string().isoDate().required(),
    figures: Joi.array()
      .items(
        Joi.object({
          of: Joi.valid("chain", "measurement").required(),
          id: name.required(),
          text: Joi.string().max(120).required(),
          value: length,
        }),
      )
      .max(400)
      .required(),
  }),
  offer: Joi.object({
    kind: Joi.valid("offer").required(),
    way: Joi.valid(...WAYS_ON).required(),
    cents: Joi.number().integer().min(0).max(100_000_000).required(),
    hours: Joi.number().min(0).max(500).required(),
    risk: Joi.number().min(0).max(100).required(),
    note: words.required(),
  }),
  "way-on": Joi.object({
    kind: Joi.valid("way-on").required(),
    way: Joi.valid(...WAYS_ON).required(),
    reason: Joi.string().trim().min(2).max(500).required(),
  }),
  cause: Joi.object({
    kind: Joi.valid("cause").required(),
    of: name.required(),
    cause: Joi.string()
      .trim()
      .max(200)
      .required()
      .when("standing", { is: "not found", then: Joi.allow("") }),
    standing: Joi.valid(...CAUSE_STANDINGS).required(),
    note: words.required(),
    after: Joi.string().trim().allow("").max(80).required(),
  }),
} as const;

const bodies = {
  ...intake,
  ...work,
  ...inspect,
  reading: Joi.object({
    kind: Joi.valid("reading").required(),
    chain: name.required(),
    phase: Joi.valid("found", "built").required(),
    fit: Joi.number().integer().min(0).max(1000).required(),
    method: Joi.valid(...GAUGES).required(),
    state: Joi.object({
      soak: Joi.valid("dry", "soaked").required(),
      facings: Joi.valid("new", "run-in").required(),
      wave: Joi.valid("free", "flat"),
    }).required(),
    reading: reading.required(),
    resolution: length.min(0).required(),
    unit: Joi.valid("mm", "in", "thou", "µm").required(),
    typed: Joi.string().max(80),
    air: Joi.number().integer().min(0).max(20_000_000),
    links: Joi.array()
      .items(
        Joi.object({
          name: name.required(),
          sign: Joi.valid(1, -1).required(),
          value: length.required(),
          uncertainty: length.min(0).required(),
        }),
      )
      .max(60),
    item: name.min(1),
    points: Joi.array()
      .items(
        Joi.object({
          link: name.required(),
          place: name.required(),
          angle: Joi.number().integer().min(0).max(359).required(),
          value: length.required(),
        }),
      )
      .max(100),
  }),
  "leave-out": Joi.object({
    kind: Joi.valid("leave-out").required(),
    reading: id.required(),
    out: Joi.boolean().required(),
    reason: Joi.string().trim().min(2).max(500).required(),
  }),
  fitting: Joi.object({
    kind: Joi.valid("fitting").required(),
    chain: name.required(),
    // Anything later comes off the shelf, with its movement.
    fit: Joi.valid(0).required(),
    origin: Joi.valid("found").required(),
    piece: Joi.object({ part: name, mark: name, size: length.min(1), measured: length.min(1) })
      .or("size", "measured")
      .required(),
  }),
  configuration: Joi.object({
    kind: Joi.valid("configuration").required(),
    traits: Joi.object().pattern(name, name).required(),
  }),
  scope: Joi.object({ kind: Joi.valid("scope").required(), depth: name.required() }),
  holder: Joi.object({
    kind: Joi.valid("holder").required(),
    name: name.required(),
    staff: id.allow(null).required(),
  }),
} as const;

/** Kinds that come only through actions with checks of their own; an exported job has them too. */
const guarded = [
  bodies.fitting.keys({
    fit: Joi.number().integer().min(0).required(),
    origin: Joi.valid("found", "shelf", "odd piece", "ordered").required(),
  }),
  Joi.object({
    kind: Joi.valid("choice").required(),
    chain: name.required(),
    fit: Joi.number().integer().min(0).required(),
    kept: Joi.boolean().required(),
    reason: Joi.string().allow("").max(500).required(),
    prediction: Joi.object({
      mean: length.required(),
      expanded: length.required(),
      chance: Joi.number().min(0).max(1).required(),
    }).required(),
  }),
  Joi.object({
    kind: Joi.valid("waiver").required(),
    chain: name.required(),
    reason: Joi.string().max(500).required(),
    signedBy: name.required(),
  }),
  Joi.object({ kind: Joi.valid("closed").required(), rule: Joi.valid("proven", "plain").required() }),
];

const facts = (kinds: Joi.Schema[]) =>
  Joi.array().items(
    Joi.object({
      id: id.required(),
      at: Joi.string().isoDate().required(),
      by: name.required(),
      replaces: id,
      body: Joi.alternatives(...kinds).required(),
    }),
  );

/** Facts that anyone signed in may say from the bench. Choices, waivers and closing have actions of their own. */
const benchFacts = facts(Object.values(bodies)).min(1).max(200);
/** Every kind of fact, as an exported job has them. */
export const factsSchema = facts([
  ...Object.values(bodies).filter((body) => body !== bodies.fitting),
  ...guarded,
]).max(20_000);

/** @returns the facts, or where and what is wrong. */
export function readBenchFacts(given: unknown): { ok: true; facts: Fact[] } | { ok: false; problem: string } {
  const checked = check<Fact[]>(benchFacts, given, { convert: false, abortEarly: true });
  return checked.ok
    ? { ok: true, facts: checked.value }
    : { ok: false, problem: checked.details[0]?.message ?? "not facts" };
}
