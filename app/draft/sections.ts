import {
  ELEMENT_KINDS,
  GEAR_SET_KINDS,
  MEASUREMENT_KINDS,
  ORIGINS,
  originWords,
  PART_KINDS,
  STATION_KINDS,
} from "~core/book";
import { isRecord } from "~core/shape";
import { at } from "./edit";

/** Something to pick: what the document writes, and what it is called. */
export interface Option {
  value: string;
  words: string;
}
type OptionsOf = (document: unknown) => Option[];

/** How a value is typed: as text, as a whole or a decimal number, as texts between slashes, as a tick, picked, or several of a few. */
export type As =
  | ("text" | "count" | "decimal" | "words" | "flag")
  | { one: OptionsOf }
  | { many: OptionsOf }
  /** Two of what there is, in their order. */
  | { two: OptionsOf }
  /** A member, and the teeth on it. */
  | { toothed: OptionsOf };

/** One value of an entry in its form. */
export interface FieldOf {
  label: string;
  keys: readonly string[];
  as: As;
  wide?: true;
  /** Asked of these kinds of entry alone. */
  of?: readonly string[];
}

/** A list of small entries within an entry. */
interface RowsOf {
  label: string;
  keys: readonly string[];
  columns: readonly string[];
}

/** A section of the book whose entries are typed in fields. */
export interface Section {
  words: string;
  /** How one that is new begins. */
  fresh: Readonly<Record<string, unknown>>;
  fields: readonly FieldOf[];
  rows?: RowsOf;
  /** Its order says something: it is dragged. */
  isOrdered?: true;
  /** Whether it may hold for some versions or depths alone; it may unless it says otherwise. */
  isHeld?: boolean;
}

const list = (document: unknown, section: string): Record<string, unknown>[] => {
  const known = at(document, [section]);
  return Array.isArray(known) ? (known as unknown[]).filter(isRecord) : [];
};
const named =
  (section: string): OptionsOf =>
  (document) =>
    list(document, section).flatMap(({ id, name }) =>
      typeof id === "string"
        ? [{ value: id, words: typeof name === "string" ? name : id.toUpperCase() }]
        : [],
    );
/** What has no name of its own but is one: the members of the train. */
export const membersOf: OptionsOf = (document) => {
  const known = at(document, ["members"]);
  const all = Array.isArray(known) ? (known as unknown[]).filter((one) => typeof one === "string") : [];
  return all.map((value) => ({ value, words: value.replaceAll("-", " ") }));
};
/** Everything that a tip can be about. */
const anything: OptionsOf = (document) =>
  ["teardown", "build", "parts", "chains", "measurements", "fasteners", "stations"].flatMap((section) =>
    named(section)(document),
  );
const of =
  (values: readonly string[]): OptionsOf =>
  () =>
    values.map((value) => ({ value, words: value }));

const field = (label: string, key: string, as: As = "text", wide?: true): FieldOf => ({
  label,
  keys: [key],
  as,
  ...(wide ? { wide } : {}),
});

/** Where a figure comes from. */
const sourced: readonly FieldOf[] = [
  field("Whose figure it is", "from", {
    one: () => ORIGINS.map((value) => ({ value, words: originWords(value) })),
  }),
  field("Last checked", "checked"),
];
const picture = field("Picture", "picture", { one: named("pictures") });

const PLANETARY = ["simple", "double-pinion"];

const step = (words: string, name: string): Section => ({
  words,
  fresh: { id: "new-step", name },
  isOrdered: true,
  fields: [
    field("Name", "name", "text", true),
    field("How", "how", "text", true),
    field("Which way up and round it sits", "round", "text", true),
    field("Parts", "parts", { many: named("parts") }, true),
    field("Bolts", "fasteners", { many: named("fasteners") }, true),
    field("Figures", "chains", { many: named("chains") }, true),
    field("Measurements", "measurements", { many: named("measurements") }, true),
    field("Tools", "tools", { many: named("tools") }, true),
    field("How the unit lies", "lies"),
    field("Minutes", "minutes", "count"),
    field("Never", "never"),
    picture,
    field("Id", "id"),
  ],
  rows: { label: "What is seen to", keys: ["check"], columns: ["id", "what", "no"] },
});

/** What besides packs, chains, series, bolts and weak points is typed in a form. */
export const SECTIONS = {
  weakPoints: {
    words: "Weak points",
    fresh: {
      id: "new-weak-point",
      name: "New weak point",
      complaint: "what the customer notices",
      answers: [{ id: "done", name: "what is done", does: "look" }],
    },
    fields: [
      field("Name", "name"),
      field("Station", "station", { one: named("stations") }),
      field("Complaint", "complaint", "text", true),
      field("Its parts", "parts", { many: named("parts") }, true),
      picture,
      field("Learnt on", "learnt"),
      field("Id", "id"),
    ],
    rows: { label: "What can be answered", keys: ["answers"], columns: ["id", "name", "does"] },
  },
  teardown: step("Down", "New step of taking down"),
  build: step("Up", "New step of building"),
  parts: {
    words: "Parts",
    fresh: { id: "new-part", name: "New part", number: "not known" },
    fields: [
      field("Name", "name"),
      field("Number", "number"),
      field("Kind", "kind", { one: of(PART_KINDS) }),
      field("How many", "count", "count"),
      field("Part of", "of", { one: named("parts") }),
      field("Station", "station", { one: named("stations") }),
      field("Never goes in twice", "oneTime", "flag"),
      field("Id", "id"),
      field("Held by", "heldBy", { many: named("fasteners") }, true),
    ],
  },
  measurements: {
    words: "Measurements",
    fresh: { id: "new-measurement", name: "New measurement", kind: "resistance" },
    fields: [
      field("Name", "name", "text", true),
      field("Kind", "kind", { one: of(MEASUREMENT_KINDS) }),
      field("Part", "part", { one: named("parts") }),
      field("Min", "min"),
      field("Max", "max"),
      field("What should be seen", "expect", "text", true),
      field("Under which condition", "condition", "text", true),
      field("Each of, with / between", "each", "words", true),
      ...sourced,
      field("Id", "id"),
    ],
  },
  airChecks: {
    words: "Air checks",
    fresh: { element: "", port: "where the air goes in", pressure: "4 bar", expect: "what is heard" },
    fields: [
      field("Element", "element", { one: named("elements") }),
      field("Pressure", "pressure"),
      field("Port", "port", "text", true),
      field("What is heard", "expect", "text", true),
      field("A leak that belongs there", "hiss", "text", true),
    ],
  },
  relearns: {
    words: "Relearns",
    fresh: {
      id: "new-relearn",
      name: "New relearn",
      order: 1,
      after: [{ what: "anything new", state: "new" }],
      needs: ["engine warm"],
    },
    fields: [
      field("Name", "name", "text", true),
      field("Run as number", "order", "count"),
      field("Minutes", "minutes", "count"),
      field("Needs, with / between", "needs", "words", true),
      field("Id", "id"),
    ],
    rows: { label: "What calls for it", keys: ["after"], columns: ["part", "what", "state"] },
  },
  ranges: {
    words: "Apply chart",
    fresh: { id: "new", applied: [], ratio: 1 },
    isOrdered: true,
    isHeld: false,
    fields: [
      field("Range", "id"),
      field("Name", "name"),
      field("Ratio as listed", "ratio", "decimal"),
      field("Applied", "applied", { many: named("elements") }, true),
      field("Under engine braking besides", "braking", { many: named("elements") }, true),
    ],
  },
  traits: {
    words: "Versions",
    fresh: {
      id: "new-trait",
      name: "What tells versions apart",
      values: {
        one: { name: "one", tell: "how it is told" },
        other: { name: "the other", tell: "how it is told" },
      },
    },
    isHeld: false,
    fields: [field("Name", "name"), field("Id", "id")],
  },
  tools: {
    words: "Tools",
    fresh: { id: "new-tool", name: "New tool" },
    fields: [
      field("Name", "name"),
      picture,
      field("What it does", "does", "text", true),
      field("What it must not be asked to do", "limit", "text", true),
      field("Id", "id"),
      field("Learnt on", "learnt"),
    ],
    rows: { label: "What serves instead", keys: ["substitutes"], columns: ["name", "limit"] },
  },
  tips: {
    words: "Tips",
    fresh: { id: "new-tip", text: "what helps the next one" },
    fields: [
      field("Tip", "text", "text", true),
      field("About", "of", { one: anything }),
      picture,
      field("Learnt on", "learnt"),
      field("Id", "id"),
    ],
  },
  stations: {
    words: "Stations",
    fresh: { id: "new-station", name: "New station", kind: "drum", from: 0, to: 10, reach: 60 },
    isHeld: false,
    fields: [
      field("Name", "name"),
      field("Kind", "kind", { one: of(STATION_KINDS) }),
      field("From, in hundredths of the length", "from", "decimal"),
      field("To", "to", "decimal"),
      field("Reaches out, in hundredths", "reach", "decimal"),
      field("On shaft, the input’s being 0", "line", "count"),
      field("Id", "id"),
    ],
  },
  gearSets: {
    words: "Gear sets",
    fresh: { id: "new-set", kind: "simple", sun: ["input", 30], ring: ["output", 70], carrier: "case" },
    isHeld: false,
    fields: [
      field("Id", "id"),
      field("Kind", "kind", { one: of(GEAR_SET_KINDS) }),
      { ...field("Sun, and its teeth", "sun", { toothed: membersOf }), of: PLANETARY },
      { ...field("Ring, and its teeth", "ring", { toothed: membersOf }), of: PLANETARY },
      { ...field("Carrier", "carrier", { one: membersOf }), of: PLANETARY },
      { ...field("Pinions", "pinions", "count"), of: PLANETARY },
      { ...field("Teeth of a pinion", "pinion", "count"), of: PLANETARY },
      { ...field("Driver, and its teeth", "driver", { toothed: membersOf }), of: ["gear pair"] },
      { ...field("Driven, and its teeth", "driven", { toothed: membersOf }), of: ["gear pair"] },
      { ...field("Idlers between", "idlers", "count"), of: ["gear pair"] },
      { ...field("Primary", "primary", { one: membersOf }), of: ["pulley pair"] },
      { ...field("Secondary", "secondary", { one: membersOf }), of: ["pulley pair"] },
      { ...field("Turns in low", "low", "decimal"), of: ["pulley pair"] },
      { ...field("Turns in high", "high", "decimal"), of: ["pulley pair"] },
    ],
  },
  elements: {
    words: "Elements",
    fresh: { id: "new", name: "New element", kind: "clutch", aka: [] },
    fields: [
      field("Id", "id"),
      field("Name", "name"),
      field("Kind", "kind", { one: of(ELEMENT_KINDS) }),
      field("Joins", "joins", { two: membersOf }),
      {
        ...field("The first turns freely", "free", { one: of(["forward", "backward"]) }),
        of: ["one-way clutch"],
      },
      field("Also called, with / between", "aka", "words", true),
      { ...field("Servo", "servo", "text", true), of: ["band", "brake"] },
    ],
  },
} as const satisfies Record<string, Section>;
/** The name of one of `SECTIONS`. */
export type SectionName = keyof typeof SECTIONS;
