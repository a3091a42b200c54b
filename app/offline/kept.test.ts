import "fake-indexeddb/auto";
import { beforeEach, describe, expect, it } from "@jest/globals";
import { dropAll, dropOlder, keep, kept, keptKeys } from "./kept";
import { KEPT } from "./keys";

const build = (version: string): void =>
  void Object.assign(globalThis, { __reactRouterManifest: { version } });

beforeEach(() => dropAll());

describe("what is kept on a machine", () => {
  it("is there again under its key", async () => {
    build("one");
    await keep(KEPT.page(1030, "sheet"), { closing: "a" });
    expect(await kept(KEPT.page(1030, "sheet"))).toEqual({ closing: "a" });
    expect(await keptKeys("job/")).toEqual(["job/1030/sheet"]);
  });

  it("is not read by another build, and let go of by it; facts are facts whichever build kept them", async () => {
    build("one");
    await keep(KEPT.job(1030), { facts: "[]" });
    await keep(KEPT.said(1030, "a"), { id: "a" });
    build("two");
    expect(await kept(KEPT.job(1030))).toBeUndefined();
    expect(await keptKeys("job/")).toEqual([]);
    expect(await keptKeys("said/1030/")).toEqual(["said/1030/a"]);
    await dropOlder();
    build("one");
    expect(await kept(KEPT.job(1030))).toBeUndefined();
    expect(await kept(KEPT.said(1030, "a"))).toEqual({ id: "a" });
  });
});
