import { cheapest, type Column, type SolveProgram } from "./program";

/** What one supplier asks for a part or a kit. */
export interface SupplyOffer {
  number: string;
  supplier: string;
  cents: number;
  /** Until it is here; null where the supplier does not say. */
  days: number | null;
  /** Pieces in a pack; only whole packs are sold. */
  pack: number;
}

/** What is to be covered, and what with. */
export interface CoverQuestion {
  /** Pieces wanted, by part number. */
  wanted: ReadonlyMap<string, number>;
  /** What lies in each kit, by part number. */
  kits: readonly { number: string; contents: ReadonlyMap<string, number> }[];
  offers: readonly SupplyOffer[];
  /** On the shelf, by number; kits too. */
  onHand: ReadonlyMap<string, number>;
}

/** Something taken: packs of a supplier’s, or pieces from the shelf. */
export interface Take {
  number: string;
  /** Null: from the shelf. */
  supplier: string | null;
  packs: number;
  pieces: number;
  cents: number;
  days: number;
  isKit: boolean;
}

/** One way to cover what is wanted. */
export interface Cover {
  takes: Take[];
  cents: number;
  /** Until the last of it is here. */
  days: number;
  /** What nobody has: neither kit, nor supplier, nor shelf, or not enough of it. */
  missing: { number: string; count: number }[];
  /** Whether nothing is cheaper; else the search was stopped. */
  proven: boolean;
  /** What is over when all that is wanted is taken out of the boxes, by number. */
  left: { number: string; count: number }[];
}

/** Days of an offer whose supplier does not say when: later than any that is said. */
export const SOME_DAY = 10_000;

interface Source extends Take {
  most: number;
  brings: readonly (readonly [number: string, count: number])[];
}

/** Everything worth taking by a day: of what is alike the cheapest. */
function sourcesOf(question: CoverQuestion, latest: number): Source[] {
  const all = everySource(question, latest);
  const isBought = ({ supplier }: Source): boolean => supplier !== null;
  return [...all.filter((one) => !isBought(one)), ...cheapestOf(all.filter(isBought))].sort(byName);
}

/** Everything that could be taken by a day, one of each; whose contents nobody wants is left out. */
function everySource({ wanted, kits, offers, onHand }: CoverQuestion, latest: number): Source[] {
  const contents = new Map(kits.map((kit) => [kit.number, kit.contents]));
  const bringsOf = (number: string, pieces: number): (readonly [string, number])[] =>
    [...(contents.get(number) ?? new Map([[number, 1]]))].flatMap(([of, count]) =>
      wanted.has(of) ? [[of, count * pieces] as const] : [],
    );
  const usable = ({ brings }: Source): boolean => brings.length > 0;
  const enough = (brings: Source["brings"]): number =>
    Math.max(0, ...brings.map(([of, count]) => Math.ceil((wanted.get(of) ?? 0) / count)));
  const shelf = [...onHand].flatMap(([number, count]): Source[] => {
    const brings = bringsOf(number, 1);
    const isKit = contents.has(number);
    return count > 0
      ? [
          {
            number,
            supplier: null,
            packs: 1,
            pieces: 1,
            cents: 0,
            days: 0,
            isKit,
            brings,
            most: Math.min(count, enough(brings)),
          },
        ]
      : [];
  });
  const bought = offers.flatMap(({ number, supplier, cents, days, pack }): Source[] => {
    const isKit = contents.has(number);
    const brings = bringsOf(number, pack);
    const by = days ?? SOME_DAY;
    return by <= latest
      ? [{ number, supplier, packs: 1, pieces: pack, cents, days: by, isKit, brings, most: enough(brings) }]
      : [];
  });
  return [...shelf, ...bought].filter(usable);
}

/** Of packs alike only the cheapest, the soonest of several as cheap: all that are here come in time. */
function cheapestOf(bought: readonly Source[]): Source[] {
  const best = new Map<string, Source>();
  for (const one of bought) {
    const key = `${one.pieces} ${one.number}`;
    const known = best.get(key);
    if (!known || one.cents < known.cents || (one.cents === known.cents && byDays(one, known) < 0))
      best.set(key, one);
  }
  return [...best.values()];
}

const byDays = (a: Source, b: Source): number => a.days - b.days || byName(a, b);
/** One order, whichever the question came in: of several answers as good it is always the same. */
const byName = (a: Source, b: Source): number => (nameOf(a) < nameOf(b) ? -1 : 1);

/**
 * The cheapest way to have everything that is wanted by a day, whole packs and whole kits, with nothing in it that could be left out. Exact: an integer
 * program (covering with whole boxes).
 *
 * @param latest days; without it whenever it comes.
 * @returns what nobody can bring by then stands in `missing`, and the rest is covered.
 */
export function coverOf(question: CoverQuestion, solve: SolveProgram, latest = Infinity): Cover {
  const sources = sourcesOf(question, latest);
  const { wanted, missing } = canBeHad(question, sources);
  const columns = sources.map(({ cents, most, brings }, i): Column => ({
    name: `x${i}`,
    cost: cents,
    most,
    brings,
  }));
  const found = cheapest(columns, wanted, solve);
  // All that can be had would do: what was not found in time is taken one by one, without boxes.
  const values = found?.values ?? looseOnly(columns, wanted);
  const chosen = withoutIdle(values, columns, wanted);
  const takes = sources.flatMap((source, i): Take[] => {
    const packs = chosen.get(`x${i}`) ?? 0;
    const { number, supplier, pieces, cents, days, isKit } = source;
    return packs > 0
      ? [{ number, supplier, packs, pieces: pieces * packs, cents: cents * packs, days, isKit }]
      : [];
  });
  return { ...told(question, takes, missing), proven: found?.proven ?? false };
}

/** What of a way to cover something is to be said to know it again: how many packs of what, of whom, and pieces in one. */
export interface Taken {
  number: string;
  /** Null: from the shelf. */
  supplier: string | null;
  packs: number;
  pieces: number;
}

/** A way to cover something, as it is told to whoever is to carry it out. */
export const takenOf = ({ takes }: Pick<Cover, "takes">): Taken[] =>
  takes.map(({ number, supplier, packs, pieces }) => ({ number, supplier, packs, pieces: pieces / packs }));

/**
 * A way that was shown some time ago, as it stands now: at today's prices and days. It need not be the cheapest any more, nor has anything to be
 * searched for.
 *
 * @param taken what is taken, as it was shown.
 * @returns null where it no longer holds: something of it is not sold or not on the shelf any more, it does not bring all that can be had, or
 *   something of it is not needed any more.
 */
export function held(question: CoverQuestion, taken: readonly Taken[]): Cover | null {
  const all = everySource(question, Infinity);
  const { wanted, missing } = canBeHad(question, all);
  const columns: Column[] = [];
  const takes: Take[] = [];
  const chosen = new Map<string, number>();
  for (const { number, supplier, packs, pieces: each } of taken) {
    const source = all.find(
      (one) => one.number === number && one.supplier === supplier && one.pieces === each,
    );
    if (!source || packs > source.most || chosen.has(nameOf(source))) return null;
    const { cents, days, isKit, brings, most } = source;
    chosen.set(nameOf(source), packs);
    columns.push({ name: nameOf(source), cost: cents, most, brings });
    takes.push({ number, supplier, packs, pieces: each * packs, cents: cents * packs, days, isKit });
  }
  const there = thereOf(columns.map(({ name, brings }) => [brings, chosen.get(name) ?? 0]));
  const isEnough = [...wanted].every(([number, count]) => (there.get(number) ?? 0) >= count);
  const needed = withoutIdle(chosen, columns, wanted);
  const isIdle = [...chosen].some(([name, packs]) => needed.get(name) !== packs);
  return isEnough && !isIdle ? told(question, takes, missing) : null;
}

const nameOf = ({ number, supplier, pieces }: Pick<Source, "number" | "supplier" | "pieces">): string =>
  `${number}\t${supplier ?? ""}\t${pieces}`;

/** What so many of each bring together, by number. */
function thereOf(all: readonly (readonly [brings: Source["brings"], times: number])[]): Map<string, number> {
  const there = new Map<string, number>();
  for (const [brings, times] of all)
    for (const [of, count] of brings) there.set(of, (there.get(of) ?? 0) + count * times);
  return there;
}

/** Of what is wanted that which can be had at all, and the rest. */
function canBeHad(
  question: CoverQuestion,
  sources: readonly Source[],
): { wanted: Map<string, number>; missing: Cover["missing"] } {
  const there = thereOf(sources.map(({ brings, most }) => [brings, most]));
  const missing: Cover["missing"] = [];
  const wanted = new Map<string, number>();
  for (const [number, count] of question.wanted) {
    const can = Math.min(count, there.get(number) ?? 0);
    if (can < count) missing.push({ number, count: count - can });
    if (can > 0) wanted.set(number, can);
  }
  return { wanted, missing };
}

/** Something that covers it: of every source as much as any of its numbers could ask for. */
const looseOnly = (columns: readonly Column[], wanted: ReadonlyMap<string, number>): Map<string, number> =>
  new Map(
    columns.map(({ name, most, brings }) => [
      name,
      Math.min(most, Math.max(0, ...brings.map(([of, count]) => Math.ceil((wanted.get(of) ?? 0) / count)))),
    ]),
  );

/** Leaves out what is not needed: a piece fetched from the shelf beside a kit that has it. */
function withoutIdle(
  chosen: ReadonlyMap<string, number>,
  columns: readonly Column[],
  wanted: ReadonlyMap<string, number>,
): Map<string, number> {
  const kept = new Map(chosen);
  const there = new Map<string, number>();
  const add = ({ name, brings }: Column, times: number): void => {
    for (const [of, count] of brings) there.set(of, (there.get(of) ?? 0) + count * times);
    kept.set(name, (kept.get(name) ?? 0) + times);
  };
  for (const column of columns) {
    const times = chosen.get(column.name) ?? 0;
    kept.set(column.name, 0);
    add(column, times);
  }
  const isEnough = ({ brings }: Column): boolean =>
    brings.every(([of]) => (there.get(of) ?? 0) >= (wanted.get(of) ?? 0));
  for (const column of columns)
    while ((kept.get(column.name) ?? 0) > 0) {
      add(column, -1);
      if (isEnough(column)) continue;
      add(column, 1);
      break;
    }
  return kept;
}

function told({ wanted, kits }: CoverQuestion, takes: Take[], missing: Cover["missing"]): Cover {
  const contents = new Map(kits.map((kit) => [kit.number, kit.contents]));
  const there = thereOf(
    takes.map(({ number, pieces }) => [[...(contents.get(number) ?? new Map([[number, 1]]))], pieces]),
  );
  return {
    takes,
    cents: takes.reduce((sum, { cents }) => sum + cents, 0),
    days: takes.reduce((most, { days }) => Math.max(most, days), 0),
    missing,
    proven: true,
    left: [...there].flatMap(([number, count]) => {
      const over = count - (wanted.get(number) ?? 0);
      return over > 0 ? [{ number, count: over }] : [];
    }),
  };
}

/**
 * What can be traded: the cheapest way, then the cheapest of those that are there sooner, and so on to the soonest. None is both dearer and later
 * than another (Pareto).
 */
export function frontOf(question: CoverQuestion, solve: SolveProgram): Cover[] {
  const front: Cover[] = [];
  for (let latest = Infinity; ;) {
    const cover = coverOf(question, solve, latest);
    const before = front.at(-1);
    // Sooner, but something is missing that can be had later.
    if (before && cover.missing.length + shortOf(cover) > before.missing.length + shortOf(before))
      return front;
    if (before?.cents === cover.cents) front.pop();
    front.push(cover);
    if (cover.days === 0) return front;
    latest = cover.days - 1;
  }
}

const shortOf = ({ missing }: Cover): number => missing.reduce((sum, { count }) => sum + count, 0);

const namesOf = ({ number, supplier, pack, days }: SupplyOffer): string =>
  [number, supplier, pack, days].join("\n");

/** What one would do without thinking: of each size of kit the one that holds most of what is wanted, and the rest loose from whoever is cheapest. */
export function plainCover(question: CoverQuestion, solve: SolveProgram): Cover {
  const helps = ({ contents }: CoverQuestion["kits"][number]): number =>
    [...contents].reduce((sum, [of, count]) => sum + Math.min(count, question.wanted.get(of) ?? 0), 0);
  const [found] = question.kits
    .flatMap((kit) =>
      question.offers.filter(({ number }) => number === kit.number).map((offer) => ({ kit, offer })),
    )
    .sort(
      (a, b) =>
        helps(b.kit) - helps(a.kit) ||
        a.offer.cents - b.offer.cents ||
        // Nothing tells them apart but their names: in whatever order they are listed it is the same one.
        (namesOf(a.offer) < namesOf(b.offer) ? -1 : 1),
    );
  if (!found) return coverOf({ ...question, kits: [] }, solve);
  const { kit: full, offer } = found;
  const rest = new Map(
    [...question.wanted].flatMap(([number, count]) => {
      const left = count - (full.contents.get(number) ?? 0) * offer.pack;
      return left > 0 ? [[number, left] as const] : [];
    }),
  );
  const loose = coverOf({ ...question, wanted: rest, kits: [] }, solve);
  const kit: Take = {
    number: full.number,
    supplier: offer.supplier,
    packs: 1,
    pieces: offer.pack,
    cents: offer.cents,
    days: offer.days ?? SOME_DAY,
    isKit: true,
  };
  return { ...told(question, [kit, ...loose.takes], loose.missing), proven: false };
}
