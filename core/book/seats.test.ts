import { describe, expect, it, test } from "@jest/globals";
import { bookOf } from "../../demo/units";
import {
  EMPTY_MARK,
  isDecided,
  isFromShelf,
  resolve,
  seatsOf,
  takenBy,
  UNCUT_MARK,
  type Chain,
} from "./index";

const whimbrel = bookOf("marram-whimbrel");
const sanderling = bookOf("selwyn-sanderling");
const chainOf = (book: typeof whimbrel, id: string): Chain => book.chains.find((chain) => chain.id === id)!;

describe("seats of a chain", () => {
  it("are its own, called after it, or those of the book with the sign they have there", () => {
    expect(
      seatsOf(whimbrel, chainOf(whimbrel, "direct-clearance")).map(({ id, sign }) => [id, sign]),
    ).toEqual([["direct-clearance", -1]]);
    expect(seatsOf(whimbrel, chainOf(whimbrel, "input-end-play")).map(({ id }) => id)).toEqual([
      "centre-washer",
      "front-washer",
    ]);
    expect(
      seatsOf(sanderling, chainOf(sanderling, "d2-clearance")).map(({ id, sign }) => [id, sign]),
    ).toEqual([
      ["d2-clearance", -1],
      ["d2-cut", 1],
    ]);
  });

  it("share the sizes of a series, so that what they take is one stock", () => {
    const [drive, driven] = ["drive", "driven"].map(
      (one) => seatsOf(whimbrel, chainOf(whimbrel, `pump-side-${one}`))[0],
    );
    expect(drive?.sizes).toBe(driven?.sizes);
  });

  it("may stay empty where the book says so, and need no decision then", () => {
    const [first, second] = seatsOf(sanderling, chainOf(sanderling, "diff-preload"));
    expect([first?.sizes[0]?.mark, second?.sizes[0]]).toEqual(["1", { mark: EMPTY_MARK, size: 0 }]);
    expect([first, second].map((seat) => seat && isDecided(seat))).toEqual([true, false]);
  });
});

test("a screw: travel is turns backed off × pitch × lever ratio", () => {
  const seat = whimbrel.seats?.find(({ id }) => id === "band-screw");
  const taken = seat && takenBy(whimbrel, seat);
  expect(taken?.sizes.map(({ mark }) => mark).slice(0, 6)).toEqual([
    "1/4 turn",
    "1/2 turn",
    "3/4 turn",
    "1 turn",
    "1 1/4 turns",
    "1 1/2 turns",
  ]);
  // 2 1/4 turns of 0.050 in with a lever of 1.6 are 0.180 in.
  expect(taken?.sizes.find(({ mark }) => mark === "2 1/4 turns")?.size).toBe(0.18 * 25_400_000);
  expect(taken && isFromShelf(taken)).toBe(false);
});

test("a cut: whole steps of the machine, from nothing to the most that may come off", () => {
  const seat = sanderling.seats?.find(({ id }) => id === "d2-cut");
  const taken = seat && takenBy(sanderling, seat);
  expect(taken?.sizes[0]).toEqual({ mark: UNCUT_MARK, size: 0 });
  expect([taken?.sizes.length, taken?.sizes.at(-1)]).toEqual([9, { mark: "8 passes", size: 400_000 }]);
});

test("what must be so when it is read is said in words, the bolts by their name", () => {
  const play = resolve(whimbrel, { body: "a", drive: "one", band: "pin" }, whimbrel.depths).chains.find(
    ({ chain }) => chain.id === "input-end-play",
  );
  expect(play?.conditions).toEqual(["gasket in", "4 Pump bolts at 8 lbf·ft", "unit upright", "drums home"]);
});
