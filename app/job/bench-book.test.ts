import { expect, test } from "@jest/globals";
import { resolve, type Applied } from "~core/book";
import { fold } from "~core/fact";
import { stepsDone } from "~core/stage";
import { Bench } from "~core/teardown";
import { bookOf, UNITS } from "../../demo/units";
import { benchBook } from "./bench-book";

/** What is dirty of each pack once everything is off. */
const dirty = (applied: Applied): string[][] => {
  const job = fold(
    (applied.work.teardown ?? []).map(({ id }, i) => ({
      id: `fact-${i}`,
      at: "2026-05-04T08:00:00.000Z",
      by: "Mira K.",
      body: { kind: "step", step: id, did: "done", reason: "" } as const,
    })),
  );
  const bench = new Bench(job, applied);
  return applied.packs.map(({ pack }) => bench.dirtyOfPack(pack).map(({ part }) => part.id));
};

test.each(UNITS)(
  "the bench's part of %s judges as the whole book does, and is a good third smaller",
  (id) => {
    const whole = bookOf(id);
    const part = benchBook(whole);
    const version = Object.fromEntries(
      whole.traits.map(({ id: trait, values }) => [trait, Object.keys(values)[0] ?? ""]),
    );
    for (const depth of whole.depths) {
      const [a, b] = [resolve(whole, version, [depth]), resolve(part, version, [depth])];
      expect(b.packs).toEqual(a.packs);
      expect(b.chains).toEqual(a.chains);
      expect(b.unseen).toEqual(a.unseen);
      expect(stepsDone(fold([]), b).of).toBe(stepsDone(fold([]), a).of);
      expect(dirty(b)).toEqual(dirty(a));
    }
    expect(JSON.stringify(part).length).toBeLessThan(JSON.stringify(whole).length * 0.55);
  },
);
