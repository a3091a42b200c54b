import { afterAll, beforeAll, expect, it } from "@jest/globals";
import { v7 as newId } from "uuid";
import type { FigureLeft } from "~core/measure";
import { nm } from "~core/quantity";
import { dunlinDocument } from "~core/testing/dunlin";
import { addBook } from "./books";
import { openJob } from "./jobs";
import { leftOf } from "./left";
import { testDatabase } from "./testing";

let db: Awaited<ReturnType<typeof testDatabase>>;
let book: { id: string; unit: string };
beforeAll(async () => {
  db = await testDatabase();
  const added = await addBook(db.pool, dunlinDocument());
  if (!added.ok) throw new Error("no book");
  book = added;
}, 60_000);
afterAll(() => db.drop());

const author = { id: null, name: "Mira K." };
async function closed(): Promise<void> {
  const id = newId();
  await openJob(db.pool, { id, bookId: book.id, facts: [], author });
  await db.pool.query("update job_card set open = false where job = $1", [id]);
}
const left = (number: number): FigureLeft[] => [{ id: "d1", version: "", built: nm(number) }];

it("makes what each closed unit left with once, the newest first, so many at once; open jobs tell nothing", async () => {
  await openJob(db.pool, { id: newId(), bookId: book.id, facts: [], author });
  for (let n = 0; n < 13; n++) await closed();
  const made: number[] = [];
  const ask = () =>
    leftOf(db.pool, book.unit, ({ number }) => {
      made.push(number);
      return left(number);
    });
  const first = await ask();
  expect(first.filter((figures) => figures.length > 0)).toHaveLength(10);
  expect((await ask()).map(([figure]) => figure?.built)).toEqual(
    Array.from({ length: 13 }, (_, n) => (made.at(0) ?? 0) - n),
  );
  await ask();
  expect(made).toHaveLength(13);
  expect(new Set(made).size).toBe(13);
  expect(await leftOf(db.pool, "another-unit", () => left(1))).toEqual([]);
});
