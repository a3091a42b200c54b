import { expect, it } from "@jest/globals";
import { readFileSync } from "node:fs";
import { readBook } from "../check";
import { offersOf, pictureDigests, pictureIn, takeOver, withoutPictureData, withPictureData } from "./index";

const A = "a".repeat(64);
const B = "b".repeat(64);
const document = (): Record<string, unknown> => ({
  ...(JSON.parse(readFileSync("demo/books/marram-dunlin.json", "utf8")) as Record<string, unknown>),
  pictures: [
    { id: "pan", name: "Pan", digest: A, width: 400, height: 300, data: "AAAA" },
    { id: "press", name: "Press", digest: B, width: 400, height: 200 },
  ],
});

it("the bytes of pictures come off a shared book and go on again; what is not here stays without", () => {
  const { document: bare, pictures } = withoutPictureData(document());
  expect(pictures).toEqual([{ path: "pictures[0]", digest: A, data: "AAAA" }]);
  expect(JSON.stringify(bare)).not.toContain("AAAA");
  expect(readBook(bare)).toMatchObject({ ok: true });
  expect(pictureDigests(bare)).toEqual([A, B]);
  expect(withPictureData(bare, new Map([[A, "AAAA"]]))).toEqual(document());
});

it.each([null, [], "book", { pictures: 4 }, { pictures: [null, 3, { digest: 5, data: "AAAA" }] }])(
  "what is no book has no pictures and is left as it is: %j",
  (given) => {
    expect(withoutPictureData(given)).toEqual({ document: given, pictures: [] });
    expect(withPictureData(given, new Map())).toEqual(given);
  },
);

it("a picture that a thing names and the book has not is refused; a known one is found with its shape", () => {
  const { document: bare } = withoutPictureData(document());
  const read = readBook({ ...(bare as object), tips: [{ id: "t", text: "look", picture: "gone" }] });
  expect(read.ok ? [] : read.problems.map(({ path }) => path)).toEqual(["tips[0].picture"]);
  const whole = readBook(bare);
  if (!whole.ok) throw new Error("no book");
  expect(pictureIn(whole.book, "press")).toEqual({ name: "Press", digest: B, ratio: 0.5 });
  expect(pictureIn(whole.book, "gone")).toBeNull();
});

it("another shop’s picture comes with what shows it, with its bytes, and by itself is not offered", () => {
  const theirs = { ...document(), tips: [{ id: "t", text: "look here", picture: "pan" }] };
  const own = document();
  delete own.pictures;
  const offers = offersOf(own, theirs);
  expect(offers.map(({ section, key }) => [section, key])).toEqual([["tips", "t"]]);
  const taken = takeOver(own, theirs, offers);
  expect(taken.pictures).toEqual([document().pictures as unknown[]].flat().slice(0, 1));
  expect(offersOf(taken, theirs)).toEqual([]);
});
