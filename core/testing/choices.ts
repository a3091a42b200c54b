import { nm, type Nm } from "../quantity";
import {
  TERMS,
  type JointChain,
  type JointQuestion,
  type Lot,
  type Offer,
  type Relation,
  type Seat,
} from "../select";

/** A small generator with a fixed seed: whole numbers below `n`. */
export function dice(seed: number): (n: number) => number {
  let state = (Math.imul(seed, 2654435761) ^ 0x9e3779b9) >>> 0 || 1;
  return (n) => {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    state >>>= 0;
    return state % n;
  };
}

/** So many of them, each made with its number from 1 on. */
export const times = <T>(n: number, make: (i: number) => T): T[] =>
  Array.from({ length: n }, (_, i) => make(i + 1));

const µm = (n: number): Nm => nm(n * 1_000);
const STEP = 50;
const PLATES = 5;

export interface Shop {
  seats: number;
  /** In all series together. */
  sizes: number;
  series: number;
  /** Most pieces of one size on the shelf. */
  stock: number;
  seed: number;
}

/**
 * What a shop could have to choose: units of about a dozen seats, each with three end plays that share a washer and stand in an order, and a pack closed by a ring
 * and one of five plates; all others have a ring of their own. Rings by 0.05 mm, some on the shelf, all to be ordered.
 */
export function shopQuestion({ seats: count, sizes: all, series: kinds, stock, seed }: Shop): JointQuestion {
  const roll = dice(seed);
  const lots: Lot[] = [];
  const sizes = Math.floor(all / kinds);
  const made = (name: string, many: number, step: number): Offer[] =>
    Array.from({ length: many }, (_, i): Offer[] => {
      const lot = `${name}-${i}`;
      lots.push({ id: lot, count: roll(stock + 1) });
      const piece = { adds: µm(1_000 + i * step), variance: 8_000 ** 2, scarce: roll(20) };
      return [
        { id: lot, lot, ...piece },
        { id: `${lot} ordered`, days: 1 + roll(3), money: 400 + roll(900), ...piece },
      ];
    }).flat();
  const series = Array.from({ length: kinds }, (_, k) => made(`${k}`, sizes, STEP));
  const plates = series.map((_, k) => made(`plate ${k}`, PLATES, 4 * STEP));
  const middleOf = (offers: readonly Offer[]): number =>
    Math.round(((offers[0]?.adds ?? 0) + (offers.at(-1)?.adds ?? 0)) / 2_000);
  const [seats, chains, relations]: [Seat[], JointChain[], Relation[]] = [[], [], []];
  const seat = (job: string, kind: number, offers = series[kind % kinds] ?? []): Seat => {
    const adds = offers[roll(offers.length)]?.adds ?? µm(1_000);
    const one: Seat = {
      id: `${job} ${seats.length}`,
      job,
      fitted: { id: "in", adds, variance: 8_000 ** 2 },
      offers,
    };
    seats.push(one);
    return one;
  };
  const chain = (of: readonly Seat[], signs: readonly (1 | -1)[], min: number, max: number): string => {
    const id = `c${chains.length}`;
    // So that a size somewhere in the middle half would do.
    const shift = of.length > 1 ? 0 : roll(Math.ceil(sizes / 2) * STEP) - Math.round((sizes / 4) * STEP);
    const rest =
      Math.round((min + max) / 2) -
      of.reduce((sum, { offers }, i) => sum + (signs[i] ?? -1) * (middleOf(offers) + shift), 0);
    chains.push({
      id,
      seats: of.map(({ id: name }, i) => ({ seat: name, sign: signs[i] ?? -1 })),
      rest: µm(rest + roll(40) - 20),
      variance: (6_000 + roll(9_000)) ** 2,
      scatter: roll(2) === 0 ? 0 : (4_000 + roll(4_000)) ** 4 / 2,
      min: µm(min),
      max: µm(max),
      ...(roll(4) > 0 ? { target: µm(Math.round((min + max) / 2)) } : {}),
    });
    return id;
  };
  for (let unit = 0; seats.length < count; unit++) {
    const job = `job ${unit}`;
    const left = (): number => count - seats.length;
    if (left() >= 12) {
      const [rear, centre, front] = [seat(job, unit), seat(job, unit), seat(job, unit)];
      const below = chain([rear], [-1], 200, 450);
      const above = chain([rear, centre], [1, -1], 400, 700);
      const also = chain([front], [-1], 200, 450);
      relations.push({ below, above, by: µm(20) }, { below: also, above, by: µm(20) });
      chain([seat(job, unit + 1), seat(job, unit, plates[unit % kinds])], [-1, -1], 900, 1_200);
    }
    for (let i = Math.min(left(), 7); i > 0; i--) chain([seat(job, unit + i)], [-1], 900, 1_200);
  }
  return { seats, chains, relations, lots };
}

/**
 * Something small and odd to choose, in lengths of a few nanometres: seats in two chains or in none's favour, relations, what is fitted wanted elsewhere, one piece left, ties,
 * results nothing brings inside.
 *
 * @param most seats of it.
 */
export function oddQuestion(seed: number, most = 4): JointQuestion {
  const roll = dice(seed);
  const lots = Array.from({ length: 1 + roll(3) }, (_, i): Lot => ({ id: `l${i}`, count: roll(3) }));
  const lotName = (): string => lots[roll(lots.length)]?.id ?? "";
  const series = Array.from({ length: 1 + roll(2) }, (_, k) =>
    Array.from({ length: 1 + roll(4) }, (__, i): Offer => ({
      id: `o${k}${i}`,
      adds: nm(10 + i * (1 + roll(3))),
      variance: roll(2) * roll(4),
      scarce: roll(3),
      ...(roll(4) > 0 ? { lot: lotName() } : { days: roll(4), money: roll(50) }),
    })),
  );
  const seats = Array.from({ length: 1 + roll(most) }, (_, i): Seat => ({
    id: `s${i}`,
    job: "",
    offers: series[roll(series.length)] ?? [],
    ...(roll(2) > 0
      ? {
          fitted: {
            id: "in",
            adds: nm(8 + roll(8)),
            variance: roll(3),
            ...(roll(2) > 0 ? { lot: lotName() } : {}),
          },
        }
      : {}),
  }));
  const chains = Array.from({ length: 1 + roll(most) }, (_, i): JointChain => {
    const of = new Set<number>();
    const wanted = 1 + roll(Math.min(2, seats.length));
    while (of.size < wanted) of.add(roll(seats.length));
    const links = [...of].map((at) => ({ seat: `s${at}`, sign: roll(4) > 0 ? (-1 as const) : (1 as const) }));
    const min = roll(20) - 5;
    return {
      id: `c${i}`,
      seats: links,
      rest: nm(links.reduce((sum, { sign }) => sum - sign * 12, roll(20))),
      variance: roll(6),
      scatter: roll(3) > 0 ? 0 : roll(5) / 10,
      min: nm(min),
      max: nm(min + 1 + roll(6)),
      ...(roll(3) > 0 ? { target: nm(min + 1) } : {}),
    };
  });
  const relations: Relation[] =
    roll(2) > 0 && chains.length > 1 ? [{ below: "c0", above: "c1", by: nm(roll(3)) }] : [];
  const pinned = roll(6) === 0 ? seats[0]?.offers[0]?.id : undefined;
  const shuffled = TERMS.map((term) => ({ term, by: roll(1_000) })).sort((a, b) => a.by - b.by);
  const question: JointQuestion = {
    seats: seats.map((seat, i) => (i === 0 && pinned ? { ...seat, pinned } : seat)),
    chains,
    relations,
    lots,
    ...(roll(3) === 0 ? { terms: shuffled.map(({ term }) => term) } : {}),
  };
  return roll(2) > 0 ? eachItsJob(question) : question;
}

/** Two to five small units that reach for the same few pieces: with ties, one left of each, and several pieces wanted at once. */
export function contestedQuestion(seed: number): JointQuestion {
  const roll = dice(seed);
  const lots = Array.from({ length: 2 + roll(3) }, (_, i): Lot => ({
    id: `l${i}`,
    count: roll(3) > 0 ? 1 : roll(3),
  }));
  const offers = lots.flatMap(({ id }, i): Offer[] => [
    { id, lot: id, adds: nm(10 + 2 * i), variance: 1, scarce: roll(2) },
    ...(roll(2) > 0
      ? [{ id: `${id} ordered`, adds: nm(10 + 2 * i), variance: 1, days: 1 + roll(5), money: 10 * roll(3) }]
      : []),
    ...(roll(4) === 0 ? [{ id: `${id} machined`, adds: nm(11 + 2 * i), variance: 0, money: 40 }] : []),
  ]);
  const [seats, chains, relations]: [Seat[], JointChain[], Relation[]] = [[], [], []];
  const chain = (links: JointChain["seats"]): string => {
    const id = `c${chains.length}`;
    const middle = links.reduce((sum, { sign }) => sum - sign * (11 + 2 * roll(lots.length)), 0);
    chains.push({
      id,
      seats: links,
      rest: nm(middle + roll(2)),
      variance: 1,
      min: nm(-2),
      max: nm(1 + roll(3)),
      ...(roll(2) > 0 ? { target: nm(0) } : {}),
    });
    return id;
  };
  for (let unit = 2 + roll(4); unit > 0; unit--) {
    const own = Array.from({ length: 1 + roll(3) }, (_, i) => `u${unit}s${i}`);
    for (const id of own)
      seats.push({
        id,
        job: `u${unit}`,
        offers,
        ...(roll(3) === 0 ? { fitted: { id: "in", adds: nm(9 + roll(6)), variance: 1 } } : {}),
      });
    const ids = own.map((seat, i) =>
      chain([{ seat, sign: -1 }, ...(i > 0 ? [{ seat: own[i - 1] ?? "", sign: 1 as const }] : [])]),
    );
    if (ids.length > 1 && roll(2) > 0)
      relations.push({ below: ids[0] ?? "", above: ids[1] ?? "", by: nm(roll(2)) });
  }
  return { seats, chains, relations, lots };
}

/**
 * Two to four jobs, each with some rings that have nothing to do with each other but are ready together: most are to be ordered, for other money and other days, and a few
 * pieces on the shelf are wanted by several. Who waits decides what it costs.
 */
export function waitingQuestion(seed: number): JointQuestion {
  const roll = dice(seed);
  const lots = Array.from({ length: 2 + roll(2) }, (_, i): Lot => ({ id: `l${i}`, count: 1 + roll(2) }));
  const offers = lots.flatMap(({ id }, i): Offer[] => [
    { id, lot: id, adds: nm(10 + i), variance: 1, scarce: roll(3) },
    { id: `${id} ordered`, adds: nm(10 + i), variance: 1, days: 1 + roll(3), money: 10 * roll(4) },
  ]);
  const [seats, chains]: [Seat[], JointChain[]] = [[], []];
  for (let job = 2 + roll(3); job > 0; job--)
    for (let i = 1 + roll(3); i > 0; i--) {
      const id = `${job} ${i}`;
      // With money of its own, so that it matters who waits.
      const dearer = roll(30);
      const own = offers.map((offer) => ({
        ...offer,
        ...(offer.money === undefined ? {} : { money: offer.money + dearer }),
      }));
      seats.push({ id, job: `${job}`, offers: own });
      const rest = nm(10 + roll(lots.length));
      chains.push({
        id,
        seats: [{ seat: id, sign: -1 }],
        rest,
        variance: 1,
        min: nm(-1 - roll(2)),
        max: nm(1 + roll(2)),
        target: nm(0),
      });
    }
  return { seats, chains, lots };
}

/** Seats that hang together as a job of their own. */
function eachItsJob(question: JointQuestion): JointQuestion {
  const { seats, chains, relations = [] } = question;
  const job = new Map(seats.map(({ id }) => [id, id]));
  const join = (a: string, b: string): void => {
    const [from, to] = [job.get(a), job.get(b) ?? ""];
    for (const [id, one] of job) if (one === from) job.set(id, to);
  };
  const first = (id: string): string => chains.find((chain) => chain.id === id)?.seats[0]?.seat ?? "";
  for (const { seats: links } of chains) for (const { seat } of links) join(seat, links[0]?.seat ?? "");
  for (const { below, above } of relations) join(first(below), first(above));
  return { ...question, seats: seats.map((seat) => ({ ...seat, job: job.get(seat.id) ?? "" })) };
}
