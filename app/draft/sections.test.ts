import { expect, it } from "@jest/globals";
import { documentOf, UNITS } from "../../demo/units";
import { at } from "./edit";
import { SECTIONS, type FieldOf, type Section } from "./sections";

/** What a field can show of a value and write again as it was: of another kind of value typing would make nonsense. */
function isShown({ as }: FieldOf, value: unknown): boolean {
  if (value === undefined) return true;
  if (as === "flag") return typeof value === "boolean";
  if (as === "count" || as === "decimal") return typeof value === "number";
  if (as === "text") return typeof value === "string";
  const texts = Array.isArray(value) && value.every((one) => typeof one === "string");
  if (as === "words") return texts;
  if ("one" in as) return typeof value === "string";
  if ("toothed" in as)
    return Array.isArray(value) && typeof value[0] === "string" && typeof value[1] === "number";
  if ("two" in as) return texts;
  return texts || typeof value === "string";
}

it.each(UNITS)("%s: every value a draft has a field for is of the kind that field types", (unit) => {
  const document = documentOf(unit);
  const astray = Object.entries<Section>(SECTIONS).flatMap(([section, { fields, rows }]) => {
    const known = at(document, [section]);
    return (Array.isArray(known) ? known : []).flatMap((entry, i) => [
      ...fields.flatMap((field) =>
        isShown(field, at(entry, field.keys)) ? [] : [`${section}[${i}].${field.keys.join(".")}`],
      ),
      ...(rows?.columns ?? []).flatMap((column) => {
        const list = at(entry, rows?.keys ?? []);
        return (Array.isArray(list) ? list : []).flatMap((row, j) => {
          const value = at(row, [column]);
          return value === undefined || typeof value === "string" || typeof value === "number"
            ? []
            : [`${section}[${i}].${rows?.keys.join(".")}[${j}].${column}`];
        });
      }),
    ]);
  });
  expect(astray).toEqual([]);
});
