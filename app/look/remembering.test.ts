import { expect, it } from "@jest/globals";
import { remembering } from "./remembering";

it("makes a thing once, and lets go of what was asked for longest ago", () => {
  const made: string[] = [];
  const of = remembering<{ key: string }>(2);
  const ask = (key: string) => of(key, () => (made.push(key), { key }));
  const first = ask("a");
  expect(ask("a")).toBe(first);
  ask("b");
  expect(ask("a")).toBe(first);
  // What is asked for again stays; the other goes.
  ask("c");
  expect(ask("a")).toBe(first);
  expect(made).toEqual(["a", "b", "c"]);
  ask("b");
  expect(made).toEqual(["a", "b", "c", "b"]);
});
