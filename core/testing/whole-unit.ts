import { keptBook, type Book } from "../book";
import { appliedTo, fold, type Fact, type FactBody } from "../fact";
import { chosenSheets, isPackSheet, together, type House } from "../measure";
import { nm } from "../quantity";
import { middleOf } from "../reading";
import { chooseJointly, type JointPlan, type Stock } from "../select";
import { said } from "./said";

const HOUSE: House = { rule: "proven", target: "middle" };
const OFF = [0, 10_000, -10_000];
/** Each figure is read so far above its middle that another size is wanted. */
const ABOVE = 250_000;

/** A unit that is read with known pieces everywhere, but for the last reading; and what lies on the shelf. */
export interface WholeUnit {
  book: Book;
  facts: Fact[];
  last: FactBody;
  stock: Stock[];
}

/** A whole unit on trial, of a book’s document: every seat has its middle size in, every figure is read three times. */
export function wholeUnit(document: unknown): WholeUnit {
  const book = keptBook(document);
  if (!book) throw new Error("no book");
  const traits = Object.fromEntries(book.traits.map(({ id, values }) => [id, Object.keys(values)[0] ?? ""]));
  const bodies: FactBody[] = [
    { kind: "configuration", traits },
    { kind: "scope", depths: ["full"] },
  ];
  const job = fold(bodies.map(said));
  for (const sheet of chosenSheets(job, appliedTo(book, job, []), HOUSE)) {
    const { chain, conditions, spec } = sheet.applied;
    for (const { link } of sheet.seats) {
      const size = link.sizes[Math.floor(link.sizes.length / 2)];
      if (!size) continue;
      const { mark, part, size: thick } = size;
      const piece = { ...(part === undefined ? {} : { part }), mark, size: thick };
      bodies.push({ kind: "fitting", seat: link.id, fit: 0, origin: "found", piece });
    }
    if (conditions.length > 0)
      bodies.push({ kind: "conditions", chain: chain.id, phase: "built", fit: 0, met: conditions });
    for (const off of OFF)
      bodies.push({
        kind: "reading",
        chain: chain.id,
        phase: "built",
        fit: 0,
        method: isPackSheet(sheet) ? "hand and dial" : (chain.read.with[0] ?? "dial"),
        ...(isPackSheet(sheet)
          ? { state: { ...spec.state, facings: spec.state.facings ?? ("new" as const) } }
          : {}),
        reading: { kind: "single", value: nm((middleOf(spec) ?? 1_000_000) + ABOVE + off) },
        resolution: nm(10_000),
        unit: "mm",
      });
  }
  const stock = book.series.flatMap(({ sizes }) =>
    sizes.flatMap(({ part }) => (part === undefined ? [] : [{ part, onHand: 3 }])),
  );
  const last = bodies.pop();
  if (!last) throw new Error("nothing is read");
  return { book, facts: bodies.map(said), last, stock };
}

/** What a page of choosing does when the last reading comes: the facts folded, the figures, the question, the plan. */
export function answered({ book, facts, last, stock }: WholeUnit): JointPlan {
  const job = fold([...facts, said(last)]);
  const applied = appliedTo(book, job, []);
  const sheets = chosenSheets(job, applied, HOUSE);
  return chooseJointly(together({ job, sheets, orders: applied.present.orders ?? [], stock }).question);
}

/**
 * How long that takes, in milliseconds: the median of many, each on a reading of its own, once what runs is warm.
 *
 * @param now a clock.
 */
export function answerTime(document: unknown, now: () => number, runs = 60): number {
  const unit = wholeUnit(document);
  const taken = Array.from({ length: runs }, () => {
    const begun = now();
    answered(unit);
    return now() - begun;
  });
  const warm = taken.slice(Math.floor(runs / 2)).sort((a, b) => a - b);
  return warm[Math.floor(warm.length / 2)] ?? Infinity;
}
