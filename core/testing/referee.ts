import { TERMS, type JointQuestion, type Offer, type Seat, type Term, type Values } from "../select";
import { FARTHEST, farness, HOPELESS, unlikeliness } from "../select/joint/options";

/** What is in each seat: an offer of its own, or nothing. */
export type Picks = ReadonlyMap<string, Offer | null>;

/** All that a seat may have: nothing, what is in, or what it is offered. */
export function choicesOf({ fitted, offers, pinned, barred = [] }: Seat): (Offer | null)[] {
  const all = [
    ...(fitted ? [fitted] : []),
    ...offers.filter(({ lot }) => lot === undefined || lot !== fitted?.lot),
  ];
  return [null, ...all.filter(({ id }) => (pinned === undefined || id === pinned) && !barred.includes(id))];
}

/** What a plan comes to, term by term, worked out the plain way. */
export function valuesOf({ seats, chains, relations = [] }: JointQuestion, picks: Picks): Values {
  const values = Object.fromEntries(TERMS.map((term) => [term, 0])) as Values;
  const means = new Map<string, number | null>();
  const seatOf = new Map(seats.map((seat) => [seat.id, seat]));
  for (const chain of chains) {
    let mean: number | null = chain.rest;
    let variance = chain.variance;
    for (const { seat, sign } of chain.seats) {
      const offer = picks.get(seat);
      const fitted = seatOf.get(seat)?.fitted;
      mean = mean === null || !offer ? null : mean + sign * offer.adds;
      if (offer && offer !== fitted) variance += offer.variance + (fitted?.variance ?? 0);
    }
    means.set(chain.id, mean);
    if (mean === null || mean < chain.min || mean > chain.max) values.outside++;
    values.chance += mean === null ? HOPELESS : unlikeliness(mean, variance, chain.scatter ?? 0, chain);
    values.target += mean === null ? FARTHEST : farness(mean, chain);
  }
  for (const { below, above, by } of relations) {
    const [low, high] = [means.get(below) ?? null, means.get(above) ?? null];
    if (low === null || high === null || low + by > high) values.order++;
  }
  const days = new Map<string, number>();
  for (const { id, job = "", fitted } of seats) {
    const offer = picks.get(id) ?? null;
    if (!offer || offer !== fitted) values.changed++;
    if (!offer) continue;
    values.money += offer.money ?? 0;
    values.scarce += offer.scarce ?? 0;
    days.set(job, Math.max(days.get(job) ?? 0, offer.days ?? 0));
  }
  values.ready = [...days.values()].reduce((a, b) => a + b, 0);
  return values;
}

/** Whether no lot gives more than it holds. */
export function isInStock({ lots }: JointQuestion, picks: Picks): boolean {
  const left = new Map(lots.map(({ id, count }) => [id, count]));
  for (const offer of picks.values()) {
    if (offer?.lot === undefined) continue;
    const one = (left.get(offer.lot) ?? 0) - 1;
    if (one < 0) return false;
    left.set(offer.lot, one);
  }
  return true;
}

export const inOrder = (question: JointQuestion, values: Values): number[] =>
  (question.terms ?? TERMS).map((term) => values[term]);

/** The best by trying everything. */
export function triedAll(question: JointQuestion): number[] {
  const picks = new Map<string, Offer | null>();
  let best: number[] | null = null;
  const go = (i: number): void => {
    const seat = question.seats[i];
    if (!seat) {
      const values = inOrder(question, valuesOf(question, picks));
      if (!best || isBefore(values, best)) best = values;
      return;
    }
    for (const offer of choicesOf(seat)) {
      picks.set(seat.id, offer);
      if (isInStock(question, picks)) go(i + 1);
      picks.delete(seat.id);
    }
  };
  go(0);
  return best ?? [];
}

const isBefore = (a: readonly number[], b: readonly number[]): boolean => {
  const at = a.findIndex((one, i) => one !== b[i]);
  return at >= 0 && (a[at] ?? 0) < (b[at] ?? 0);
};

/** Solves a program in CPLEX's text format. */
export type Solver = (program: string) => { status: string; value: number };

/**
 * The best by integer programming: a variable of zero or one for every way to fill seats that hang together, lots as constraints, and a day for each job that none of
 * its pieces may come after. Term by term, each held at its best while the next is made small.
 */
export function programmed(question: JointQuestion, solve: Solver): number[] {
  const program = programOf(question);
  const held: string[] = [];
  return (question.terms ?? TERMS).map((term) => {
    const objective = program.objective(term);
    // Nothing to choose in it: it is what it is.
    if (objective.parts.length === 0) return objective.fixed;
    const { status, value } = solve(program.text(objective.parts, held));
    if (status !== "Optimal") throw new Error(`the referee says ${status}`);
    held.push(`${sumOf(objective.parts)} <= ${Math.round(value)}`);
    return Math.round(value) + objective.fixed;
  });
}

type Part = [times: number, variable: string];
const sumOf = (parts: readonly Part[]): string =>
  parts.map(([times, name]) => `${times < 0 ? "-" : "+"} ${Math.abs(times)} ${name}`).join("\n ");

function programOf(question: JointQuestion): {
  objective: (term: Term) => { parts: Part[]; fixed: number };
  text: (objective: readonly Part[], held: readonly string[]) => string;
} {
  const groups = hangingTogether(question);
  const ways = groups.flatMap((seats, g) => {
    const inside = new Set(seats.map(({ id }) => id));
    const chains = question.chains.filter(({ seats: links }) => links.some(({ seat }) => inside.has(seat)));
    const names = new Set(chains.map(({ id }) => id));
    const part: JointQuestion = {
      ...question,
      seats,
      chains,
      relations: (question.relations ?? []).filter(({ below }) => names.has(below)),
    };
    const all: Picks[] = seats.reduce<Map<string, Offer | null>[]>(
      (some, seat) =>
        some.flatMap((picks) => choicesOf(seat).map((offer) => new Map([...picks, [seat.id, offer]]))),
      [new Map<string, Offer | null>()],
    );
    const known = all
      .filter((picks) => isInStock(question, picks))
      .map((picks) => ({ picks, values: valuesOf(part, picks), lots: lotsOf(picks) }));
    // The same pieces of the shelf for nothing better: nobody misses it.
    return known
      .filter(
        (one, i) =>
          !known.some(
            (other, k) =>
              k !== i &&
              other.lots === one.lots &&
              TERMS.every((term) => other.values[term] <= one.values[term]) &&
              (k < i || TERMS.some((term) => other.values[term] < one.values[term])),
          ),
      )
      .map(({ picks, values }, w) => ({
        g,
        name: `x${g}_${w}`,
        picks,
        job: seats[0]?.job ?? "",
        values,
      }));
  });
  const jobs = [...new Set(ways.map(({ job }) => job))];
  const constraints: string[] = groups.map(
    (_, g) => `${sumOf(ways.filter((way) => way.g === g).map(({ name }) => [1, name]))} = 1`,
  );
  for (const { id, count } of question.lots) {
    const parts = ways.flatMap(({ name, picks }): Part[] => {
      const times = [...picks.values()].filter((offer) => offer?.lot === id).length;
      return times > 0 ? [[times, name]] : [];
    });
    if (parts.reduce((sum, [times]) => sum + times, 0) > count)
      constraints.push(`${sumOf(parts)} <= ${count}`);
  }
  for (const { name, job, values } of ways)
    if (values.ready > 0) constraints.push(`d${jobs.indexOf(job)} - ${values.ready} ${name} >= 0`);
  const isWaiting = jobs.map((job) => ways.some((way) => way.job === job && way.values.ready > 0));
  return {
    objective: (term) => {
      if (term === "ready")
        return { parts: jobs.flatMap((_, j): Part[] => (isWaiting[j] ? [[1, `d${j}`]] : [])), fixed: 0 };
      // What every way of a group has is no choice.
      const least = groups.map((_, g) =>
        Math.min(...ways.filter((way) => way.g === g).map(({ values }) => values[term])),
      );
      const parts = ways.flatMap(({ g, name, values }): Part[] => {
        const more = values[term] - (least[g] ?? 0);
        return more > 0 ? [[more, name]] : [];
      });
      return { parts, fixed: least.reduce((a, b) => a + b, 0) };
    },
    text: (objective, held) =>
      [
        "Minimize",
        ` obj: ${sumOf(objective)}`,
        "Subject To",
        ...[...constraints, ...held].map((line, i) => ` c${i}: ${line}`),
        "Bounds",
        ...jobs.map((_, j) => ` d${j} >= 0`),
        "Binary",
        ...ways.map(({ name }) => ` ${name}`),
        "End",
      ].join("\n"),
  };
}

const lotsOf = (picks: Picks): string =>
  [...picks.values()]
    .flatMap((offer) => offer?.lot ?? [])
    .sort()
    .join(" ");

/** Seats that share a figure or a relation, set by set. */
function hangingTogether({ seats, chains, relations = [] }: JointQuestion): Seat[][] {
  const tied = [
    ...chains.map((chain) => chain.seats.map(({ seat }) => seat)),
    ...relations.map(({ below, above }) =>
      chains
        .filter(({ id }) => id === below || id === above)
        .flatMap((chain) => chain.seats.map(({ seat }) => seat)),
    ),
  ];
  let sets: Set<string>[] = seats.map(({ id }) => new Set([id]));
  for (const names of tied) {
    const [some, others] = [
      sets.filter((set) => names.some((name) => set.has(name))),
      sets.filter((set) => !names.some((name) => set.has(name))),
    ];
    sets = [...others, new Set(some.flatMap((set) => [...set]))];
  }
  return sets.map((set) => seats.filter(({ id }) => set.has(id)));
}
