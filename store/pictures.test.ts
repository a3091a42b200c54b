import { createHash } from "node:crypto";
import { afterAll, beforeAll, expect, it } from "@jest/globals";
import { v7 as newId } from "uuid";
import { withPictureData, pictureDigests } from "~core/book";
import { dunlinDocument } from "~core/testing/dunlin";
import { addBook, bookById } from "./books";
import { addFacts } from "./facts";
import { openJob } from "./jobs";
import { addPhoto } from "./photos";
import { keepPhoto, pictureBytes, picturesAsData } from "./pictures";
import { leaveProposal, saidNextTime } from "./proposals";
import { testDatabase } from "./testing";

let db: Awaited<ReturnType<typeof testDatabase>>;
beforeAll(async () => {
  db = await testDatabase();
}, 60_000);
afterAll(() => db.drop());

const JPEG = Buffer.concat([Buffer.from([0xff, 0xd8, 0xff, 0xe0]), Buffer.alloc(90_000, 7)]);
const digestOf = (bytes: Buffer): string => createHash("sha256").update(bytes).digest("hex");
const withPicture = (bytes: Buffer, digest = digestOf(bytes)): object => ({
  ...(dunlinDocument() as object),
  pictures: [{ id: "pan", name: "Pan", digest, width: 40, height: 30, data: bytes.toString("base64") }],
  tips: [{ id: "t", text: "look here", picture: "pan" }],
});
const author = { id: null, name: "Mira K." };

it("a shared book’s picture is kept by itself, and goes out again with the same bytes", async () => {
  const shared = withPicture(JPEG);
  const added = await addBook(db.pool, shared);
  if (!added.ok) throw new Error(JSON.stringify(added.problems));
  const { document } = await bookById(db.pool, added.id);
  expect(JSON.stringify(document)).not.toContain(JPEG.toString("base64").slice(0, 40));
  expect((await pictureBytes(db.pool, digestOf(JPEG)))?.equals(JPEG)).toBe(true);
  const out = withPictureData(document, await picturesAsData(db.pool, pictureDigests(document)));
  expect(out).toEqual(shared);
  // Taken in again it is the same book, and the same picture.
  expect(await addBook(db.pool, out)).toMatchObject({ id: added.id });
});

it.each([
  ["another picture than its digest says", JPEG, "0".repeat(64), "not the picture"],
  ["no JPEG", Buffer.from("<svg onload=alert(1)>"), undefined, "is no JPEG"],
  [
    "larger than any that was brought to size",
    Buffer.concat([JPEG, Buffer.alloc(4_000_000)]),
    undefined,
    "over 4 MB",
  ],
])("%s is refused at its place, and nothing is kept", async (_, bytes, digest, message) => {
  const added = await addBook(db.pool, withPicture(bytes, digest));
  expect(added).toMatchObject({
    ok: false,
    problems: [{ path: "pictures[0].data", message: expect.stringContaining(message) as unknown }],
  });
  expect(
    await pictureBytes(db.pool, digestOf(bytes) === digestOf(JPEG) ? "0".repeat(64) : digestOf(bytes)),
  ).toBeNull();
});

it("what jobs of a unit found out is told newest first, the last word of each, until a lead leaves it", async () => {
  const added = await addBook(db.pool, dunlinDocument());
  const other = await addBook(db.pool, {
    ...(dunlinDocument() as object),
    unit: { ...(dunlinDocument() as { unit: object }).unit, id: "other-unit" },
  });
  if (!added.ok || !other.ok) throw new Error("no book");
  const say = (lesson: string, text: string, there = true) => ({
    id: newId(),
    at: new Date().toISOString(),
    by: "Mira K.",
    body: {
      kind: "next-time" as const,
      lesson,
      there,
      is: "tip" as const,
      name: "",
      text,
      done: "",
      not: "",
      torque: "",
    },
  });
  const jobs: string[] = [];
  for (const [bookId, facts] of [
    [added.id, [say("a", "warm it"), say("a", "warm it well"), say("b", "gone"), say("b", "gone", false)]],
    [other.id, [say("a", "of another unit")]],
    [added.id, []],
    [added.id, [say("a", "mind the ball")]],
  ] as const) {
    const id = newId();
    jobs.push(id);
    await openJob(db.pool, { id, bookId, facts: [], author });
    if (facts.length > 0) await addFacts(db.pool, id, facts, author);
  }
  const told = async () => (await saidNextTime(db.pool, added.unit)).map(({ fact: { body } }) => body.text);
  expect(await told()).toEqual(["mind the ball", "warm it well"]);
  const gone = { job: jobs[3] ?? "", lesson: "a", by: "Edda L." };
  await leaveProposal(db.pool, gone);
  await leaveProposal(db.pool, gone);
  expect(await told()).toEqual(["warm it well"]);
});

it("a job’s picture is kept for the book once; one of another job is none", async () => {
  const added = await addBook(db.pool, dunlinDocument());
  if (!added.ok) throw new Error("no book");
  const [job, another, photo] = [newId(), newId(), newId()];
  for (const id of [job, another]) await openJob(db.pool, { id, bookId: added.id, facts: [], author });
  await addPhoto(db.pool, job, { id: photo, width: 40, height: 30, large: JPEG, small: JPEG });
  const kept = { digest: digestOf(JPEG), width: 40, height: 30 };
  expect(await keepPhoto(db.pool, job, photo)).toEqual(kept);
  expect(await keepPhoto(db.pool, job, photo)).toEqual(kept);
  expect(await keepPhoto(db.pool, another, photo)).toBeNull();
});
