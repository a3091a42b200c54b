import { membersOf, pinionsCollide, solveRanges, teethDoubt } from "../gears";
import type { Book, GearSet, Range } from "../book";
import { once, versions, type Check } from "./check";

export const stations: Check = {
  reads: ["stations"],
  check({ stations: all }, _conditions, say) {
    all.forEach(({ from, to }, i) => {
      if (from >= to)
        say(`stations[${i}].to`, "a station ends where it begins", "make `to` larger than `from`");
    });
  },
};

/** What the trade calls a unit by: an automatic has planetary gears and no pulleys, a CVT has pulleys, a dual-clutch has gear pairs and forks. */
export const family: Check = {
  reads: ["unit", "gearSets", "elements"],
  check({ unit, gearSets: all, elements: held }: Book, _conditions, say) {
    // Of a unit whose gears nobody has written down yet its name alone is known.
    if (all.length === 0) return;
    const has = (kind: GearSet["kind"]): boolean => all.some((set) => set.kind === kind);
    const planetary = has("simple") || has("double-pinion");
    const synchronised = held.some(({ kind }) => kind === "synchroniser");
    const seems: Record<string, string | false> = {
      automatic:
        (has("pulley pair") && "its ratio comes from pulleys") ||
        (!planetary && synchronised && "its gears are engaged by synchronisers"),
      cvt: !has("pulley pair") && "it has no pulleys",
      "dual-clutch": !(has("gear pair") && synchronised) && "it has no gear pairs with synchronisers",
    };
    const not = seems[unit.family];
    if (not) say("unit.family", `${unit.family}, and ${not}`, "correct the family, or the gear sets");
  },
};

/** Teeth that go together. */
export const gearSets: Check = {
  reads: ["gearSets"],
  check({ gearSets: all }, _conditions, say) {
    all.forEach((set, i) => {
      const members = membersOf(set);
      const twice = members.find((member, j) => members.indexOf(member) !== j);
      if (twice) say(`gearSets[${i}]`, `${twice} is in it twice`, "name a member for each of its gears");
      if (set.kind === "pulley pair" && set.low <= set.high)
        say(
          `gearSets[${i}].low`,
          "the low end is not the lower one: it turns the primary more often for one turn of the secondary",
          "swap `low` and `high`",
        );
      const collide = pinionsCollide(set);
      if (collide) say(`gearSets[${i}].pinions`, collide, "count pinions and teeth again");
      const doubt = teethDoubt(set);
      if (doubt)
        say(`gearSets[${i}]`, doubt, "count the teeth again; corrected gears may be a tooth off", true);
    });
  },
};

export const elements: Check = {
  reads: ["elements", "train", "packs"],
  check({ elements: all, train, packs }, _conditions, say) {
    const roles = [train.input, train.output, train.held];
    if (new Set(roles).size < 3)
      say("train", "input, output and held member are not three", "name three different members");
    all.forEach(({ id, kind, joins, free }, i) => {
      const path = `elements[${i}]`;
      if (joins && joins[0] === joins[1])
        say(`${path}.joins[1]`, "an element joins two members", "name the other one");
      if (kind === "one-way clutch" && !free)
        say(`${path}.free`, "which way it runs free is not said", 'write "forward" or "backward"');
      if (kind !== "one-way clutch" && free)
        say(`${path}.free`, `a ${kind} holds both ways`, "take it out, or correct `kind`");
      const held = joins ? joins.includes(train.held) : kind === "brake" || kind === "band";
      if (kind === "clutch" && held)
        say(`${path}.kind`, `what joins a member to ${train.held} is a brake`, 'write "brake" or "band"');
      if ((kind === "brake" || kind === "band") && !held)
        say(
          `${path}.kind`,
          `a ${kind} joins a member to ${train.held}`,
          'write "clutch", or correct `joins`',
        );
      const pack = packs.findIndex(({ element }) => element === id);
      if (pack >= 0 && kind !== "clutch" && kind !== "brake")
        say(`packs[${pack}].element`, `${id} is a ${kind} and has no plates`, "name a clutch or a brake");
    });
  },
};

/** The listed ratios come out of the tooth counts, in every version. */
export const ranges: Check = {
  reads: ["members", "gearSets", "elements", "ranges", "train"],
  check(book, conditions, say) {
    const tell = once(say);
    for (const { unit, words } of versions(book, conditions, ["gearSets", "elements", "ranges"])) {
      for (const { range, fault } of solveRanges(unit)) {
        if (!fault) continue;
        const i = book.ranges.findIndex(({ id }) => id === range.id);
        tell(
          `ranges[${i}]`,
          `range ${range.id}: ${fault}${words}`,
          "correct the applied elements, the ratio, or the tooth counts; `key -- gears` shows every speed",
        );
      }
    }
    // The same with other engine braking, or with the ratio held by hand, is a range of its own.
    const doing = ({ applied, braking = [], ratio }: Range): string =>
      [applied.toSorted().join(), braking.toSorted().join(), ratio].join(" ");
    const moves = book.gearSets.some(({ kind }) => kind === "pulley pair");
    book.ranges.forEach((range, i) => {
      const { id, applied, braking = [] } = range;
      const twin = book.ranges.findIndex((other) => doing(other) === doing(range));
      if (twin < i && !moves)
        say(
          `ranges[${i}].applied`,
          `range ${id} applies what range ${book.ranges[twin]?.id} does`,
          "correct one of the two",
        );
      const outside = [...applied, ...braking].find((id) => book.elements.find((e) => e.id === id)?.outside);
      if (outside)
        say(`ranges[${i}]`, `${outside} is outside the ranges`, "take it out here, or its `outside`");
    });
  },
};
