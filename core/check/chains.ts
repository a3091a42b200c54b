import { thicknessOf } from "../pack";
import { compareMeasures, lengthText, measureText, nm, type Nm } from "../quantity";
import { METHODS, ends } from "../reading";
import { isSprung, seatsOf, type Book, limitWords } from "../book";
import type { Chain, ChainLink } from "../book";
import { once, versions, type Check } from "./check";
import { eachOnce, loopFrom } from "./parts";

const shower =
  ({ unit }: Book) =>
  (length: Nm): string =>
    lengthText(length, unit.lengthUnit);

/** What a chain says about itself. */
export const chains: Check = {
  reads: ["unit", "chains", "packs", "series", "seats", "parts", "fasteners"],
  check(book, _conditions, say) {
    const { chains: all } = book;
    all.forEach((chain, i) => {
      const path = `chains[${i}]`;
      chain.spec.forEach(({ min, max, target }, s) => {
        const at = chain.spec.length > 1 ? `${path}.spec[${s}]` : `${path}.spec`;
        if (min !== undefined && max !== undefined && min >= max)
          say(`${at}.max`, "max is not above min", "swap or correct them");
        const known = ends({ min, max });
        if (target !== undefined && (target < known.min || target > known.max))
          say(
            `${at}.target`,
            "the target lies outside",
            `write one that is ${limitWords({ min, max }, book.unit.lengthUnit)}`,
          );
      });
      const always = chain.spec.findIndex(({ when, depth }) => !when && !depth);
      if (always >= 0 && always < chain.spec.length - 1)
        say(
          `${path}.spec[${always + 1}]`,
          "is never used: the one before holds for every version",
          "put those with a `when` first",
        );
      chain.links.forEach(([, kind, ref], j) => {
        const known = KNOWN[kind]?.(book);
        if (known && !known.includes(ref))
          say(
            `${path}.links[${j}][2]`,
            `no ${NAMED[kind] ?? kind} "${ref}"`,
            `use one of: ${known.slice(0, 20).join(", ")}`,
          );
      });
      const pack = chain.kind === "pack clearance" && book.packs.find(({ element }) => element === chain.of);
      const ring = chain.links
        .flatMap(([, kind, ref]) =>
          kind === "series"
            ? [ref]
            : kind === "seat"
              ? (book.seats?.find(({ id }) => id === ref)?.series ?? [])
              : [],
        )
        .find((id) => isSprung(book.series.find((one) => one.id === id)));
      const closedBy = book.series.find(({ id }) => id === ring) ?? null;
      if (pack && pack.grooves?.length && ring !== undefined && isSprung(closedBy)) {
        const rings = pack.grooves.map((groove) => groove.ring);
        if (!rings.includes(ring))
          say(
            `${path}.links`,
            `${ring} closes it, and the pack’s groove takes ${rings.join(" or ")}`,
            "correct the chain, or the groove",
          );
      }
      const group = book.fasteners?.find(({ id }) => id === chain.read.bolts?.group);
      if (group && chain.read.bolts) {
        if (chain.read.bolts.count > group.count)
          say(
            `${path}.read.bolts.count`,
            `${chain.read.bolts.count} bolts of a group of ${group.count}`,
            "correct the count",
          );
        if (group.torque && compareMeasures(chain.read.bolts.torque, group.torque) > 0)
          say(
            `${path}.read.bolts.torque`,
            "tighter than they are ever tightened",
            `write ${measureText(group.torque)} or less`,
          );
      }
      if (chain.links.filter(([, kind]) => kind === "series").length > 1)
        say(
          `${path}.links`,
          "two series close it",
          "a chain has one seat of its own: name the others as seats",
        );
      if (chain.kind === "pack clearance") {
        if (!chain.of) say(`${path}.of`, "which pack is it of?", "name the pack's element");
        if (!chain.read.with.some((way) => METHODS.some((method) => method === way)))
          say(`${path}.read.with`, "no way a clutch pack is read", `use one of: ${METHODS.join(", ")}`);
      }
      if (chain.soaking && chain.soaking.amount > 0)
        say(`${path}.soaking.amount`, "facings swell: soaking closes a pack", "write it with a minus");
      if (chain.bedding && chain.bedding.amount < 0)
        say(`${path}.bedding.amount`, "bedding-in opens a pack", "write it with a plus");
      eachOnce(chain.read.each, `${path}.read`, chain.asFound, say);
      if (chain.read.each && chain.kind === "pack clearance")
        say(`${path}.read.each`, "a pack has one clearance", "leave it out");
      if (chain.read.places && chain.read.points && chain.read.points < chain.read.places.length)
        say(`${path}.read.points`, "fewer points than places", "count the points at all places");
    });
  },
};

const KNOWN: Partial<Record<ChainLink[1], (book: Book) => string[]>> = {
  stack: ({ packs }) => packs.map(({ element }) => element),
  series: ({ series }) => series.map(({ id }) => id),
  seat: ({ seats = [] }) => seats.map(({ id }) => id),
  part: ({ parts }) => parts.map(({ id }) => id),
};
const NAMED: Partial<Record<ChainLink[1], string>> = { stack: "pack" };

/** Every version has a spec for a chain that it has, and its nominal sizes can be brought inside. */
export const closing: Check = {
  reads: ["unit", "chains", "packs", "series", "seats", "traits"],
  check(book, conditions, say) {
    const tell = once(say);
    const show = shower(book);
    for (const { unit, words } of versions(book, conditions, ["chains", "packs", "series"])) {
      for (const chain of unit.chains) {
        const path = `chains[${book.chains.findIndex(({ id }) => id === chain.id)}]`;
        if (chain.spec.length === 0) {
          tell(`${path}.spec`, `no spec holds${words}`, "add one, or put the `when` on the chain");
          continue;
        }
        const results = nominalResults(unit, chain);
        if (!results || results.length === 0) continue;
        for (const limits of chain.spec) {
          const { min, max } = ends(limits);
          if (min >= max) continue;
          if (results.some((result) => result >= min && result <= max)) continue;
          const [low, high] = [Math.min(...results), Math.max(...results)].map((v) => show(nm(v)));
          tell(
            `${path}.links`,
            results.length > 1
              ? `no size of its series brings it inside${words}: ${low} to ${high} against ${limitWords(limits, book.unit.lengthUnit)}`
              : `its nominal sizes give ${low}${words}, outside ${limitWords(limits, book.unit.lengthUnit)}`,
            "correct a nominal size, a count, the spec or the series",
          );
        }
      }
    }
  },
};

/** What a chain's nominal sizes add up to, with each size of its series; null when a size is not stated. */
function nominalResults(unit: Book, chain: Chain): number[] | null {
  let results = [0];
  const seats = new Map(seatsOf(unit, chain).map((seat) => [seat.id, seat]));
  for (const [sign, kind, ref, nominal] of chain.links) {
    const seat = seats.get(kind === "series" ? chain.id : ref);
    const sizes =
      kind === "seat" || kind === "series"
        ? (seat?.sizes.map(({ size }) => size) ?? null)
        : sizesOf(unit, kind, ref, nominal);
    if (!sizes) return null;
    // Of many ways that come to the same one is enough.
    results = [
      ...new Set(results.flatMap((sum) => sizes.map((size) => (sign === "+" ? sum + size : sum - size)))),
    ];
  }
  return results;
}

function sizesOf(unit: Book, kind: ChainLink[1], ref: string, nominal?: Nm): readonly number[] | null {
  if (kind === "stack") {
    const pack = unit.packs.find(({ element }) => element === ref);
    const sum = pack ? thicknessOf(pack.stack) : null;
    return sum === null ? null : [sum];
  }
  return nominal === undefined ? null : [nominal];
}

/** Order relations that some pair of allowed results can meet. */
export const orders: Check = {
  reads: ["unit", "orders", "chains"],
  check(book, _conditions, say) {
    const { orders: all = [], chains: of } = book;
    const show = shower(book);
    all.forEach(([less, , more], i) => {
      const [a, b] = [less, more].map((id) => of.find((chain) => chain.id === id));
      if (!a || !b) return;
      if (a === b) return say(`orders[${i}]`, "a chain against itself", "name the other one");
      const least = Math.min(...a.spec.map((one) => ends(one).min));
      const most = Math.max(...b.spec.map((one) => ends(one).max));
      const round = loopFrom(less, (id) => all.filter(([from]) => from === id).map(([, , to]) => to));
      if (round) say(`orders[${i}]`, `goes round in a circle: ${round.join(" ≤ ")}`, "take one of them out");
      if (least > most)
        say(
          `orders[${i}]`,
          `${a.name} is at least ${show(nm(least))} and ${b.name} at most ${show(nm(most))}: it can never be met`,
          "turn the relation round, or correct a spec",
        );
    });
  },
};
