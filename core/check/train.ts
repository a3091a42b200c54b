import { solveRanges, teethDoubt } from "../gears";
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

/** Teeth that go together. */
export const gearSets: Check = {
  reads: ["gearSets"],
  check({ gearSets: all }, _conditions, say) {
    all.forEach((set, i) => {
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
      if (joins[0] === joins[1])
        say(`${path}.joins[1]`, "an element joins two members", "name the other one");
      if (kind === "one-way clutch" && !free)
        say(`${path}.free`, "which way it runs free is not said", 'write "forward" or "backward"');
      if (kind !== "one-way clutch" && free)
        say(`${path}.free`, `a ${kind} holds both ways`, "take it out, or correct `kind`");
      const held = joins.includes(train.held);
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
    book.ranges.forEach(({ applied, braking = [] }, i) => {
      const outside = [...applied, ...braking].find((id) => book.elements.find((e) => e.id === id)?.outside);
      if (outside)
        say(`ranges[${i}]`, `${outside} is outside the ranges`, "take it out here, or its `outside`");
    });
  },
};
