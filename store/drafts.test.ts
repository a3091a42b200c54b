import { afterAll, beforeAll, describe, expect, it } from "@jest/globals";
import { v7 as newId } from "uuid";
import { dunlinDocument } from "../core/testing/dunlin";
import { addBook, bookById, listBooks, revisionsOf } from "./books";
import { beginDraft, draftById, openDrafts, publishDraft, putAway, saveDraft } from "./drafts";
import { houseHistory, houseValues, setHouseValue, setToolOwned, toolsOwned } from "./house-values";
import { testDatabase } from "./testing";

let db: Awaited<ReturnType<typeof testDatabase>>;
let base: string;
const unit = "test-dunlin";
const changedTo = (max: string) => {
  const document = dunlinDocument();
  (document.chains[0] as { spec: { max: string } }).spec.max = max;
  return document;
};
beforeAll(async () => {
  db = await testDatabase();
  const added = await addBook(db.pool, dunlinDocument());
  if (!added.ok) throw new Error("the test book is wrong");
  base = added.id;
}, 60_000);
afterAll(() => db.drop());

const begin = async (): Promise<string> => {
  const id = newId();
  await beginDraft(db.pool, { id, unit, basedOn: base, document: dunlinDocument(), by: "Edda L." });
  return id;
};

describe("a draft", () => {
  it("is begun once, though the form is sent twice", async () => {
    const id = await begin();
    await beginDraft(db.pool, { id, unit, basedOn: base, document: {}, by: "Joost W." });
    expect(await draftById(db.pool, id)).toMatchObject({ version: 1, begunBy: "Edda L.", unit });
    expect((await openDrafts(db.pool, unit)).map((draft) => draft.id)).toContain(id);
    expect(await openDrafts(db.pool, "another")).toEqual([]);
  });

  it("tells the second of two who saved at once, and keeps the first's work", async () => {
    const id = await begin();
    const outcomes = await Promise.all(
      ["Edda L.", "Joost W."].map((by) => saveDraft(db.pool, { id, seen: 1, document: { by }, by })),
    );
    expect(outcomes.filter(({ ok }) => ok)).toHaveLength(1);
    const refused = outcomes.find(({ ok }) => !ok);
    const winner = (await draftById(db.pool, id))?.savedBy;
    expect(refused).toMatchObject({
      ok: false,
      newest: { version: 2, savedBy: winner, document: { by: winner } },
    });
    expect(await saveDraft(db.pool, { id, seen: 2, document: { by: "both" }, by: "Edda L." })).toEqual({
      ok: true,
      version: 3,
    });
  });

  it("keeps every save", async () => {
    const id = await begin();
    await saveDraft(db.pool, { id, seen: 1, document: { n: 2 }, by: "Edda L." });
    const { rows } = await db.pool.query("select version from draft_save where draft = $1 order by version", [
      id,
    ]);
    expect(rows).toEqual([{ version: 1 }, { version: 2 }]);
  });

  it("is published as the next revision, once; the old one stays as it was", async () => {
    const id = await begin();
    await saveDraft(db.pool, { id, seen: 1, document: changedTo("1.35 mm"), by: "Edda L." });
    expect(await publishDraft(db.pool, { id, seen: 1, note: "tighter", by: "Edda L." })).toEqual({
      ok: false,
      why: "changed",
    });
    const both = await Promise.all(
      [1, 2].map(() => publishDraft(db.pool, { id, seen: 2, note: "tighter", by: "Edda L." })),
    );
    expect(both.map(({ ok }) => ok).sort()).toEqual([false, true]);
    expect(await revisionsOf(db.pool, unit)).toMatchObject([
      { revision: 2, by: "Edda L.", note: "tighter" },
      { revision: 1, by: null },
    ]);
    expect(await listBooks(db.pool)).toMatchObject([{ unit, revision: 2 }]);
    expect((await bookById(db.pool, base)).book.chains[0]?.spec[0]?.max).toBe(1_400_000);
    expect(await draftById(db.pool, id)).toBeNull();
    expect(await saveDraft(db.pool, { id, seen: 2, document: {}, by: "Joost W." })).toEqual({
      ok: false,
      newest: null,
    });
  });

  it("is not published while the check refuses it", async () => {
    const id = await begin();
    await saveDraft(db.pool, { id, seen: 1, document: changedTo("0.10 mm"), by: "Edda L." });
    const published = await publishDraft(db.pool, { id, seen: 2, note: "wrong", by: "Edda L." });
    expect(published).toMatchObject({ ok: false, why: "problems" });
    expect(await draftById(db.pool, id)).not.toBeNull();
  });

  it("is put away without a revision", async () => {
    const id = await begin();
    await putAway(db.pool, id, "Edda L.");
    await putAway(db.pool, id, "Edda L.");
    expect(await draftById(db.pool, id)).toBeNull();
  });
});

describe("house values and tools", () => {
  it("the newest holds, one taken back is gone, all are remembered", async () => {
    const set = (value: { max: number } | null, reason: string) =>
      setHouseValue(db.pool, {
        unit,
        of: "chain",
        id: "d1-clearance",
        value: value as never,
        reason,
        by: "Edda L.",
      });
    await set({ max: 1_350_000 }, "crisper shifts");
    await set({ max: 1_300_000 }, "crisper still");
    expect((await houseValues(db.pool, [unit, "another"])).get(unit)).toMatchObject([
      { id: "d1-clearance", max: 1_300_000 },
    ]);
    await set(null, "comebacks");
    expect((await houseValues(db.pool, [unit])).get(unit)).toEqual([]);
    expect((await houseHistory(db.pool, unit)).map(({ reason, taken }) => [reason, taken])).toEqual([
      ["comebacks", true],
      ["crisper still", false],
      ["crisper shifts", false],
    ]);
  });

  it("need a reason", async () => {
    await expect(
      setHouseValue(db.pool, {
        unit,
        of: "chain",
        id: "d1-clearance",
        value: null,
        reason: " ",
        by: "Edda L.",
      }),
    ).rejects.toMatchObject({ code: "23514" });
  });

  it("a tool is had until it is not", async () => {
    await setToolOwned(db.pool, { unit, tool: "puller", owned: true, by: "Ines R." });
    expect(await toolsOwned(db.pool, [unit])).toEqual(new Set([`${unit}/puller`]));
    await setToolOwned(db.pool, { unit, tool: "puller", owned: false, by: "Ines R." });
    expect(await toolsOwned(db.pool, [unit])).toEqual(new Set());
  });
});
