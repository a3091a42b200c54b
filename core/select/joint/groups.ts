import { Joined } from "./joined";
import { orderOf, tableOf, type Group, type GroupSeat, type OfferTable } from "./options";
import type { JointQuestion, Offer, Seat } from "./question";

/** Places by name, each name once. */
function placesOf(what: string, all: readonly { id: string }[]): Map<string, number> {
  const places = new Map<string, number>();
  for (const [i, { id }] of all.entries()) {
    if (places.has(id)) throw new RangeError(`two ${what} are called ${id}`);
    places.set(id, i);
  }
  return places;
}
function placeOf(places: ReadonlyMap<string, number>, what: string, id: string): number {
  const place = places.get(id);
  if (place === undefined) throw new RangeError(`no ${what} is called ${id}`);
  return place;
}

/** Seats in groups, each with its chains and relations. */
export function groupsOf({ seats, chains, relations = [], lots }: JointQuestion): Group[] {
  const seatAt = placesOf("seats", seats);
  const chainAt = placesOf("chains", chains);
  const lotAt = placesOf("lots", lots);
  const joined = new Joined(seats.length);
  const first: number[] = chains.map(({ id, seats: links }) => {
    const [one, ...more] = links.map(({ seat }) => placeOf(seatAt, "seat", seat));
    if (one === undefined) throw new RangeError(`${id} has no seat`);
    for (const other of more) joined.join(one, other);
    return one;
  });
  const ends = relations.map(({ below, above, by }) => {
    const [low, high] = [placeOf(chainAt, "chain", below), placeOf(chainAt, "chain", above)];
    joined.join(first[low] ?? 0, first[high] ?? 0);
    return { low, high, by };
  });
  const groups = new Map<number, Group & { places: Map<number, number>; chainPlaces: Map<number, number> }>();
  const cache = new Map<readonly Offer[], OfferTable>();
  for (const [i, seat] of seats.entries()) {
    const top = joined.of(i);
    const group = groups.get(top) ?? {
      seats: [],
      chains: [],
      relations: [],
      job: seat.job ?? "",
      order: [],
      places: new Map<number, number>(),
      chainPlaces: new Map<number, number>(),
    };
    groups.set(top, group);
    if (group.job !== (seat.job ?? ""))
      throw new RangeError(`${seat.id} shares a figure with another job’s seat`);
    group.places.set(i, group.seats.length);
    group.seats.push(groupSeat(seat, i, lotAt, cache));
  }
  for (const [i, chain] of chains.entries()) {
    const group = groups.get(joined.of(first[i] ?? 0));
    if (!group) continue;
    const at = chain.seats.map(({ seat }) => group.places.get(seatAt.get(seat) ?? -1) ?? 0);
    if (new Set(at).size < at.length) throw new RangeError(`${chain.id} has a seat twice`);
    group.chainPlaces.set(i, group.chains.length);
    group.chains.push({ chain, at, sign: chain.seats.map(({ sign }) => sign), known: new Map() });
  }
  for (const { low, high, by } of ends) {
    const group = groups.get(joined.of(first[low] ?? 0));
    group?.relations.push({
      below: group.chainPlaces.get(low) ?? 0,
      above: group.chainPlaces.get(high) ?? 0,
      by,
    });
  }
  for (const group of groups.values()) group.order = orderOf(group.seats.length, group.chains);
  return [...groups.values()];
}

function groupSeat(
  seat: Seat,
  at: number,
  lotAt: ReadonlyMap<string, number>,
  cache: Map<readonly Offer[], OfferTable>,
): GroupSeat {
  const lotOf = ({ lot }: Offer): number => (lot === undefined ? -1 : placeOf(lotAt, "lot", lot));
  const { fitted = null, offers } = seat;
  const table = cache.get(offers) ?? tableOf(offers, lotOf);
  cache.set(offers, table);
  const barred = barredIn(seat);
  // What is in is not offered a second time as what another seat could have.
  return { seat: at, table, fitted, fittedLot: fitted ? lotOf(fitted) : -1, barred };
}

const NONE: ReadonlySet<number> = new Set();

/** Places among a seat's offers, and after them what is in, that may not be picked. */
function barredIn({ id: seat, fitted, offers, pinned, barred = [] }: Seat): ReadonlySet<number> {
  if (pinned === undefined && barred.length === 0) return NONE;
  const all = [...offers.map(({ id }) => id), ...(fitted ? [fitted.id] : [])];
  for (const name of pinned === undefined ? barred : [...barred, pinned])
    if (!all.includes(name)) throw new RangeError(`nothing that ${seat} is offered is called ${name}`);
  const isBarred = (id: string): boolean => barred.includes(id) || (pinned !== undefined && id !== pinned);
  return new Set(all.flatMap((id, place) => (isBarred(id) ? [place] : [])));
}

/** Which groups could ever want the same piece: each with the place of the first of them. */
export function marketsOf(groups: readonly Group[]): number[] {
  const joined = new Joined(groups.length);
  const seen = new Set<OfferTable>();
  const reach = (lot: number, by: number): void => {
    if (lot >= 0) joined.meet(lot, by);
  };
  for (const [i, { seats }] of groups.entries())
    for (const { table, fittedLot } of seats) {
      reach(fittedLot, i);
      joined.meet(table, i);
      if (!seen.has(table)) for (const lot of table.lot) reach(lot, i);
      seen.add(table);
    }
  return groups.map((_, i) => joined.of(i));
}

/** Groups that have nothing to do with each other are looked at apart: those that could want the same piece or are ready together stay together. Places, in order. */
export function apartOf(groups: readonly Group[]): number[][] {
  const joined = new Joined(groups.length);
  for (const [i, first] of marketsOf(groups).entries()) {
    joined.join(i, first);
    joined.meet(groups[i]?.job, i);
  }
  return joined.sets();
}
