import { describe, expect, it } from "@jest/globals";
import { bookOf } from "../../demo/units";
import type { Fact } from "~core/fact";
import { DEFAULTS } from "~store/house";
import { factsOfPage } from "./job-page";
import { viewsOf } from "./views";
import { workedOut } from "./worked-out";

const book = bookOf("marram-dunlin");
const reading = (id: string): Fact => ({
  id,
  at: "2026-05-04T08:00:00.000Z",
  by: "Mira K.",
  body: { kind: "configuration", traits: { body: "late" } },
});
const text = JSON.stringify([reading("a")]);

/** As each request has it: everything of it read anew. */
const asked = (changes: Partial<Parameters<typeof viewsOf>[0]> = {}, facts = text) =>
  viewsOf({
    ref: { id: "one", digest: "digest of the Dunlin" },
    number: 1030,
    opened: "2026-05-04T08:00:00.000Z",
    book,
    unit: "mm",
    house: structuredClone(DEFAULTS),
    houseValues: [],
    ...changes,
  })(factsOfPage(`${facts}`));

describe("how a job is seen", () => {
  it("is worked out once while nothing is said of it", () => {
    let times = 0;
    const worked = workedOut(({ job }) => ({ times: ++times, job }));
    expect(worked(asked())).toBe(worked(asked()));
    expect(times).toBe(1);
    const later = asked({}, JSON.stringify([reading("a"), reading("b")]));
    expect(worked(later).job.live).toHaveLength(2);
    expect(times).toBe(2);
  });

  it.each<[string, Partial<Parameters<typeof viewsOf>[0]>]>([
    ["another job", { number: 1031 }],
    ["another revision", { ref: { id: "two", digest: "another" } }],
    ["the other units", { unit: "in" }],
    ["what the shop chose", { house: { ...DEFAULTS, target: "low end" } }],
    [
      "the shop’s own values",
      { houseValues: [{ of: "fastener", id: "pump-bolts", torque: "10 N·m", reason: "", by: "", at: "" }] },
    ],
  ])("is another with %s", (_, change) => {
    expect(asked(change)).not.toBe(asked());
  });
});
