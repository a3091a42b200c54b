import { expect, test } from "@jest/globals";
import { resolve } from "~core/book";
import { bookOf, UNITS } from "../../demo/units";
import { benchBook } from "./bench-book";

test.each(UNITS)(
  "the bench's part of %s judges as the whole book does, and is less than half of it",
  (id) => {
    const whole = bookOf(id);
    const part = benchBook(whole);
    const version = Object.fromEntries(
      whole.traits.map(({ id: trait, values }) => [trait, Object.keys(values)[0] ?? ""]),
    );
    for (const depth of whole.depths) {
      const [a, b] = [resolve(whole, version, depth), resolve(part, version, depth)];
      expect(b.packs).toEqual(a.packs);
      expect(b.chains).toEqual(a.chains);
      expect(b.unseen).toEqual(a.unseen);
    }
    expect(JSON.stringify(part).length).toBeLessThan(JSON.stringify(whole).length / 2);
  },
);
