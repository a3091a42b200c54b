import { isLastResort } from "../book";
import type { Piece } from "../chain";
import type { Job } from "../fact";
import { nm, type Nm } from "../quantity";
import { ends, type Estimate, type Spec } from "../reading";
import {
  chooseJointly,
  FITTED,
  Offers,
  termsWith,
  type ChooseFirst,
  thickness,
  type JointChain,
  type JointQuestion,
  type Offered,
  type Relation,
  type Seat,
  type Stock,
  type Target,
} from "../select";
import { standsNow, type Now, type SeatState, type Worksheet } from "./worksheet";

/** One seat that something can be chosen for now, with the figures it moves. */
export interface OpenSeat extends SeatState {
  sheets: readonly Worksheet[];
  fitted: Piece;
}
/** The seats of a unit that something can be chosen for now, as one question. */
export interface Together {
  question: JointQuestion;
  /** The seats in it that a person chooses for, by their ids. */
  seats: ReadonlyMap<string, OpenSeat>;
  /** The figures in it, by their ids, with what each comes to now. */
  sheets: ReadonlyMap<string, { sheet: Worksheet; now: Estimate }>;
  /** By the id of the offer; what is in now is `FITTED`, of its own seat. */
  offers: ReadonlyMap<string, Offered>;
  /** Figures in scope that still wait for readings, or for what was found in. */
  waiting: Worksheet[];
}

/** What a question is made of. */
export interface Unit {
  job: Job;
  /** Of every chain that something is chosen for. */
  sheets: readonly Worksheet[];
  /** The book’s relations between results. */
  orders: readonly (readonly [string, string, string])[];
  /** Of all their series. */
  stock: readonly Stock[];
  /** What the house puts first; the soonest unless it says otherwise. */
  first?: ChooseFirst;
}

/**
 * What can be chosen together now: from every figure that is open the seats that move it, every other figure these move, and those it stands in
 * an order with. A seat is in only where all the figures it moves are known with what is in it, so that nothing is chosen for one at the cost of another.
 * Last resorts – metal taken off, another groove, a plate that is not like its fellows – are in the question only where nothing else brings all inside.
 *
 * @param of begins with these figures alone, open or not; with all that are open where it is left out.
 */
export function together(unit: Unit, of?: readonly string[]): Together {
  const usual = within(unit, of, false);
  const isLast = (sheet: Worksheet): boolean => sheet.seats.some(({ link }) => isLastResort(link));
  if (![...usual.sheets.values()].some(({ sheet }) => isLast(sheet))) return usual;
  return chooseJointly(usual.question).values.outside === 0 ? usual : within(unit, of, true);
}

/** The same with every seat of these figures, whatever it takes: what somebody looks at that seat for. */
export const togetherAll = (unit: Unit, of: readonly string[]): Together => within(unit, of, true);

/** @param all whether last resorts are in the question as well. */
function within(
  { job, sheets, orders, stock, first = "ready" }: Unit,
  of: readonly string[] | undefined,
  all: boolean,
): Together {
  const asked = sheets.filter(({ stage }) => stage.at !== "quiet" && stage.at !== "signed");
  const standing = new Map(asked.map((sheet) => [sheet.applied.chain.id, standsNow(job, sheet)]));
  const byId = new Map(asked.map((sheet) => [sheet.applied.chain.id, sheet]));
  const ready = new Map(
    [...readySeats(asked, standing)].filter(([, { link }]) => all || !isLastResort(link)),
  );
  const broken = brokenOrders(orders, standing);
  const isOpen = ({ applied: { chain }, stage }: Worksheet): boolean =>
    stage.at === "choose" || stage.at === "read" || broken.has(chain.id);
  const begun = asked.filter((sheet) => (of ? of.includes(sheet.applied.chain.id) : isOpen(sheet)));
  const [seats, chains] = reached(begun, byId, ready, standing, of ? [] : orders);
  const shelf = new Offers(stock);
  const known = [...chains].flatMap((id) => {
    const [sheet, now] = [byId.get(id), standing.get(id)];
    return sheet && now ? [{ sheet, now: now.estimate }] : [];
  });
  const still: Seat[] = [];
  const question: JointQuestion = {
    seats: inSetOrder([...seats.values()]).map((seat) => shelf.seat(seat.link, seat.fitted, seat.isTrial)),
    chains: known.map(({ sheet, now }) => {
      const moved = chainOf(sheet, now, seats);
      if (moved.seats.length > 0) return moved;
      // A figure that nothing here moves, and another must keep to.
      const id = `${sheet.applied.chain.id} as it is`;
      still.push({ id, fitted: { id: FITTED, adds: nm(0), variance: 0 }, offers: [] });
      return { ...moved, seats: [{ seat: id, sign: 1 }] };
    }),
    relations: relationsOf(orders, new Set(known.map(({ sheet }) => sheet.applied.chain.id))),
    lots: shelf.lots,
    terms: termsWith(first),
  };
  const inQuestion = new Set([...seats.values()].flatMap((seat) => seat.sheets));
  return {
    question: { ...question, seats: [...question.seats, ...still] },
    seats,
    sheets: new Map(known.map((one) => [one.sheet.applied.chain.id, one])),
    offers: shelf.offered,
    waiting: asked.filter(
      (sheet) => sheet.stage.at !== "done" && sheet.stage.at !== "astray" && !inQuestion.has(sheet),
    ),
  };
}

/** Seats after those the book sets before them; else as they come. */
function inSetOrder(seats: readonly OpenSeat[]): OpenSeat[] {
  const done: OpenSeat[] = [];
  const add = (seat: OpenSeat, above: readonly OpenSeat[] = []): void => {
    if (done.includes(seat) || above.includes(seat)) return;
    for (const id of seat.link.seat?.first ?? []) {
      const before = seats.find(({ link }) => link.id === id);
      if (before) add(before, [...above, seat]);
    }
    done.push(seat);
  };
  for (const seat of seats) add(seat);
  return done;
}

type Standing = ReadonlyMap<string, Now | null>;

/** Seats whose piece is known, and every figure they move in scope as well. */
function readySeats(asked: readonly Worksheet[], standing: Standing): Map<string, OpenSeat> {
  const all = new Map<string, { state: SeatState; sheets: Worksheet[] }>();
  for (const sheet of asked)
    for (const state of sheet.seats) {
      const known = all.get(state.link.id) ?? { state, sheets: [] };
      all.set(state.link.id, known);
      known.sheets.push(sheet);
    }
  return new Map(
    [...all].flatMap(([id, { state, sheets }]) => {
      const { fitted, link } = state;
      const isKnown = fitted && thickness(fitted, link.tolerance);
      const stand = sheets.every((sheet) => standing.get(sheet.applied.chain.id));
      return isKnown && stand ? [[id, { ...state, fitted, sheets }]] : [];
    }),
  );
}

/** Figures of relations that do not hold as they are read now. */
function brokenOrders(orders: Unit["orders"], standing: Standing): Set<string> {
  return new Set(
    orders.flatMap(([below, , above]) => {
      const [low, high] = [standing.get(below), standing.get(above)];
      return low && high && low.estimate.mean > high.estimate.mean ? [below, above] : [];
    }),
  );
}

/** From some figures on: the seats that move them, all those move, and what these stand in an order with. */
function reached(
  begun: readonly Worksheet[],
  byId: ReadonlyMap<string, Worksheet>,
  ready: ReadonlyMap<string, OpenSeat>,
  standing: Standing,
  orders: Unit["orders"],
): [seats: Map<string, OpenSeat>, chains: Set<string>] {
  const seats = new Map<string, OpenSeat>();
  const chains = new Set<string>();
  const open = begun.filter(({ applied: { chain } }) => standing.get(chain.id));
  for (let sheet = open.shift(); sheet; sheet = open.shift()) {
    const { id } = sheet.applied.chain;
    if (chains.has(id)) continue;
    const moving = sheet.seats.flatMap(({ link }) => ready.get(link.id) ?? []);
    // Nothing here moves it, and it is in no order: it has no place in the question.
    if (moving.length === 0 && !orders.some(([a, , b]) => a === id || b === id)) continue;
    chains.add(id);
    for (const seat of moving) {
      seats.set(seat.link.id, seat);
      open.push(...seat.sheets);
    }
    for (const [below, , above] of orders) {
      const other = below === id ? above : above === id ? below : null;
      const one = other === null ? undefined : byId.get(other);
      if (one && standing.get(one.applied.chain.id)) open.push(one);
    }
  }
  return [seats, chains];
}

const relationsOf = (orders: Unit["orders"], known: ReadonlySet<string>): Relation[] =>
  orders.flatMap(([below, , above]) =>
    known.has(below) && known.has(above) ? [{ below, above, by: nm(0) }] : [],
  );

/** A figure as its seats move it, from what it comes to now less what they add. */
function chainOf(
  { applied, target, seats: of }: Worksheet,
  now: Estimate,
  seats: ReadonlyMap<string, OpenSeat>,
): JointChain {
  const { chain, spec } = applied;
  const moved = of.flatMap(({ link }) => {
    const seat = seats.get(link.id);
    const is = seat && thickness(seat.fitted, link.tolerance);
    return is ? [{ seat: link.id, sign: link.sign, adds: is.value }] : [];
  });
  return jointChain(chain.id, moved, now, spec, target);
}

/**
 * A figure of the question.
 *
 * @param moved its seats, with what is in each now.
 * @param now what it comes to with that.
 */
export function jointChain(
  id: string,
  moved: readonly { seat: string; sign: 1 | -1; adds: Nm }[],
  now: Estimate,
  spec: Spec,
  target: Target,
): JointChain {
  return {
    id,
    seats: moved.map(({ seat, sign }) => ({ seat, sign })),
    rest: nm(moved.reduce<number>((rest, { sign, adds }) => rest - sign * adds, now.mean)),
    variance: Math.round(now.u ** 2),
    scatter: now.components.reduce((sum, { u, dof }) => sum + (dof === Infinity ? 0 : u ** 4 / dof), 0),
    ...ends(spec),
    ...(target.kind === "at" ? { target: target.length } : {}),
  };
}
