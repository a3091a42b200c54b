import type { Condition } from "../shape";
import type { Check } from "./check";

const ownerOf = ({ path }: Condition): string => path.replace(/\.?when$/, "");

/** A `when` names traits and values that exist, and together with those around it some configuration meets it. */
export const conditions: Check = {
  reads: ["traits"],
  check({ traits }, met, say) {
    traits.forEach(({ values }, i) => {
      if (Object.keys(values).length < 2)
        say(`traits[${i}].values`, "a trait with one value tells nothing apart", "give at least two values");
    });
    for (const condition of met) {
      for (const [trait, values] of Object.entries(condition.when)) {
        const known = traits.find(({ id }) => id === trait);
        const path = `${condition.path}.${trait}`;
        if (!known) {
          say(path, `no trait "${trait}"`, `use one of: ${traits.map(({ id }) => id).join(", ")}`);
          continue;
        }
        for (const value of values) {
          if (!Object.hasOwn(known.values, value))
            say(
              path,
              `trait ${trait} has no value "${value}"`,
              `use one of: ${Object.keys(known.values).join(", ")}`,
            );
        }
        const around = met.find(
          (outer) =>
            outer !== condition &&
            Object.hasOwn(outer.when, trait) &&
            ownerOf(condition).startsWith(`${ownerOf(outer)}.`) &&
            !values.some((value) => outer.when[trait]?.includes(value)),
        );
        if (around)
          say(
            path,
            `no configuration meets this: ${ownerOf(around)} holds only for ${trait} ${around.when[trait]?.join(" or ")}`,
            "correct one of the two, or take this entry out",
          );
      }
    }
  },
};
