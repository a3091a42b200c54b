import type { Applied, Book, FastenerGroup, Part, Step } from "../book";
import type { BodyOf, Job, Source } from "../fact";
import { isWanted, otherUnit, otherUnitWords, unitPart, type PartState } from "../inspect";
import { boughtOf } from "../pack";
import { baseOf, compare, measureText } from "../quantity";

/** What a line of the list is of. */
export type NeedKind = "unit" | "part" | "bolts" | "selective" | "stronger" | "fluid" | "used up";

/** The first step of the build that cannot be done without it. */
export interface Waits {
  step: string;
  name: string;
  /** Its place among the steps of the build, from 1. */
  at: number;
}

/** One line of what a unit needs. */
export interface Need {
  /** The same as long as the thing is: `part d1-friction`. */
  id: string;
  kind: NeedKind;
  /** What it is in the book: a part, a fastener group, a seat, a fluid’s room, a consumable. */
  of: string;
  name: string;
  /** As it is bought; null where the book does not say. */
  number: string | null;
  /** Pieces; 1 for what is poured or smeared. */
  count: number;
  /** How much of it, where it is not counted. */
  amount: string | null;
  /** Who or what asked for it, in words, the gravest first. */
  because: readonly string[];
  /** Null where no step of the build takes it: it is wanted at the end. */
  waits: Waits | null;
  /** What goes in instead of the old one, and what that brings along. */
  brings: string | null;
  /** Where it comes from, if it is not bought: then it has no number. */
  source: { from: Exclude<Source, "bought" | "later">; of: string; isHere: boolean } | null;
  /** Whether it is in already. */
  isIn: boolean;
}

/** What is cheap while the unit is open, and dear once it is shut. */
export interface WhileOpen {
  part: Part;
  count: number;
  /** Minutes of the book’s steps that it takes to come to it again and to shut the unit after it. */
  minutes: number;
}

/** What of a book the list is made from. */
type Within = Pick<Applied, "book" | "scoped">;

/** What a unit needs, and what may still be added to it. */
export interface Needs {
  lines: Need[];
  /** Parts that nobody has looked at, or that are to be measured: each may still become a line. */
  open: PartState[];
  whileOpen: WhileOpen[];
}

/**
 * The exact list of what a unit needs: what is replaced, of this configuration and scope, from the first day on – one-time parts and bolts, what
 * is replaced on principle – and what findings, measures, weak points and choices added since; fluid and what is used up.
 *
 * @param states what becomes of each part.
 * @param chosen pieces that were chosen and have to be bought: a seat of the book, and the piece.
 * @returns lines in the order their steps come in the build; none once the job was called off.
 */
export function needsOf(
  job: Job,
  applied: Within,
  states: readonly PartState[],
  chosen: readonly { seat: string; chain: string; name: string; number: string }[] = [],
): Needs {
  if (job.closed?.body.calledOff) return { lines: [], open: [], whileOpen: [] };
  const { scoped } = applied;
  const steps = new Steps(scoped);
  const last = steps.count + 1;
  const sorted = (all: readonly Need[]): Need[] =>
    all
      .map((line, i) => ({ line, i }))
      .sort((a, b) => (a.line.waits?.at ?? last) - (b.line.waits?.at ?? last) || a.i - b.i)
      .map(({ line }) => line);
  const another = ofUnit(job, scoped, steps);
  // The unit that was here is not built: what it would have needed nobody buys.
  if (another) return { lines: sorted([...another, ...ofFluid(scoped)]), open: [], whileOpen: [] };
  const lines: Need[] = [
    ...states
      .filter((state) => isWanted(state) || state.is === "machine")
      .map((state) => ofPart(state, job, applied, steps)),
    ...(scoped.fasteners ?? []).filter(({ oneTime }) => oneTime).map((group) => ofBolts(group, steps)),
    ...chosen.map((one): Need => ({
      id: `selective ${one.seat}`,
      kind: "selective",
      of: one.seat,
      name: one.name,
      number: one.number,
      count: 1,
      amount: null,
      because: ["chosen, and not on the shelf"],
      waits: steps.reading(one.chain),
      brings: null,
      source: null,
      isIn: false,
    })),
    ...ofStronger(job, scoped),
    ...ofFluid(scoped),
    ...ofUsedUp(scoped, steps),
  ];
  return {
    lines: sorted(lines),
    open: states.filter(({ is }) => is === null || is === "measure-first"),
    whileOpen: whileOpen(states, scoped.packs, steps),
  };
}

/** The build's steps, by what they take. */
class Steps {
  private readonly first = new Map<string, Waits>();
  private readonly chains = new Map<string, Waits>();
  private readonly owner: ReadonlyMap<string, string>;
  readonly count: number;

  constructor(private readonly scoped: Book) {
    const build = scoped.build ?? [];
    this.count = build.length;
    this.owner = new Map(scoped.parts.flatMap(({ id, of }) => (of === undefined ? [] : [[id, of]])));
    for (const [i, { id, name, parts = [], fasteners = [], chains = [] }] of build.entries()) {
      const waits = { step: id, name, at: i + 1 };
      for (const of of [...parts, ...fasteners]) if (!this.first.has(of)) this.first.set(of, waits);
      for (const of of chains) if (!this.chains.has(of)) this.chains.set(of, waits);
    }
  }

  /** The first step that takes a part, or else the assembly it is part of. */
  taking(of: string): Waits | null {
    const seen = new Set<string>();
    for (let at: string | undefined = of; at !== undefined && !seen.has(at); at = this.owner.get(at)) {
      const waits = this.first.get(at);
      if (waits) return waits;
      seen.add(at);
    }
    return null;
  }
  /** The first step that reads a figure. */
  reading(chain: string): Waits | null {
    return this.chains.get(chain) ?? null;
  }
  /** Minutes of all steps down to a part, and of those up again from it. */
  minutesTo(of: string): number {
    const down = this.scoped.teardown ?? [];
    const up = this.scoped.build ?? [];
    const has = (step: Step): boolean => step.parts?.includes(of) ?? false;
    const [deep, from] = [down.findIndex(has), up.findIndex(has)];
    const owner = this.owner.get(of);
    if (deep < 0 || from < 0) return owner === undefined ? 0 : this.minutesTo(owner);
    return minutes(down.slice(0, deep + 1)) + minutes(up.slice(from));
  }
}

const minutes = (steps: readonly Step[]): number => steps.reduce((sum, step) => sum + (step.minutes ?? 0), 0);

/** A part that is wanted, or whose old one is machined. */
function ofPart(state: PartState, job: Job, { book, scoped: { packs } }: Within, steps: Steps): Need {
  const { part, is, because, decided } = state;
  const fact = job.sources.get(part.id);
  const from = is === "machine" ? "machined" : (fact?.body.from ?? "bought");
  const later =
    from === "later"
      ? part.instead?.find(({ number }) => number === fact?.body.number)
      : is === "upgrade"
        ? part.instead?.[0]
        : undefined;
  const isBought = from === "bought" || from === "later";
  const said = decided ? [`${decided.by}: ${decided.body.reason}`] : [];
  return {
    id: `part ${part.id}`,
    kind: "part",
    of: part.id,
    name: part.name,
    number: isBought ? (later?.number ?? part.number) : null,
    count: boughtOf(packs, part),
    amount: null,
    because: [
      ...said,
      ...because.filter((one) => WANTED.has(one.is) || one.is === is).map(({ words }) => words),
    ],
    waits: steps.taking(part.id),
    brings: broughtWords(later ?? insteadOf(book, inPlaceOf(job, part)?.body)),
    source: isBought
      ? null
      : { from, of: ofSource(fact?.body, from), isHere: fact?.body.from === from && fact.body.here },
    isIn: job.renewed.has(part.id),
  };
}

/** What was said of the part that a later one is in place of; undefined where it is in no other’s place. */
export const inPlaceOf = ({ later }: Pick<Job, "later">, { number }: Pick<Part, "number">) =>
  later.find(({ body }) => body.number === number);

/** What the book says of a later part, where it stands beside the part it is in place of. */
const insteadOf = ({ parts }: Book, said: BodyOf<"part-source"> | undefined) =>
  parts.find(({ id }) => id === said?.part)?.instead?.find(({ number }) => number === said?.number);

/** What a later part brings, what it forbids and what it asks to be machined, in words; null where there is none. */
export const broughtWords = (later: NonNullable<Part["instead"]>[number] | undefined): string | null =>
  later
    ? [
        later.brings,
        ...(later.machine === undefined ? [] : [`machine first: ${later.machine}`]),
        ...(later.forbids === undefined ? [] : [`never with ${later.forbids}`]),
      ].join("; ")
    : null;

const WANTED: ReadonlySet<string | null> = new Set(["replace", "upgrade"]);

/** Out of what, or by whom, and how far it ran; empty where it was said of another source. */
const ofSource = (said: { from: Source; of: string; distance?: string } | undefined, from: Source): string =>
  said && said.from === from ? [said.of, said.distance ?? ""].filter(Boolean).join(", ") : "";

/** Another unit goes in, as a lead decided: itself, and what is renewed before it does. Null where this one is rebuilt. */
function ofUnit(job: Job, { unit, parts, packs }: Book, steps: Steps): Need[] | null {
  const other = otherUnit(job);
  if (!other) return null;
  const { way, decided, offer } = other;
  const renewed = parts.filter(({ id }) => other.renew.includes(id));
  const line = { amount: null, source: null, isIn: false } as const;
  return [
    {
      ...line,
      id: `unit ${way}`,
      kind: "unit",
      of: way,
      name: otherUnitWords(other, unit.name),
      number: unitPart(unit.id, way),
      count: 1,
      because: [`${decided.by}: ${decided.body.reason}`],
      waits: null,
      brings: offer?.warranty ?? null,
    },
    ...renewed.map((part): Need => ({
      ...line,
      id: `part ${part.id}`,
      kind: "part",
      of: part.id,
      name: part.name,
      number: part.number,
      count: boughtOf(packs, part),
      because: ["renewed before the other unit goes in"],
      waits: steps.taking(part.id),
      brings: null,
      isIn: job.renewed.has(part.id),
    })),
  ];
}

const ofBolts = ({ id, name, number, count, carries }: FastenerGroup, steps: Steps): Need => ({
  id: `bolts ${id}`,
  kind: "bolts",
  of: id,
  name,
  number: number ?? null,
  count,
  amount: null,
  because: [`never used twice${carries ? `, with ${carries}` : ""}`],
  waits: steps.taking(id),
  brings: null,
  source: null,
  isIn: false,
});

/** What a plan buys that is no plate of a pack and no part of the book: a spring of the regulator, a wider one-way clutch. */
const ofStronger = ({ stronger }: Job, { stronger: ways = [] }: Book): Need[] =>
  ways.flatMap(({ id, name, number, part }): Need[] => {
    if (!stronger?.body.ways.includes(id) || number === undefined || part !== undefined) return [];
    return [
      {
        id: `stronger ${id}`,
        kind: "stronger",
        of: id,
        name,
        number,
        count: 1,
        amount: null,
        because: [`made stronger: ${stronger.body.reason}`],
        waits: null,
        brings: null,
        source: null,
        isIn: false,
      },
    ];
  });

/** What is poured in, room by room: of several fills of one room that the scope reaches the largest. */
function ofFluid({ fluid, soaks = [] }: Book): Need[] {
  if (!fluid) return [];
  const rooms = [{ id: "", name: fluid.name, number: fluid.number }, ...(fluid.others ?? [])];
  return rooms.flatMap(({ id, name, number }): Need[] => {
    const fills = fluid.fills.filter(({ room = "" }) => room === id);
    const [first, ...more] = fills;
    if (!first) return [];
    const most = more.reduce((a, b) => (compare(baseOf(b.amount), baseOf(a.amount)) > 0 ? b : a), first);
    const soaked = id === "" ? soaks.map(({ what }) => what) : [];
    return [
      {
        id: `fluid ${id}`,
        kind: "fluid",
        of: id,
        name: id === "" ? name : `${name}: its own fluid`,
        number: number ?? null,
        count: 1,
        amount: measureText(most.amount),
        because: [most.what, ...soaked.map((what) => `and for ${what}`)],
        waits: null,
        brings: null,
        source: null,
        isIn: false,
      },
    ];
  });
}

function ofUsedUp({ consumables = [], fasteners = [] }: Book, steps: Steps): Need[] {
  return consumables.flatMap((one): Need[] => {
    const bolts = one.thread === undefined ? [] : fasteners.filter(({ thread }) => thread === one.thread);
    if (one.thread !== undefined && bolts.length === 0) return [];
    const waits = bolts
      .flatMap(({ id }) => steps.taking(id) ?? [])
      .reduce<Waits | null>((a, b) => (!a || b.at < a.at ? b : a), null);
    return [
      {
        id: `used up ${one.id}`,
        kind: "used up",
        of: one.id,
        name: one.name,
        number: one.number ?? null,
        count: 1,
        amount: one.amount ? measureText(one.amount) : null,
        because: [one.for, ...bolts.map(({ name, count }) => `${name} (${count})`)],
        waits,
        brings: null,
        source: null,
        isIn: false,
      },
    ];
  });
}

/** Kinds that wear, leak or age, and cost little beside the way to them. */
const CHEAP: ReadonlySet<string> = new Set([
  ...([
    "seal",
    "O-ring",
    "sealing ring",
    "sealing washer",
    "gasket",
    "bushing",
    "thrust bearing",
    "bearing",
  ] as const),
  ...(["washer", "filter", "spring", "one-way clutch", "solenoids", "sensor", "friction"] as const),
]);

function whileOpen(states: readonly PartState[], packs: Book["packs"], steps: Steps): WhileOpen[] {
  return states
    .filter(
      (state) =>
        !isWanted(state) && CHEAP.has(state.part.kind ?? "") && state.part.sold !== "with its assembly",
    )
    .map(({ part }) => ({ part, count: boughtOf(packs, part), minutes: steps.minutesTo(part.id) }))
    .filter((one) => one.minutes > 0);
}

/** What there is for a job’s list, by part number. */
export interface Supply {
  /** In the job’s box. */
  box: ReadonlyMap<string, number>;
  /** On the shelf, for whoever takes it. */
  shelf: ReadonlyMap<string, number>;
  /** On order, a kit by what lies in it; what comes first stands first. */
  coming: readonly { number: string; pieces: number; due: string | null; isLate: boolean }[];
}

/** How one line stands. */
export interface Stands {
  box: number;
  shelf: number;
  coming: number;
  /** When the last of what is coming should be here; null where nobody says, or nothing comes. */
  due: string | null;
  isLate: boolean;
  /** What has still to be got. */
  short: number;
}

/** What is coming, lot by lot, as it is given out. */
class Coming {
  private readonly lots: { pieces: number; due: string | null; isLate: boolean; number: string }[];
  constructor(coming: Supply["coming"]) {
    this.lots = coming.map((lot) => ({ ...lot }));
  }
  take(number: string, wanted: number): Pick<Stands, "coming" | "due" | "isLate"> {
    let [coming, due, isLate]: [number, string | null, boolean] = [0, null, false];
    for (const lot of this.lots) {
      if (lot.number !== number || lot.pieces === 0 || coming === wanted) continue;
      const takes = Math.min(lot.pieces, wanted - coming);
      lot.pieces -= takes;
      coming += takes;
      due = lot.due ?? due;
      isLate ||= lot.isLate;
    }
    return { coming, due, isLate };
  }
}

/**
 * How each line of a list stands: what is in the job’s box, on the shelf, on its way, and to be got. Where several want the same number, the first
 * step is served first.
 *
 * @returns by the id of the line; what is in already, or has no number, wants nothing.
 */
export function standing(lines: readonly Need[], { box, shelf, coming }: Supply): Map<string, Stands> {
  const [inBox, onShelf, onOrder] = [new Map(box), new Map(shelf), new Coming(coming)];
  const take = (from: Map<string, number>, number: string, most: number): number => {
    const has = Math.min(most, from.get(number) ?? 0);
    from.set(number, (from.get(number) ?? 0) - has);
    return has;
  };
  return new Map(
    lines.map(({ id, number, count, isIn, source }): [string, Stands] => {
      const asked = isIn ? 0 : count;
      if (number === null && source?.isHere)
        return [id, { box: asked, shelf: 0, coming: 0, due: null, isLate: false, short: 0 }];
      // What is in came out of the box, where it was there.
      if (isIn && number !== null) take(inBox, number, count);
      if (number === null)
        return [id, { box: 0, shelf: 0, coming: 0, due: null, isLate: false, short: asked }];
      const boxed = take(inBox, number, asked);
      const ordered = onOrder.take(number, asked - boxed);
      const shelved = take(onShelf, number, asked - boxed - ordered.coming);
      return [
        id,
        { box: boxed, shelf: shelved, ...ordered, short: asked - boxed - shelved - ordered.coming },
      ];
    }),
  );
}

/** The first line that holds the build up: not all of it is in hand. Null when nothing does. */
export const heldUpBy = (lines: readonly Need[], stands: ReadonlyMap<string, Stands>): Need | null =>
  lines.find(({ id, waits, isIn }) => {
    const one = stands.get(id);
    return waits !== null && !isIn && one !== undefined && one.short + one.coming > 0;
  }) ?? null;

/** Pieces wanted by a list, by part number; what is in already is not. */
export function wanted(lines: readonly Need[]): Map<string, number> {
  const all = new Map<string, number>();
  for (const { number, count, isIn } of lines)
    if (number !== null && !isIn) all.set(number, (all.get(number) ?? 0) + count);
  return all;
}

/** What lies in a job’s box and no line wants: it goes to the shelf. */
export function overIn(
  box: ReadonlyMap<string, number>,
  lines: readonly Need[],
): { number: string; count: number }[] {
  // What is in already came out of the box as well.
  const all = wanted(lines.map((line) => ({ ...line, isIn: false })));
  return [...box].flatMap(([number, count]) => {
    const over = count - (all.get(number) ?? 0);
    return over > 0 ? [{ number, count: over }] : [];
  });
}
