import { expect, it, test } from "@jest/globals";
import { bookOf } from "../../demo/units";
import { readFileSync } from "node:fs";
import type { Book } from "../book";
import type { Condition } from "../shape";
import { versions } from "./check";
import { readBook } from "./index";

const document = (): Record<string, unknown> =>
  JSON.parse(readFileSync("demo/books/marram-dunlin.json", "utf8")) as Record<string, unknown>;

/** The demo's automatic with so many traits more, each of which decides one of its parts. */
function withTraits(count: number): Record<string, unknown> {
  const book = document();
  const traits = book.traits as { id: string; name: string; values: Record<string, unknown> }[];
  const parts = book.parts as { when?: Record<string, unknown> }[];
  for (let i = 0; i < count; i++) {
    const id = `extra-${i}`;
    const [pattern] = traits;
    if (!pattern) throw new Error("no trait to go by");
    traits.push({ ...structuredClone(pattern), id, name: id });
    const [value = ""] = Object.keys(pattern.values);
    const part = parts.filter((one) => one.when === undefined)[i];
    if (part) part.when = { [id]: value };
  }
  return book;
}

it("a book of many traits is looked at in a time that does not double with each", () => {
  const work = (count: number): number => {
    const from = performance.now();
    readBook(withTraits(count));
    return performance.now() - from;
  };
  work(1);
  // Sixteen would be 65 000 versions and an hour of it.
  expect(work(16)).toBeLessThan(60 * Math.max(work(1), 50));
});

it("of many versions every two turns meet, and what a condition names together", () => {
  const book = bookOf("marram-dunlin");
  const trait = (i: number) => ({
    id: `t${i}`,
    name: `t${i}`,
    values: { a: { name: "a" }, b: { name: "b" } },
  });
  const traits = Array.from({ length: 10 }, (_, i) => trait(i)) as unknown as Book["traits"];
  const condition = (...ids: number[]) => ({
    path: "parts[0].when",
    when: Object.fromEntries(ids.map((i) => [`t${i}`, ["b"]])),
  });
  const conditions = [...traits.map((_, i) => condition(i)), condition(2, 5, 7)] as Condition[];
  const found = versions(Object.assign({}, book, { traits }), conditions, ["parts"]).map(
    ({ configuration }) => configuration,
  );
  expect(found.length).toBeLessThanOrEqual(200);
  const has = (...ids: number[]): boolean =>
    found.some((one) => traits.every(({ id }, i) => one[id] === (ids.includes(i) ? "b" : "a")));
  expect([has(), has(4), has(3, 8), has(2, 5, 7)]).toEqual([true, true, true, true]);
});

it("a member that stands for nothing leaves the train to be solved", () => {
  const book = document();
  const [element] = book.elements as { joins: string[] }[];
  if (element) element.joins = ["constructor", "toString"];
  expect(readBook(book)).toMatchObject({ ok: false });
});

test.each(["constructor", "toString", "__proto__"])(
  "%s where a book names something is refused or taken as any other name, and nothing breaks",
  (word) => {
    const whole = JSON.stringify(document());
    const ids = new Set([...whole.matchAll(/"id":"([a-z0-9-]+)"/g)].map(([, id]) => id ?? ""));
    // Every ninth id is enough to meet each kind.
    const some = [...ids].filter((_, i) => i % 9 === 0);
    const texts = [...some, "d1-drum", "late", "early", "case", "input", "output", "full", "one", "two"];
    for (const text of texts) {
      const changed = whole.replaceAll(`"${text}"`, `"${word}"`);
      if (changed === whole) continue;
      const read = readBook(JSON.parse(changed));
      expect(typeof read.ok).toBe("boolean");
    }
  },
);
