import { isRecord } from "../shape";

/** One thing that two revisions, or two versions of a unit, say differently; in the trade's words. */
export interface Difference {
  /** The section it is in, as the document calls it. */
  section: string;
  /** The entry, by its name: `D1 clearance`. */
  entry: string;
  /** What of it: `max`; empty when the entry itself came or went. */
  what: string;
  before: string | null;
  after: string | null;
}

/** `D1 clearance max 1.40 → 1.35 mm`. */
export function differenceText({ entry, what, before, after }: Difference): string {
  const subject = what ? `${entry} ${what}` : entry;
  if (before === null)
    return what ? `${subject} now ${after}` : `${subject} added${after ? `: ${after}` : ""}`;
  if (after === null) return what ? `${subject} no longer ${before}` : `${subject} taken out`;
  const unit = /^([+\-−]?[\d.,]+) (\S+)$/u;
  const [a, b] = [unit.exec(before), unit.exec(after)];
  return a && b && a[2] === b[2] ? `${subject} ${a[1]} → ${b[1]} ${b[2]}` : `${subject} ${before} → ${after}`;
}

/** What a document's keys are called, where the key is not the word. */
const WORDS: Readonly<Record<string, string>> = {
  spec: "",
  gearSets: "gear sets",
  heldBy: "held by",
  oneTime: "one-time",
  lookAlikes: "look-alikes",
  aka: "also called",
  airChecks: "air checks",
  onlyIf: "only if",
  retorque: "retorque",
  checked: "day last checked",
  learnt: "learnt on",
};
/** What a section is called. */
export const wordOf = (key: string): string =>
  WORDS[key] ?? key.replace(/([A-Z])/g, (c) => ` ${c.toLowerCase()}`);

/** The section's thing in one word, for entries without a name. */
const SINGULAR: Readonly<Record<string, string>> = {
  teardown: "teardown step",
  build: "build step",
  chains: "chain",
  packs: "pack",
  checkBalls: "check ball",
  sizes: "size",
  places: "place",
  stack: "plate",
  ranges: "range",
  elements: "element",
  depths: "depth",
  members: "member",
  orders: "relation",
  seats: "seat",
  grooves: "groove",
  airChecks: "air check",
  fasteners: "fasteners",
  relearns: "relearn",
};

/** How an entry of a list is recognised in the other document. */
function keyOf(entry: unknown, i: number): string {
  if (!isRecord(entry)) return JSON.stringify(entry);
  const own =
    entry.id ?? entry.element ?? entry.mark ?? (entry.role && `${text(entry.role)} ${text(entry.part)}`);
  return own === undefined ? (entry.when ? JSON.stringify(entry.when) : `${i}`) : text(own);
}

/** Entries by their keys; those whose key stands twice are told apart by the versions they hold for. */
export function keyed(list: readonly unknown[]): Map<string, unknown> {
  const keys = list.map(keyOf);
  return new Map(
    list.map((entry, i) => {
      const key = keys[i] ?? "";
      const twice = keys.indexOf(key) !== keys.lastIndexOf(key);
      return [twice && isRecord(entry) ? `${key} ${JSON.stringify(entry.when ?? i)}` : key, entry];
    }),
  );
}

/** What an entry of a section is called. */
export function nameOf(entry: unknown, section: string): string {
  if (!isRecord(entry)) return `${SINGULAR[section] ?? wordOf(section)} ${text(entry)}`.trim();
  const { name, id, element, mark, role, part, what } = entry;
  if (section === "tips") return `tip: ${text(entry.text)}`;
  if (typeof name === "string") return section === "packs" ? `${text(element)} ${name}` : name;
  if (typeof role === "string") return `${role} ${text(part)}`;
  const own = mark ?? id ?? element ?? what;
  return `${SINGULAR[section] ?? wordOf(section)}${own === undefined ? "" : ` ${text(own)}`}`;
}

function text(value: unknown): string {
  if (typeof value === "string") return value;
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (typeof value === "number") return `${value}`;
  if (Array.isArray(value)) return value.map(text).join(", ");
  if (isRecord(value))
    return Object.entries(value)
      .map(([key, inner]) => `${wordOf(key)} ${text(inner)}`.trim())
      .join(", ");
  return "";
}

/**
 * What differs between two documents of a book, or of one book resolved for two configurations or depths.
 *
 * @param before parsed JSON.
 * @param resolved whether both are one book's versions: then what an entry holds for is no difference.
 * @returns differences in the document's order; none for documents that say the same.
 */
export function difference(before: unknown, after: unknown, resolved = false): Difference[] {
  const found: Difference[] = [];
  if (!isRecord(before) || !isRecord(after)) return found;
  for (const section of keysOf(before, after)) {
    const walk = new Walk(section, found, resolved);
    walk.compare(before[section], after[section], nameOf({ name: wordOf(section) }, section), "");
  }
  return found;
}

const keysOf = (a: Record<string, unknown>, b: Record<string, unknown>): string[] => [
  ...new Set([...Object.keys(a), ...Object.keys(b)]),
];

class Walk {
  constructor(
    private readonly section: string,
    private readonly found: Difference[],
    private readonly resolved: boolean,
  ) {}

  compare(before: unknown, after: unknown, of: string, what: string): void {
    if (JSON.stringify(before) === JSON.stringify(after)) return;
    if (Array.isArray(before) && Array.isArray(after) && (before.some(isRecord) || after.some(isRecord)))
      return this.lists(before, after, of, what);
    if (isRecord(before) && isRecord(after)) {
      for (const key of keysOf(before, after)) {
        if ((key === "when" || key === "depth") && this.resolved) continue;
        if (key === "when" || key === "depth")
          this.say(before[key], after[key], of, `${what} holds for`.trim());
        else this.compare(before[key], after[key], of, [what, wordOf(key)].filter(Boolean).join(" "));
      }
      return;
    }
    this.say(before, after, of, what);
  }

  private say(before: unknown, after: unknown, of: string, what: string): void {
    if (JSON.stringify(before) === JSON.stringify(after)) return;
    const side = (value: unknown): string | null => (value === undefined ? null : text(value));
    this.found.push({ section: this.section, entry: of, what, before: side(before), after: side(after) });
  }

  private lists(before: unknown[], after: unknown[], of: string, what: string): void {
    const [a, b] = [keyed(before), keyed(after)];
    const inside = what === "" ? "" : of;
    const nameIn = (entry: unknown): string =>
      [inside, nameOf(entry, inside ? what : this.section)].filter(Boolean).join(" ");
    for (const [key, entry] of a) {
      if (b.has(key)) this.compare(entry, b.get(key), nameIn(entry), "");
      else
        this.found.push({
          section: this.section,
          entry: nameIn(entry),
          what: "",
          before: text(entry),
          after: null,
        });
    }
    for (const [key, entry] of b)
      if (!a.has(key))
        this.found.push({
          section: this.section,
          entry: nameIn(entry),
          what: "",
          before: null,
          after: extra(entry),
        });
    const shared = (from: Map<string, unknown>, other: Map<string, unknown>): string =>
      [...from.keys()].filter((key) => other.has(key)).join("\n");
    if (shared(a, b) !== shared(b, a))
      this.found.push({
        section: this.section,
        entry: of,
        what: `${what} order`.trim(),
        before: "as it was",
        after: "changed",
      });
  }
}

/** What is told of an entry that came: its figures, not its name again. */
function extra(entry: unknown): string {
  if (!isRecord(entry)) return "";
  const { thickness, count, torque, spec, number } = entry;
  return [
    count && `${text(count)} of`,
    thickness && text(thickness),
    torque && text(torque),
    spec && text(spec),
    number && text(number),
  ]
    .filter(Boolean)
    .join(" ");
}
