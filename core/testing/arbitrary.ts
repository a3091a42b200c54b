import fc from "fast-check";
import { UUID, type Shape } from "../shape";

/** Values of a shape, made up: whatever a declaration allows, its check must take. */
export function arbitraryOf({ is }: Shape<unknown>): fc.Arbitrary<unknown> {
  switch (is.kind) {
    case "text":
      return fc
        .constantFrom("", "ok", "two words", "43 µm, ’é “x”", "日本", "a".repeat(20))
        .filter((text) => text.trim().length >= is.least && text.length <= is.most);
    case "pattern": {
      const usual = ["d1", "front-drum", "148 200 km", ""].filter((one) => is.pattern.test(one));
      if (is.pattern === UUID) return fc.uuid();
      // Filtered beforehand: a generator that filters away all it has never ends.
      return usual.length > 0 ? fc.constantFrom(...usual) : fc.stringMatching(is.pattern);
    }
    case "day":
      return fc.constantFrom("2026-05-04", "2024-02-29");
    case "time":
      return fc.constantFrom("2026-05-04T08:15:00.000Z", "2024-02-29T23:59:59Z");
    case "number":
    case "whole":
      return fc.integer({ min: Math.max(is.least, -1e9), max: Math.min(is.most, 1e9) });
    case "flag":
      return fc.boolean();
    case "nothing":
      return fc.constant(null);
    case "one of":
      return fc.constantFrom(...is.words);
    case "written":
      return fc.constant(is.example);
    case "list": {
      const size = { minLength: is.least, maxLength: Math.max(is.least, Math.min(is.most, 3)) };
      return is.once
        ? fc.uniqueArray(arbitraryOf(is.item), { ...size, selector: (one) => JSON.stringify(one) })
        : fc.array(arbitraryOf(is.item), size);
    }
    case "one or more":
      return fc.oneof(arbitraryOf(is.item), fc.array(arbitraryOf(is.item), { minLength: 1, maxLength: 2 }));
    case "tuple":
      return fc.tuple(...is.items.map((item) => arbitraryOf(item)));
    case "map":
      return fc.dictionary(fc.constantFrom("body", "plate", "drive"), arbitraryOf(is.item));
    case "object": {
      const keys = Object.entries(is.keys);
      const requiredKeys = keys.filter(([, of]) => !("optional" in of)).map(([key]) => key);
      return fc.record(
        Object.fromEntries(keys.map(([key, of]) => [key, arbitraryOf("optional" in of ? of.optional : of)])),
        { requiredKeys, noNullPrototype: true },
      );
    }
    case "choice":
      return fc.oneof(
        ...Object.entries(is.among).map(([kind, one]) =>
          arbitraryOf(one).map((value) => ({ ...(value as object), [is.by]: kind })),
        ),
      );
    case "or nothing":
      return fc.option(arbitraryOf(is.inner), { nil: null });
    case "usually":
      return fc.oneof(arbitraryOf(is.inner), fc.constant(is.instead));
    case "such that":
      if (is.rule.examples) return fc.constantFrom(...is.rule.examples);
      return arbitraryOf(is.inner).filter((value) => is.rule.test(value as never));
    case "names":
    case "refers to":
    case "condition":
      return arbitraryOf(is.inner);
    case "any":
      return fc.anything();
  }
}
