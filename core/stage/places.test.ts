import { describe, expect, it, test } from "@jest/globals";
import { bookOf, UNITS } from "../../demo/units";
import { resolve } from "../book";
import type { Open } from "./open";
import { openByStation, stationsInScope } from "./places";

const open = (kind: Open["kind"], of: string): Open => ({
  key: `${kind} ${of}`,
  kind,
  subject: of,
  stage: "inspect",
  name: of,
  words: "",
  signed: null,
});

describe("where open things sit", () => {
  const applied = resolve(bookOf("marram-dunlin"), { body: "late", plate: "two" }, ["full"]);
  const at = (one: Open): string | undefined => [...openByStation([one], applied).keys()][0];

  it.each<[Open["kind"], string, string | undefined]>([
    ["part", "d1-friction", "front-drum"],
    // A bushing sits where the pump does that it is part of.
    ["part", "pump-bushing", "pump"],
    ["renew", "pump-gears", "pump"],
    ["figure", "d1-clearance", "front-drum"],
    ["step", "t-pump", "pump"],
    ["cause", "d3", "third-drum"],
    ["trait", "body", undefined],
    ["figure", "no-such-figure", undefined],
    ["part", "constructor", undefined],
  ])("%s %s: %s", (kind, of, station) => expect(at(open(kind, of))).toBe(station));

  it("keeps the order they were given in", () => {
    const list = [open("part", "pump-gears"), open("step", "t-pump"), open("part", "pump-bushing")];
    expect(openByStation(list, applied).get("pump")).toEqual(list);
  });
});

test.each(UNITS)(
  "%s: every station that has a figure, a plate or a part coming off is in scope in full",
  (unit) => {
    const book = bookOf(unit);
    const configuration = Object.fromEntries(
      book.traits.map(({ id, values }) => [id, Object.keys(values)[0] ?? ""]),
    );
    const full = resolve(book, configuration, book.depths);
    const reached = stationsInScope(full);
    for (const { station } of full.present.packs) expect(reached).toContain(station);
    for (const { station } of full.present.chains)
      if (station !== undefined) expect(reached).toContain(station);
    const least = stationsInScope(resolve(book, configuration, book.depths.slice(0, 1)));
    expect([...least].filter((station) => !reached.has(station))).toEqual([]);
  },
);
