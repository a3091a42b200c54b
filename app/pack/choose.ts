import { v7 as newId } from "uuid";
import { appliedTo, fold, type Fact } from "~core/fact";
import { worksheet, worksheetCandidates, type House, type Worksheet } from "~core/measure";
import { nm, type Nm } from "~core/quantity";
import { agrees, sizeNear, type SelectiveCandidate } from "~core/select";
import { lastSeen } from "~/server/job-context";
import type { Pool } from "~store/database";
import { addFacts, type Author } from "~store/facts";
import type { JobRecord } from "~store/jobs";
import { fitFromShelf, stockOf } from "~store/shelf";

/** What the builder decided at the candidates. */
export interface Decision {
  /** Made with the form: the same decision sent twice is done once. */
  id: string;
  key: string;
  /** The fitting the builder saw; another one means that somebody was quicker. */
  fit: number;
  reason: string;
  /** Micrometer on the one taken out; absent when it is scrapped or goes back by its mark. */
  removed?: Nm;
  /** The one taken out goes back by its mark. */
  byMark?: boolean;
  /** Micrometer on the one going in. */
  going?: Nm;
}

export type Decided = { ok: true } | { ok: false; problem: string; field?: "removed" | "going" };

/** The worksheet of one chain of a job; null when the chain does not apply. */
export function worksheetOf(
  { book, facts, houseValues }: JobRecord,
  chain: string,
  house: House,
): Worksheet | null {
  const job = fold(facts);
  const applied = appliedTo(book, job, houseValues);
  const found = applied.packs.find((candidate) => candidate.chain.id === chain);
  return found ? worksheet(job, found, house) : null;
}

const partsOf = (sheet: Worksheet): string[] => sheet.applied.series?.sizes.map(({ part }) => part) ?? [];

/** Carries a decision out: facts into the job, parts off and onto the shelf, all or nothing. */
export async function decide(
  pool: Pool,
  record: JobRecord,
  chain: string,
  house: House,
  decision: Decision,
  author: Author,
): Promise<Decided> {
  if (record.facts.some(({ id }) => id === decision.id)) return { ok: true };
  const sheet = worksheetOf(record, chain, house);
  if (!sheet) return { ok: false, problem: "This pack does not belong to this unit’s configuration." };
  if (sheet.fit !== decision.fit)
    return { ok: false, problem: "Somebody else has just fitted another one here. Look again." };
  const candidates = worksheetCandidates(sheet, await stockOf(pool, partsOf(sheet)), house.rule);
  const chosen = candidates.find(({ key }) => key === decision.key);
  if (!chosen)
    return {
      ok: false,
      problem: "That one is no longer on the shelf: someone else has just taken it. Choose another.",
    };
  if (chosen.source.kind === "order") return { ok: false, problem: REFUSED.gone };
  const { tolerance } = sheet.applied.series ?? { tolerance: nm(0) };
  const off = (size: Nm | undefined, measured: Nm | undefined): boolean =>
    measured !== undefined && !agrees(size, measured, tolerance);
  if (off(sheet.fitted?.size, decision.removed)) {
    const problem = "That is far from its mark: measure again, or correct under As found which one was in.";
    return { ok: false, field: "removed", problem };
  }
  if (off(chosen.piece.size, decision.going)) {
    return {
      ok: false,
      field: "going",
      problem: "That is far from its mark: another one, or measure again.",
    };
  }
  const at: Settled = { pool, record, chain, sheet, chosen, decision, author };
  return chosen.source.kind === "fitted" ? keep(at) : change(at);
}

/** A decision that has been checked, with all it needs to be carried out. */
interface Settled {
  pool: Pool;
  record: JobRecord;
  chain: string;
  sheet: Worksheet;
  chosen: SelectiveCandidate;
  decision: Decision;
  author: Author;
}

const predictionOf = ({ predicted, chance }: SelectiveCandidate) => ({
  mean: predicted.mean,
  expanded: predicted.expanded,
  chance,
});

/** The choice as a fact. */
const choiceFact = ({ record, chain, sheet, chosen, decision, author }: Settled, kept: boolean): Fact => ({
  id: decision.id,
  at: new Date().toISOString(),
  by: author.name,
  ...lastSeen(record.facts),
  body: {
    kind: "choice",
    chain,
    kept,
    reason: decision.reason,
    fit: kept ? sheet.fit : sheet.fit + 1,
    prediction: predictionOf(chosen),
  },
});

/** The fitted ring stays: the readings taken with it stand as the as-built ones. */
async function keep(settled: Settled): Promise<Decided> {
  const { pool, record, author } = settled;
  const added = await addFacts(pool, record.id, [choiceFact(settled, true)], author);
  return added.ok ? { ok: true } : { ok: false, problem: REFUSED[added.why] };
}

const REFUSED = {
  gone: "Someone else has just taken the last one. Choose another.",
  "other fitted": "Somebody else has just fitted another one here. Look again.",
  closed: "The job is closed.",
  "no job": "There is no such job.",
  elsewhere: "This was said of another job already.",
} as const;

/** Another ring goes in: choice and fitting into the job, the ring off the shelf, the removed one back onto it. */
async function change(settled: Settled): Promise<Decided> {
  const { pool, record, chain, sheet, chosen, decision, author } = settled;
  const { part } = chosen.piece;
  if (!part) return { ok: false, problem: "That piece has no part number." };
  const odd = chosen.source.kind === "odd piece" ? chosen.source.pieceId : undefined;
  const piece = decision.going === undefined ? chosen.piece : { ...chosen.piece, measured: decision.going };
  const choice = choiceFact(settled, false);
  const body: Fact["body"] = {
    kind: "fitting",
    chain,
    fit: sheet.fit + 1,
    piece,
    origin: odd ? "odd-piece" : "shelf",
  };
  const fitted = await fitFromShelf(pool, {
    job: record.id,
    facts: [choice, { ...choice, id: newId(), body }],
    author,
    take: { part, piece: odd },
    back: backOf(sheet, decision),
  });
  return fitted.ok ? { ok: true } : { ok: false, problem: REFUSED[fitted.why] };
}

/** Under which part number the removed ring goes back: its own, or the size its measure is nearest to. */
function backOf(
  { fitted, applied: { series } }: Worksheet,
  { removed, byMark = false }: Decision,
): { part: string; measured: Nm | null } | null {
  if (!series) return null;
  if (removed === undefined)
    return byMark && fitted?.part ? { part: fitted.part, measured: fitted.measured ?? null } : null;
  const part = fitted?.part ?? sizeNear(series, removed)?.part;
  return part ? { part, measured: removed } : null;
}
