import { ends } from "../reading";
import { seatsOf, takenBy, type Book, type Chain, type Seat } from "../book";
import { thicknessOf } from "../pack";
import { nm } from "../quantity";
import { once, versions, type Check } from "./check";
import { loopFrom } from "./parts";

/** A seat stands in a chain, and what is said of it can be. */
export const seats: Check = {
  reads: ["chains", "packs", "series", "seats"],
  check({ chains, packs, series, seats: all = [] }, _conditions, say) {
    const standing = new Set(
      chains.flatMap(({ links }) => links.flatMap(([, kind, ref]) => (kind === "seat" ? [ref] : []))),
    );
    const used = new Set([
      ...chains.flatMap(({ links }) => links.flatMap(([, kind, ref]) => (kind === "series" ? [ref] : []))),
      ...all.flatMap((seat) => seat.series ?? []),
      ...packs.flatMap(({ grooves = [] }) => grooves.map(({ ring }) => ring)),
    ]);
    series.forEach(({ id, name }, i) => {
      if (!used.has(id))
        say(`series[${i}]`, `no seat takes a ${name}`, "name it in a chain or a seat, or take it out");
    });
    all.forEach(({ id, cut, screw, grooves, first = [], empty, usual, series: of }, i) => {
      const path = `seats[${i}]`;
      if (!standing.has(id))
        say(path, "stands in no chain", `add ["-", "seat", "${id}"] to the chain it moves, or take it out`);
      if (chains.some((chain) => chain.id === id))
        say(
          `${path}.id`,
          "a chain has this name too",
          "a chain’s own seat is called after it: give this one another",
        );
      if (cut && cut.step > cut.most)
        say(`${path}.cut.most`, "less than one step of the machine", "correct one of the two");
      if (screw && screw.tolerance * screw.steps > screw.pitch * screw.lever)
        say(
          `${path}.screw.tolerance`,
          "more than one step of the screw moves",
          "tell a turn in fewer parts, or correct it",
        );
      if (grooves && new Set(grooves.map(({ farther }) => farther)).size < grooves.length)
        say(`${path}.grooves`, "two grooves in one place", "say how much farther from the piston each is");
      if (
        usual !== undefined &&
        !takenBy({ series }, all[i] as Seat)?.sizes.some(({ mark }) => mark === usual)
      )
        say(`${path}.usual`, `it has no size marked "${usual}"`, "write one of its marks");
      if (empty && !of) say(`${path}.empty`, "only what takes a piece can stay empty", "leave it out");
      const round = first.includes(id)
        ? [id, id]
        : loopFrom(id, (one) => all.find((s) => s.id === one)?.first ?? []);
      if (round)
        say(`${path}.first`, `goes round in a circle: ${round.join(" before ")}`, "take one of them out");
    });
    packs.forEach(({ element, stack }, p) =>
      stack.forEach(({ seat, count = 1 }, s) => {
        if (seat === undefined) return;
        const path = `packs[${p}].stack[${s}]`;
        if (count !== 1)
          say(`${path}.count`, "a plate that is chosen is one", "list the others by themselves");
        const own = chains.filter(({ of, kind }) => of === element && kind === "pack clearance");
        if (!own.some(({ links }) => links.some(([, kind, ref]) => kind === "seat" && ref === seat)))
          say(
            `${path}.seat`,
            "its pack’s clearance does not know it",
            `add ["-", "seat", "${seat}"] to its chain`,
          );
      }),
    );
    chains.forEach(({ links }, i) => {
      const named = links.flatMap(([, kind, ref]) => (kind === "seat" ? [ref] : []));
      if (new Set(named).size < named.length)
        say(`chains[${i}].links`, "a seat stands in it twice", "take one of them out");
    });
  },
};

/** More ways than this are not tried: nobody would call an order impossible that so many sizes might meet. */
const TRIED = 200_000;

/** Order relations that some sizes can meet with both results inside, as far as the nominal sizes tell. */
export const ordersMet: Check = {
  reads: ["orders", "chains", "packs", "series", "seats", "traits"],
  check(book, conditions, say) {
    const tell = once(say);
    for (const { unit, words } of versions(book, conditions, ["chains", "packs", "series"]))
      (book.orders ?? []).forEach(([less, , more], i) => {
        const [a, b] = [less, more].map((id) => unit.chains.find((chain) => chain.id === id));
        if (a && b && a !== b && canBeMet(unit, a, b) === false)
          tell(
            `orders[${i}]`,
            `no sizes bring both inside and ${a.name} below ${b.name}${words}`,
            "correct a nominal size, a series, a spec, or turn the relation round",
          );
      });
  },
};

/** @returns null where a size is not stated, or the ways are too many. */
function canBeMet(unit: Book, a: Chain, b: Chain): boolean | null {
  const rest = [a, b].map((chain) => restOf(unit, chain));
  const [low, high] = rest;
  if (low === null || high === null || low === undefined || high === undefined) return null;
  const links = [seatsOf(unit, a), seatsOf(unit, b)];
  const all = [...new Map(links.flat().map((link) => [link.id, link])).values()];
  if (all.reduce((ways, { sizes }) => ways * sizes.length, 1) > TRIED) return null;
  const inside = ({ spec }: Chain, result: number): boolean =>
    spec.map(ends).some(({ min, max }) => result >= min && result <= max);
  const signs = all.map(({ id }) => links.map((of) => of.find((link) => link.id === id)?.sign ?? 0));
  const met = (at: number, x: number, y: number): boolean => {
    const link = all[at];
    if (!link) return x <= y && inside(a, x) && inside(b, y);
    const [p = 0, q = 0] = signs[at] ?? [];
    return link.sizes.some(({ size }) => met(at + 1, x + p * size, y + q * size));
  };
  return met(0, low, high);
}

/** What a chain’s links add up to without its seats; null when one has no nominal size. */
function restOf(unit: Book, { links }: Chain): number | null {
  let sum = 0;
  for (const [sign, kind, ref, nominal] of links) {
    if (kind === "seat" || kind === "series") continue;
    const pack = unit.packs.find(({ element }) => element === ref);
    const size = kind === "stack" ? (pack ? (thicknessOf(pack.stack) ?? undefined) : undefined) : nominal;
    if (size === undefined) return null;
    sum += (sign === "+" ? 1 : -1) * size;
  }
  return nm(sum);
}
