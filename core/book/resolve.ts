import { measureText, type Nm } from "../quantity";
import { METHODS, type Allowances, type Facings, type Method, type Spec } from "../reading";
import type { Book, Trait } from "./book";
import type { Chain, Origin, Pack, Series, StackEntry } from "./format/pack";
import { seatsOf, type SeatLink } from "./seats";
import { strengthened, type Strengthening } from "./strengthened";

/** Facts about this very unit: trait → value, as seen. A trait nobody has looked at yet is absent. */
export type Configuration = Readonly<Record<string, string>>;

/** A shop's own limit or torque beside the book's, with a name and a reason. */
export interface HouseValue {
  of: "chain" | "fastener";
  id: string;
  min?: Nm;
  max?: Nm;
  /** As written: `45 N·m`. */
  torque?: string;
  reason: string;
  by: string;
  at: string;
}

/** A chain that applies, with everything needed to judge it. */
export interface AppliedChain {
  chain: Chain;
  /** What a verdict is held against: the book's, or the house's where it has one. */
  spec: Spec;
  /** What it is held against as found, where it is made stronger now and was built to other limits. */
  asFound?: Spec;
  /** The book's own, always. */
  book: Spec & { target?: Nm; checked?: string; source?: string; from?: Origin };
  house: HouseValue | null;
  allowances: Allowances;
  /** Where something is chosen that moves it: its own seat, and those it shares with other chains. */
  seats: SeatLink[];
  /** What must be so when it is read on trial, in words; asked once for each trial assembly. */
  conditions: string[];
  /** Whether the depth of work chosen reaches it. */
  inScope: boolean;
}

/** The clearance of a pack. */
export interface PackChain extends AppliedChain {
  pack: Pack;
  stack: StackEntry[];
  /** The ways it is read that the bench has. */
  methods: Method[];
  /** The steps that take its plates out: behind them nobody can read it as it was found. */
  apartBy: string[];
  /** Rings of other packs that go into its groove too. */
  strangers: Series[];
}

/** What of a book applies to one unit and one depth of work. */
export interface Applied {
  book: Book;
  /** The book without what other versions of the unit have. */
  present: Book;
  /** Of that, what the depth of work reaches. */
  scoped: Book;
  /** Both as they were found, where it is made stronger or becomes another version: what comes out is held against them. Null where it stays as it was. */
  asFound: { present: Book; scoped: Book } | null;
  chains: AppliedChain[];
  packs: PackChain[];
  /** Chains that hold but have no spec for what is known of this unit. */
  unstated: Chain[];
  /** Traits nobody has looked at yet. */
  unseen: Trait[];
  house: readonly HouseValue[];
}

interface Held {
  when?: Readonly<Record<string, readonly string[]>>;
  depth?: readonly string[];
}

const holdsFor = ({ when }: Held, configuration: Configuration): boolean =>
  !when ||
  Object.entries(when).every(
    ([trait, values]) => Object.hasOwn(configuration, trait) && values.includes(configuration[trait] ?? ""),
  );

/** Whether what has been seen of the unit speaks against an entry; a trait that nobody has looked at yet speaks against nothing. */
const mayHold = ({ when }: Held, configuration: Configuration): boolean =>
  !when ||
  Object.entries(when).every(
    ([trait, values]) => !Object.hasOwn(configuration, trait) || values.includes(configuration[trait] ?? ""),
  );

/**
 * The traits nobody has seen that decide whether an entry holds for this unit, itself or something within it.
 *
 * @returns none where it is known to hold.
 */
export function undecidedBy(entry: unknown, { unseen }: Pick<Applied, "unseen">): Trait[] {
  const named = new Set<string>();
  const look = (value: unknown): void => {
    if (typeof value !== "object" || value === null) return;
    if (!Array.isArray(value)) for (const trait of Object.keys((value as Held).when ?? {})) named.add(trait);
    for (const inner of Object.values(value)) look(inner);
  };
  if (unseen.length > 0) look(entry);
  return unseen.filter(({ id }) => named.has(id));
}

/** Work is done to one depth or to several: what belongs to any of them is reached. */
const reaches = ({ depth: belongs }: Held, depths: readonly string[]): boolean =>
  belongs?.some((depth) => depths.includes(depth)) ?? true;

/** What has something within it that says when it holds: some versions or depths have it otherwise than others. */
const varied = new WeakSet<object>();
/** The books whose varied parts are all known. What has been read of a book is never written to. */
const known = new WeakSet<object>();

/** @returns whether a value says when it holds, or something within it does: all it stands in is {@link varied} then. */
function mark(value: unknown): boolean {
  if (typeof value !== "object" || value === null) return false;
  let varies = false;
  for (const key of Object.keys(value)) if (mark((value as Record<string, unknown>)[key])) varies = true;
  if (varies) varied.add(value);
  const { when, depth } = value as Held;
  return varies || when !== undefined || depth !== undefined;
}

/**
 * A copy of a value without the entries of its lists that `keep` refuses; what holds nothing to refuse is not copied. A book has some ten
 * thousand of these, and is looked at in every version and depth: what does not vary is not looked at again.
 *
 * @param fixed whether it is a book that has been read, which stays as it is; a document may be written to.
 */
function pruned<T>(value: T, keep: (entry: Held) => boolean, fixed = false): T {
  if (typeof value !== "object" || value === null) return value;
  if (!fixed || !known.has(value)) mark(value);
  const kept = prune(value, keep);
  if (fixed) known.add(value).add(kept);
  return kept;
}

function prune<T>(value: T, keep: (entry: Held) => boolean): T {
  if (typeof value !== "object" || value === null || !varied.has(value)) return value;
  let copy: object | null = null;
  if (Array.isArray(value)) {
    const all = value as unknown[];
    let list: unknown[] | null = null;
    for (const [i, entry] of all.entries()) {
      const isHeld = typeof entry !== "object" || entry === null || Array.isArray(entry) || keep(entry);
      const kept = isHeld ? prune(entry, keep) : entry;
      if (!list && (!isHeld || kept !== entry)) list = all.slice(0, i);
      if (isHeld) list?.push(kept);
    }
    copy = list;
  } else {
    const of = value as Record<string, unknown>;
    let other: Record<string, unknown> | null = null;
    for (const key of Object.keys(of)) {
      const kept = prune(of[key], keep);
      if (kept !== of[key]) (other ??= { ...of })[key] = kept;
    }
    copy = other;
  }
  // A version of what varies may vary with something else.
  if (copy) varied.add(copy);
  return (copy as T | null) ?? value;
}

/** The entries of a document, or of a part of one, that hold for a configuration. Works on what is read and on the JSON alike. */
export const holding = <T>(value: T, configuration: Configuration): T =>
  pruned(value, (entry) => !entry.when || holdsFor(asLists(entry), configuration));

/** Of that, what the depths of work reach. */
export const within = <T>(value: T, depths: readonly string[]): T =>
  pruned(value, (entry) => reaches(entry, depths));

/** What the depths of work reach of a book. */
export const inDepth = (book: Book, depths: readonly string[]): Book =>
  pruned(book, (entry) => reaches(entry, depths), true);

/** A book of one version alone, every trait of it told. */
export const inVersion = (book: Book, configuration: Configuration): Book =>
  pruned(book, (entry) => holdsFor(entry, configuration), true);

/** In a document a trait's value may stand alone; once read it is a list. */
const asLists = ({ when }: Held): Held => ({
  when:
    when &&
    Object.fromEntries(
      Object.entries(when).map(([trait, values]) => [trait, typeof values === "string" ? [values] : values]),
    ),
});

/** What within an entry must be one thing: its versions cannot stand beside each other. */
const ONE_OF = new Set(["stack", "spec"]);

/**
 * The book of this very unit: without what other versions have. What hangs on a trait that nobody has seen yet stands there, all versions of it:
 * not seen is not absent.
 */
function standing(book: Book, configuration: Configuration): Book {
  const loose = pruned(book, (entry) => mayHold(entry, configuration), true);
  if (book.traits.every(({ id }) => Object.hasOwn(configuration, id))) return loose;
  const strict = <T extends object>(entry: T): T =>
    Object.fromEntries(
      Object.entries(entry).map(([key, value]: [string, unknown]) => [
        key,
        ONE_OF.has(key) ? pruned(value, (one) => holdsFor(one, configuration)) : value,
      ]),
    ) as T;
  return { ...loose, packs: loose.packs.map(strict), chains: loose.chains.map(strict) };
}

/**
 * Book + configuration + scope → what applies now. With {@link holding} and {@link within} the only place that looks at `when` and
 * `depth`.
 *
 * @param depths of the book, one or several.
 * @param house the shop's own values for this unit, if it has any.
 * @param stronger what is made stronger on this one than it was built.
 * @param becomes its traits once what goes in is in; it is taken down as it was found.
 */
export function resolve(
  book: Book,
  configuration: Configuration,
  depths: readonly string[],
  house: readonly HouseValue[] = [],
  {
    stronger = null,
    becomes = configuration,
  }: { stronger?: Strengthening | null; becomes?: Configuration } = {},
): Applied {
  const unseen = book.traits.filter(({ id }) => !Object.hasOwn(becomes, id));
  const found = standing(book, configuration);
  const isOther = book.traits.some(({ id }) => configuration[id] !== becomes[id]);
  const built = isOther ? Object.assign({}, standing(book, becomes), { teardown: found.teardown }) : found;
  const unit = stronger ? strengthened(built, stronger) : built;
  const unstated: Chain[] = [];
  const chains = unit.chains.flatMap((chain): AppliedChain[] => {
    const stated = statedOf(chain, depths);
    const packed = book.packs.find(({ element }) => element === chain.of);
    // Plates of two versions are no stack, and the limits of one are not the other's: which it is must be seen first.
    if (!stated || (packed && undecidedBy(packed.stack, { unseen }).length > 0)) {
      unstated.push(chain);
      return [];
    }
    const { min, max, soak = "dry", wave, target, checked, source, from } = stated;
    const facings = facingsOf(stated, chain);
    const own = house.find(({ of, id }) => of === "chain" && id === chain.id) ?? null;
    const state = { soak, facings, wave };
    const before = asFoundOf(found, chain.id, stated, depths, own);
    // The limits of a plan were worked out from the house’s, where it has its own.
    const counts = stronger && before.asFound ? null : own;
    return [
      {
        chain,
        spec: { min: counts?.min ?? min, max: counts?.max ?? max, state },
        book: { min, max, state, target, checked, source, from },
        house: counts,
        ...before,
        allowances: { soaking: chain.soaking, bedding: chain.bedding, wave: waveOf(unit, chain) },
        seats: seatsOf(unit, chain),
        conditions: conditionsOf(unit, chain),
        inScope: reaches(chain, depths),
      },
    ];
  });
  const packs = chains.flatMap((applied): PackChain[] => {
    const pack = packOf(unit, applied.chain);
    if (!pack) return [];
    const inScope = applied.inScope && reaches(pack, depths);
    const methods = METHODS.filter((method) => applied.chain.read.with.includes(method));
    const plates = new Set(pack.stack.map(({ part }) => part));
    const apart = (unit.teardown ?? []).filter(({ parts = [] }) => parts.some((id) => plates.has(id)));
    const apartBy = apart.map(({ id }) => id);
    const others = new Set((pack.grooves ?? []).flatMap(({ alsoTakes = [] }) => alsoTakes));
    const strangers = unit.series.filter(({ id }) => others.has(id));
    return [{ ...applied, pack, stack: pack.stack, methods, apartBy, strangers, inScope }];
  });
  return {
    book,
    present: unit,
    scoped: inDepth(unit, depths),
    asFound: stronger || isOther ? { present: found, scoped: inDepth(found, depths) } : null,
    chains,
    packs,
    unstated,
    unseen,
    house,
  };
}

/** What a chain is held against for a depth of work. */
const statedOf = ({ spec }: Chain, depths: readonly string[]): Chain["spec"][number] | undefined =>
  spec.find((one) => reaches(one, depths)) ?? spec[0];

/** What facings a spec is for: new ones, or, where nobody says so and nobody knows what bedding makes of them, as they are. */
const facingsOf = ({ facings }: Chain["spec"][number], { bedding }: Chain): Facings | undefined =>
  facings ?? (bedding ? "new" : undefined);

/** The limits a chain was built to, where they are others now. */
function asFoundOf(
  found: Book,
  chain: string,
  stated: Chain["spec"][number],
  depths: readonly string[],
  own: HouseValue | null,
): Pick<AppliedChain, "asFound"> {
  const before = found.chains.find(({ id }) => id === chain);
  const spec = before && statedOf(before, depths);
  if (!spec || spec === stated) return {};
  const { min, max, soak = "dry", wave } = spec;
  const facings = facingsOf(spec, before);
  return { asFound: { min: own?.min ?? min, max: own?.max ?? max, state: { soak, facings, wave } } };
}

function conditionsOf({ fasteners = [] }: Book, { read }: Chain): string[] {
  const { gasket, bolts, conditions = [] } = read;
  const group = fasteners.find(({ id }) => id === bolts?.group);
  return [
    ...(gasket ? [`gasket ${gasket}`] : []),
    ...(bolts ? [`${bolts.count} ${group?.name ?? bolts.group} at ${measureText(bolts.torque)}`] : []),
    ...conditions,
  ];
}

/** The pack a clearance is of; other chains of a pack, such as its piston's travel, are not its clearance. */
const packOf = (unit: Book, chain: Chain): Pack | undefined =>
  chain.kind === "pack clearance" ? unit.packs.find(({ element }) => element === chain.of) : undefined;

const waveOf = (unit: Book, chain: Chain): Allowances["wave"] =>
  packOf(unit, chain)?.stack.find(({ wave }) => wave)?.wave;

/** Every configuration that only the named traits tell apart; the others take their first value. */
export function configurations(traits: readonly Trait[], told: ReadonlySet<string>): Configuration[] {
  return traits.reduce<Configuration[]>(
    (known, { id, values }) => {
      const names = Object.keys(values);
      const used = told.has(id) ? names : names.slice(0, 1);
      return known.flatMap((configuration) => used.map((value) => ({ ...configuration, [id]: value })));
    },
    [{}],
  );
}
