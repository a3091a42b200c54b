import { expect, test } from "@jest/globals";
import { bookOf, type UnitId } from "../../demo/units";
import { CONDITIONS, outcomeCode } from "../fact";
import { Diagnostician, type Told } from "./index";

const KEYS: Readonly<Record<string, string>> = { N: "neutral", stand: "standing" };

/** `3 slips hot; 1h fine; N moves when revved; fluid burnt` → answers. A key with `h` is a range held by hand. */
function said(text: string, unit: UnitId): Told[] {
  const ranges = new Set(bookOf(unit).ranges.map(({ id }) => id));
  return text.split("; ").map((part) => {
    const [key = "", ...words] = part.split(" ");
    const when = CONDITIONS.codes.find((one) => part.endsWith(` ${CONDITIONS.words[one]}`));
    const outcome = outcomeCode(words.join(" ").replace(when ? ` ${CONDITIONS.words[when]}` : "", ""));
    const question = ranges.has(key)
      ? `range:${key}`
      : ranges.has(key.replace(/h$/, ""))
        ? `manual:${key.replace(/h$/, "")}`
        : (KEYS[key] ?? key);
    return { question, outcome, ...(when ? { conditions: [when] } : {}) };
  });
}

const diagnosticians = new Map<UnitId, Diagnostician>();
const of = (unit: UnitId): Diagnostician => {
  const known = diagnosticians.get(unit) ?? new Diagnostician(bookOf(unit));
  diagnosticians.set(unit, known);
  return known;
};

/** What a builder who knows the chart would say at once. */
const CASES: [unit: UnitId, told: string, answer: string][] = [
  // Six speeds, longitudinal: D1 in 1-4, D2 in 4-6, D3 in 3 5 R, H1 in 2 6, H2 in 1 by hand and R, F1 in 1.
  ["marram-dunlin", "1 no drive; 2 no drive; 3 no drive; 4 slips; 5 fine; 6 fine; R fine", "d1:off"],
  ["marram-dunlin", "4 flares; 5 no drive; 6 no drive; 1 fine; 2 fine; 3 fine; R fine", "d2:off"],
  ["marram-dunlin", "3 flares; 5 slips; R no drive; 1 fine; 2 fine; 4 fine; 6 fine", "d3:off"],
  ["marram-dunlin", "R slips full load; 3 flares; 5 slips; 2 fine", "d3:off"],
  ["marram-dunlin", "2 no upshift; 6 slips; 1 fine; 3 fine; 4 fine; 5 fine; R fine", "h1:off"],
  ["marram-dunlin", "R no drive; 1 fine; 1h no engine braking; 2 fine; 3 fine; 5 fine", "h2:off"],
  ["marram-dunlin", "1 no drive; 1h fine; 2 fine; 3 fine; 4 fine; R fine", "f1:off"],
  ["marram-dunlin", "1 fine; 2 binds; 3 binds; 5 binds; R fine; 6 binds", "f1:on"],
  ["marram-dunlin", "N moves when revved; R binds; 5 binds; 6 binds; 1 fine; 2 fine", "d1:on"],
  [
    "marram-dunlin",
    "1 slips hot; 2 slips hot; 3 slips hot; 4 slips hot; 5 slips hot; 6 slips hot; R delayed hot",
    "pressure",
  ],
  ["marram-dunlin", "1 fine; 2 fine; 3 fine; 4 fine; R fine; whole stalls at standstill", "lc:on"],
  ["marram-dunlin", "1 fine; 2 fine; 3 fine; 4 fine; 6 fine; whole revs high at cruise", "lc:off"],
  [
    "marram-dunlin",
    "1 shudders full load; 3 shudders full load; 4 fine; R fine; scan engine or vehicle code; outside:engine found",
    "elsewhere",
  ],
  // What lies between the elements: one broken member against several clutches at once.
  [
    "marram-dunlin",
    "1 no drive; 2 no drive; 3 no drive; 4 no drive; 5 no drive; R no drive; 6 fine; debris:steel found",
    "front-carrier:broken",
  ],
  [
    "marram-dunlin",
    "1 no drive; 2 no drive; 3 no drive; 4 no drive; 5 no drive; R no drive; 6 fine",
    "front-carrier:broken",
  ],
  [
    "corrie-plover",
    "1 no drive; 2 no drive; 3 no drive; 4 no drive; 5 fine; 6 fine; 7 fine; R fine",
    "lay-one:broken",
  ],
  // One fork moves two synchronisers.
  [
    "corrie-godwit",
    "1 will not engage; 3 will not engage; 2 fine; 4 fine; 5 fine; 7 fine; R fine",
    "forks-1-3:broken",
  ],
  [
    "corrie-plover",
    "6 will not engage; R will not engage; 1 fine; 2 fine; 3 fine; 4 fine; 5 fine",
    "forks-6-r:broken",
  ],
  // What works an element: a code of its solenoid, and an air check that finds the element sound.
  [
    "marram-dunlin",
    "3 no drive; 5 no drive; R no drive; 1 fine; 2 fine; scan electrical code; air:d3 holds and lets go",
    "d3:unfed",
  ],
  ["marram-dunlin", "3 slips; 5 slips; R slips; 1 fine; fluid burnt; air:d3 leaks", "d3:off"],
  // A flare belongs to a change: what comes on for the next range.
  ["marram-dunlin", "change:3-4 flares; 1 fine; 2 fine; 3 fine", "d2:off"],
  ["marram-whimbrel", "change:2-3 flares; change:1-2 fine; 1 fine; 2 fine", "direct:off"],
  ["marram-dunlin", "change:1-2 binds; 1 fine; 3 binds; 5 binds", "f1:on"],
  // Four speeds, older: forward 1-3, direct 3-4, reverse R, hold 2 4, band R and 1 by hand, roller 1.
  ["marram-whimbrel", "1 no drive; 2 no drive; 3 slips; 4 fine; R fine", "forward:off"],
  ["marram-whimbrel", "N moves when revved; R binds; 1 fine; 2 fine; 3 fine", "forward:on"],
  ["marram-whimbrel", "3 flares; 4 no upshift; 1 fine; 2 fine; R fine", "direct:off"],
  ["marram-whimbrel", "R no drive; 1h fine; 1 fine; 2 fine; 3 fine", "reverse:off"],
  ["marram-whimbrel", "R no drive; 1h no engine braking; 1 fine; 2 fine", "low-band:off"],
  ["marram-whimbrel", "1 no drive; 1h fine; 2 fine; R fine; 3 fine", "low-roller:off"],
  ["marram-whimbrel", "2 no upshift; 4 slips; 1 fine; 3 fine; R fine", "hold:off"],
  [
    "marram-whimbrel",
    "R slips; 1 fine; 2 fine; 1h fine; debris:friction found; tap:line in its limits",
    "reverse:off",
  ],
  ["marram-whimbrel", "1 slips; 2 slips; 3 slips; R slips; 4 slips; tap:line low", "pressure"],
  // Six speeds, transverse: the same chart.
  ["selwyn-sanderling", "1 no drive; 2 slips; 3 slips; 4 slips; 5 fine; 6 fine; R fine", "d1:off"],
  ["selwyn-sanderling", "4 slips; 5 flares; 6 no upshift; 1 fine; 2 fine; R fine", "d2:off"],
  ["selwyn-sanderling", "R delayed; 5 slips; 3 slips; 1 fine; 4 fine", "d3:off"],
  ["selwyn-sanderling", "2 flares; 6 flares; 1 fine; 3 fine; 5 fine", "h1:off"],
  ["selwyn-sanderling", "N moves when revved hot; R binds hot; 5 binds; 1 fine", "d1:on"],
  ["selwyn-sanderling", "1 noise; 2 noise; 3 noise; 5 noise; R noise; debris:steel found", "gears"],
  [
    "selwyn-sanderling",
    "3 fine; 4 fine; 1 clunks on and off; R clunks on and off; outside:driveline found",
    "elsewhere",
  ],
  ["selwyn-sanderling", "2 harsh; 3 harsh; 4 harsh; scan electrical code; 1 fine; R fine", "control"],
  // Belt.
  ["selwyn-turnstone", "D no drive; R fine; N stays", "fc:off"],
  ["selwyn-turnstone", "R no drive; D fine; N stays", "rb:off"],
  ["selwyn-turnstone", "N moves when revved; R binds; D fine", "fc:on"],
  ["selwyn-turnstone", "D shudders; R shudders; debris:steel found; scan ratio or slip code", "variator"],
  ["selwyn-turnstone", "D delayed hot; R delayed hot; D slips hot; R slips hot; tap:line low", "pressure"],
  ["selwyn-turnstone", "D judders at one ratio; R fine; N stays", "variator"],
  ["selwyn-turnstone", "D stays high; debris:steel found", "variator"],
  ["selwyn-turnstone", "D stays low; scan electrical code; R fine", "control"],
  ["selwyn-turnstone", "D fine; R fine; whole stalls at standstill", "lc:on"],
  // Two clutches, wet: odd gears and reverse on K1, even ones on K2.
  ["corrie-godwit", "1 slips; 3 slips; 5 slips; 7 slips; R slips; 2 fine; 4 fine; 6 fine", "k1:off"],
  [
    "corrie-godwit",
    "2 slips full load; 4 slips full load; 6 slips full load; 1 fine; 3 fine; R fine",
    "k2:off",
  ],
  ["corrie-godwit", "4 will not engage; 1 fine; 2 fine; 3 fine; 5 fine; 6 fine", "s4:off"],
  ["corrie-godwit", "R will not engage; 1 fine; 3 fine; 5 fine; 2 fine", "sr:off"],
  [
    "corrie-godwit",
    "1 will not engage; 4 will not engage; 6 grinds; 3 stuck in it; 2 fine; scan place or travel code",
    "mechanics",
  ],
  ["corrie-godwit", "stand pulls or stalls; 1 fine; 2 fine; 3 fine; R fine; air:k1 does not let go", "k1:on"],
  // Two discs, dry.
  ["corrie-plover", "2 slips; 4 slips; 6 slips; 1 fine; 3 fine; 5 fine; R fine", "k2:off"],
  ["corrie-plover", "1 slips full load; R slips full load; 3 slips; 2 fine; 4 fine", "k1:off"],
  ["corrie-plover", "5 will not engage; 7 fine; 3 fine; 6 fine; 2 fine", "s5:off"],
  ["corrie-plover", "3 grinds cold; 1 fine; 2 fine; 4 fine; 5 fine; R fine", "s3:off"],
];

test("an element and what works it share the blame where nothing tells them apart", () => {
  const told = "3 no drive; 5 no drive; R no drive; 1 fine; 2 fine; 4 fine; 6 fine";
  const { suspects, next } = of("marram-dunlin").diagnose(said(told, "marram-dunlin"), 3);
  const [first, second] = suspects;
  expect([first?.cause.id, second?.cause.id]).toEqual(["d3:off", "d3:unfed"]);
  expect(second?.chance).toBeGreaterThan(0.15);
  // What tells them apart is asked for: codes, debris or air.
  expect(next.map(({ question }) => question.id)).toEqual(
    expect.arrayContaining([expect.stringMatching(/^(scan|air:d3|fluid|debris:friction|tap:)/)]),
  );
});

test.each(CASES)("%s: %s → %s", (unit, told, answer) => {
  const { suspects, unread } = of(unit).diagnose(said(told, unit), 0);
  expect(unread).toEqual([]);
  expect(suspects[0]?.cause.id).toBe(answer);
});
