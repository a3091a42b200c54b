import { v7 as newId } from "uuid";
import { capital, isFromShelf, selectiveWord } from "~core/book";
import { jobWithBook, fold, type Fact } from "~core/fact";
import {
  chosenSheets,
  decided,
  houseOf,
  together,
  togetherAll,
  type Decided as Chosen,
  type House,
  type Together,
  type Unit,
  type Worksheet,
} from "~core/measure";
import { type Nm } from "~core/quantity";
import { agrees, sizeNear, type ChooseFirst, type Stock } from "~core/select";
import { lastSeen } from "~/server/job-context";
import type { Pool } from "~store/database";
import { addFacts, type Author } from "~store/facts";
import type { JobRecord } from "~store/jobs";
import { fitFromShelf, type Back } from "~store/shelf";
import { stockOfUnit } from "./chain-page";

/** What the builder decided at the candidates. */
export interface Decision {
  /** Made with the form: the same decision sent twice is done once. */
  id: string;
  seat: string;
  key: string;
  /** The fitting of the seat that the builder saw; another one means that somebody was quicker. */
  fit: number;
  reason: string;
  /** Micrometer on the one taken out; absent when it is scrapped or goes back by its mark. */
  removed?: Nm;
  /** The one taken out goes back by its mark. */
  byMark?: boolean;
  /** Micrometer on the one going in. */
  going?: Nm;
  /** How a part was machined: what is left of it, who proved it. */
  note?: string;
}

export type Decided = { ok: true } | { ok: false; problem: string; field?: "removed" | "going" | "note" };

/** The worksheets of a job: of every figure that something is chosen for. */
export function sheetsOf({ book, facts, houseValues }: JobRecord, house: House): Worksheet[] {
  const { job, applied } = jobWithBook(book, fold(facts), houseValues);
  return chosenSheets(job, applied, houseOf(job, house));
}

/** The worksheet of one chain of a job; null when the chain does not apply. */
export const worksheetOf = (record: JobRecord, chain: string, house: House): Worksheet | null =>
  sheetsOf(record, house).find(({ applied }) => applied.chain.id === chain) ?? null;

/** The house as far as choosing asks. */
export type ChoosingHouse = House & { chooseFirst?: ChooseFirst };

/** What a job’s question is made of. */
export function unitOf(record: JobRecord, house: ChoosingHouse, stock: readonly Stock[]): Unit {
  const { job, applied } = jobWithBook(record.book, fold(record.facts), record.houseValues);
  return {
    job,
    sheets: chosenSheets(job, applied, houseOf(job, house)),
    orders: applied.present.orders ?? [],
    stock,
    ...(house.chooseFirst ? { first: house.chooseFirst } : {}),
  };
}

/** What can be chosen on a job now, with the shelf as it is for it; for one figure’s sake where it is not open. */
export async function askedOf(
  pool: Pool,
  record: JobRecord,
  house: ChoosingHouse,
  seat?: string,
): Promise<Together> {
  const unit = unitOf(record, house, await stockOfUnit(pool, record));
  const whole = together(unit);
  if (seat === undefined || whole.seats.has(seat)) return whole;
  const chains = unit.sheets.filter(({ seats }) => seats.some(({ link }) => link.id === seat));
  return togetherAll(
    unit,
    chains.map(({ applied: { chain } }) => chain.id),
  );
}

/** Carries a decision out: facts into the job, parts off and onto the shelf, all or nothing. */
export async function decide(
  pool: Pool,
  record: JobRecord,
  house: ChoosingHouse,
  decision: Decision,
  author: Author,
): Promise<Decided> {
  if (record.facts.some(({ id }) => id === decision.id)) return { ok: true };
  const state = sheetsOf(record, house)
    .flatMap(({ seats }) => seats)
    .find(({ link }) => link.id === decision.seat);
  if (!state) return { ok: false, problem: "This does not belong to this unit’s configuration." };
  if (state.fit !== decision.fit)
    return { ok: false, problem: "Somebody else has just fitted another one here. Look again." };
  const asked = await askedOf(pool, record, house, decision.seat);
  const chosen = decided(asked, decision.seat, decision.key, decision.going);
  if (!chosen)
    return {
      ok: false,
      problem: asked.seats.has(decision.seat)
        ? "That one is no longer on the shelf: someone else has just taken it. Choose another."
        : "There are no readings yet that it could be chosen from.",
    };
  if (chosen.source.kind === "order") return { ok: false, problem: REFUSED.gone };
  const { tolerance, kind } = state.link;
  const off = (size: Nm | undefined, measured: Nm | undefined): boolean =>
    measured !== undefined && !agrees(size, measured, tolerance);
  if (off(state.fitted?.size, decision.removed)) {
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
  if (kind === "cut" && chosen.source.kind !== "fitted" && !decision.note)
    return { ok: false, field: "note", problem: "Write what is left of it, and who measured that." };
  const at: Settled = { pool, record, chosen, decision, author };
  return chosen.source.kind === "fitted" ? keep(at) : change(at);
}

/**
 * Puts the piece in that a figure is read with: it does not stay. What was in goes back onto the shelf by its mark, where it has one and that
 * is wanted.
 */
export async function putTrialIn(
  pool: Pool,
  record: JobRecord,
  house: House,
  { id, seat, fit, byMark = false }: Pick<Decision, "id" | "seat" | "fit" | "byMark">,
  author: Author,
): Promise<Decided> {
  if (record.facts.some((fact) => fact.id === id)) return { ok: true };
  const state = sheetsOf(record, house)
    .flatMap(({ seats }) => seats)
    .find(({ link }) => link.id === seat);
  const trial = state?.link.seat?.trial;
  if (!state || !trial) return { ok: false, problem: "Nothing is read with a piece of its own here." };
  if (state.fit !== fit) return { ok: false, problem: REFUSED["other fitted"] };
  const fact: Fact = {
    id,
    at: new Date().toISOString(),
    by: author.name,
    ...lastSeen(record.facts),
    body: { kind: "fitting", seat, fit: fit + 1, piece: trial, origin: "trial" },
  };
  const part = byMark && !state.isTrial ? state.fitted?.part : undefined;
  const fitted = await fitFromShelf(pool, {
    job: record.id,
    facts: [fact],
    author,
    take: null,
    back:
      part === undefined
        ? null
        : { part, name: nameOnShelf(state.link, part), measured: state.fitted?.measured ?? null },
  });
  return fitted.ok ? { ok: true } : { ok: false, problem: REFUSED[fitted.why] };
}

/** A decision that has been checked, with all it needs to be carried out. */
interface Settled {
  pool: Pool;
  record: JobRecord;
  chosen: Chosen;
  decision: Decision;
  author: Author;
}

/** The choice as a fact. */
const choiceFact = ({ record, chosen, decision, author }: Settled, kept: boolean): Fact => ({
  id: decision.id,
  at: new Date().toISOString(),
  by: author.name,
  ...lastSeen(record.facts),
  body: {
    kind: "choice",
    seat: decision.seat,
    kept,
    reason: decision.reason,
    fit: kept ? chosen.seat.fit : chosen.seat.fit + 1,
    predictions: chosen.predictions,
  },
});

/** What is in stays: the readings taken with it stand as the as-built ones. */
async function keep(settled: Settled): Promise<Decided> {
  const { pool, record, author } = settled;
  const added = await addFacts(pool, record.id, [choiceFact(settled, true)], author);
  return added.ok ? { ok: true } : { ok: false, problem: REFUSED[added.why] };
}

const REFUSED = {
  gone: "Someone else has just taken the last one, or it is put aside. Choose another.",
  "other fitted": "Somebody else has just fitted another one here. Look again.",
  closed: "The job is closed.",
  "no job": "There is no such job.",
  elsewhere: "This was said of another job already.",
} as const;

/** Another goes in: choice and fitting into the job, the piece off the shelf, the removed one back onto it. */
async function change(settled: Settled): Promise<Decided> {
  const { pool, record, chosen, decision, author } = settled;
  const { piece, source, seat } = chosen;
  const odd = source.kind === "odd piece" ? source.pieceId : undefined;
  const choice = choiceFact(settled, false);
  const body: Fact["body"] = {
    kind: "fitting",
    seat: decision.seat,
    fit: seat.fit + 1,
    piece,
    origin: source.kind === "made" ? "made" : odd ? "odd-piece" : "shelf",
    ...(decision.note ? { note: decision.note } : {}),
  };
  const fitted = await fitFromShelf(pool, {
    job: record.id,
    facts: [choice, { ...choice, id: newId(), body }],
    author,
    seat: decision.seat,
    take: piece.part === undefined || source.kind === "made" ? null : { part: piece.part, piece: odd },
    back: backOf(chosen, decision),
  });
  return fitted.ok ? { ok: true } : { ok: false, problem: REFUSED[fitted.why] };
}

/** Under which part number the removed one goes back: its own, or the size its measure is nearest to. */
function backOf(
  { seat: { fitted, link, isTrial } }: Chosen,
  { removed, byMark = false }: Decision,
): Back | null {
  if (!isFromShelf(link) || isTrial || (removed === undefined && !byMark)) return null;
  const part = fitted.part ?? (removed === undefined ? undefined : sizeNear(link, removed)?.part);
  return part ? { part, name: nameOnShelf(link, part), measured: removed ?? fitted.measured ?? null } : null;
}

/** What a size is called where the shelf does not have it yet. */
export const nameOnShelf = (link: Chosen["seat"]["link"], part: string): string =>
  `${capital(selectiveWord(link))} ${link.sizes.find((one) => one.part === part)?.mark ?? part}`;
