import { describe, expect, it } from "@jest/globals";
import { readFileSync } from "node:fs";
import { UNITS } from "../../demo/units";
import { resolve } from "../book";
import { readBook } from "../check";
import type { FactOf } from "../fact";
import { nm } from "../quantity";
import { proposedIn, takeIn, type Proposal } from "./index";

type Said = FactOf<"next-time">["body"];
const said = (more: Partial<Said>): Said => ({
  kind: "next-time",
  lesson: "ab12",
  there: true,
  is: "tip",
  name: "",
  text: "warm the case first",
  done: "",
  not: "",
  torque: "",
  ...more,
});
const proposal = (more: Partial<Said>, picture: Proposal["picture"] = null): Proposal => ({
  job: 1044,
  by: "Mira K.",
  day: "2026-11-28",
  said: said(more),
  picture,
});
const documentOf = (unit: string): Record<string, unknown> =>
  JSON.parse(readFileSync(`demo/books/${unit}.json`, "utf8")) as Record<string, unknown>;
const PICTURE = { digest: "a".repeat(64), width: 800, height: 600 };

/** The book of a document, which must be one. */
const bookFrom = (document: unknown) => {
  const read = readBook(document);
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.book;
};

describe.each(UNITS)("what a job found out, taken over into the book of %s", (unit) => {
  const document = documentOf(unit);
  const { teardown = [], fasteners = [], chains } = bookFrom(document);
  const [step, group, chain] = [teardown[0]?.id, fasteners[0], chains.find(({ spec }) => spec.length === 1)];

  it("a tip stands where it is about, with the job as its source and the picture it came with", () => {
    const next = takeIn(document, proposal({ of: step }, PICTURE));
    const book = bookFrom(next);
    expect(book.tips?.at(-1)).toMatchObject({
      text: "warm the case first",
      of: step,
      picture: "tip-ab12",
      learnt: "job 1044, 2026-11-28",
    });
    expect(book.pictures).toEqual([expect.objectContaining({ id: "tip-ab12", ...PICTURE })]);
  });

  it("a weak point can be answered with what was done, a tool stands at its step", () => {
    const point = takeIn(
      document,
      proposal({ is: "weak-point", name: "Cracked boss", text: "leaks hot", done: "welded" }),
    );
    expect(bookFrom(point).weakPoints?.at(-1)).toMatchObject({
      name: "Cracked boss",
      complaint: "leaks hot",
      answers: [{ name: "welded", does: "look" }],
      learnt: "job 1044, 2026-11-28",
    });
    const book = bookFrom(
      takeIn(
        document,
        proposal({ is: "tool", name: "Spacer", text: "holds the drum", not: "no press", of: step }),
      ),
    );
    expect(book.tools?.at(-1)).toMatchObject({ name: "Spacer", does: "holds the drum", limit: "no press" });
    expect(book.teardown?.find(({ id }) => id === step)?.tools).toContain("tool-ab12");
  });

  it("a limit says whose it is, leaves the other end as it was, and reaches the verdict’s words", () => {
    const before = resolve(bookFrom(document), {}, ["full"]).chains.find((one) => one.chain.id === chain?.id);
    const max = nm(987_654);
    if (!chain || before?.book.min === undefined || before.book.min >= max) return;
    const next = bookFrom(
      takeIn(document, proposal({ is: "limit", of: chain.id, max, text: "wears early" })),
    );
    const after = resolve(next, {}, ["full"]).chains.find((one) => one.chain.id === chain.id);
    expect(after?.book).toMatchObject({
      min: before.book.min,
      max,
      from: "measured on units here",
      source: "house, job 1044, 2026-11-28: wears early",
      checked: "2026-11-28",
    });
  });

  it("a torque stands with whose it is", () => {
    if (!group?.torque) return;
    const torque = `${group.torque.figure} ${group.torque.unit}`;
    const next = bookFrom(takeIn(document, proposal({ is: "limit", of: group.id, torque, text: "strips" })));
    expect(next.fasteners?.find(({ id }) => id === group.id)).toMatchObject({
      torque: group.torque,
      from: "measured on units here",
    });
  });

  it.each<Partial<Said>>([
    { of: step },
    { is: "weak-point", name: "Cracked boss" },
    { is: "tool", name: "Spacer", of: step },
    { is: "limit", of: chain?.id ?? "", max: nm(5_000_000) },
  ])("taken over once it is offered no more, and says in words what it changes: %j", (more) => {
    const one = proposal(more);
    const proposed = proposedIn(document, one);
    expect(proposed?.title).toContain("warm the case first");
    expect(proposed?.changes ?? []).toHaveLength(
      more.is === "weak-point" ? 0 : 1 + (more.is === "limit" ? 4 : 0),
    );
    expect(proposedIn(takeIn(document, one), one)).toBeNull();
    // Also where a picture came with it, which nobody has asked for yet.
    expect(proposedIn(takeIn(document, { ...one, picture: PICTURE }), one)).toBeNull();
  });

  it("what it is about is not in this book: a limit changes nothing, and is not offered", () => {
    const gone = proposal({ is: "limit", of: "not-there", max: nm(1) });
    expect(takeIn(document, gone)).toEqual(document);
    expect(proposedIn(document, gone)).toBeNull();
  });
});
