import type { RouterContextProvider } from "react-router";
import {
  againstBook,
  fold,
  isLessThanAgreed,
  LEADS,
  mayReplace,
  notAllowed,
  problemText,
  type Fact,
} from "~core/fact";
import { bookById } from "~store/books";
import {
  FOREIGN_KEY_VIOLATION,
  sqlState,
  UNIQUE_VIOLATION,
  type Pool,
  type Queryable,
} from "~store/database";
import { addFacts, closeJob, factsById, factsOf, type Author } from "~store/facts";
import { jobPlace, type JobRecord } from "~store/jobs";
import type { Role } from "~store/staff";
import { services } from "./context";
import { readAnew } from "./job-context";

/** What became of facts that were to be kept. */
export type Recorded = { ok: true } | { ok: false; status: 400 | 403 | 404 | 409; problem: string };

/** Whoever says something, with what they may say. */
export type Speaker = Author & { role: Role };

const refuse = (status: 400 | 403 | 404 | 409, problem: string): Recorded => ({ ok: false, status, problem });

const REFUSED = {
  closed: "the job is closed",
  "no job": "there is no such job",
  elsewhere: "it was said of another job already",
} as const;

/**
 * The door through which facts of a job are kept, each once however often it comes. They are held against the book of the job and the role
 * of who says them; their form has been checked by whoever read them.
 *
 * @param request of a browser that may say which job it meant.
 * @returns whether they are kept; what refuses them is told in words, and nothing of them is kept then.
 */
export async function record(
  context: Readonly<RouterContextProvider>,
  number: number,
  facts: readonly Fact[],
  author: Speaker,
  request?: Request,
): Promise<Recorded> {
  readAnew(context);
  const { pool } = context.get(services);
  const place = await jobPlace(pool, number);
  if (!place) return refuse(404, REFUSED["no job"]);
  const another = request ? otherJob(request, place.id) : "";
  if (another) return refuse(409, another);
  const forbidden = notAllowed(facts, author.role);
  if (forbidden) return refuse(403, `${FORBIDDEN[forbidden] ?? `a ${author.role} does not say this`}`);
  const misplaced = await replacesAnother(pool, place.id, facts);
  if (misplaced) return refuse(409, misplaced);
  const narrowed = LEADS.includes(author.role) ? "" : await narrows(context, place, facts);
  if (narrowed) return refuse(403, narrowed);
  const [astray] = againstBook(facts, (await bookById(pool, place.book)).book);
  if (astray) return refuse(400, problemText(astray));
  try {
    const added = await addFacts(pool, place.id, facts, author);
    return added.ok ? { ok: true } : refuse(added.why === "no job" ? 404 : 409, REFUSED[added.why]);
  } catch (error) {
    if (sqlState(error) === UNIQUE_VIOLATION)
      return refuse(409, "somebody else has said which ring was in; look again");
    if (sqlState(error) === FOREIGN_KEY_VIOLATION)
      return refuse(409, "it corrects something this job does not have");
    throw error;
  }
}

/**
 * What is wrong with something sent to a job by its number: a browser may have waited so long that the database is another one, where the number
 * is another vehicle's. It says which job it meant.
 *
 * @param job the id of the one that has this number here.
 */
export function otherJob(request: Request, job: string): string {
  const meant = request.headers.get("x-job");
  if (meant === null || meant === job) return "";
  return "it was said of a job that this database does not have under its number: read it here and say it again there";
}

/** What is wrong with a correction: it may stand only in the place of one of its own kind about the same thing. */
async function replacesAnother(pool: Pool, job: string, facts: readonly Fact[]): Promise<string> {
  const correcting = facts.filter(({ replaces }) => replaces !== undefined);
  if (correcting.length === 0) return "";
  const stored = await factsById(
    pool,
    job,
    correcting.flatMap(({ replaces }) => replaces ?? []),
  );
  const known = new Map([...stored, ...facts].map((fact) => [fact.id, fact]));
  const wrong = correcting.find((fact) => {
    const old = known.get(fact.replaces ?? "");
    return old !== undefined && !mayReplace(fact, old);
  });
  return wrong ? `a ${wrong.body.kind} takes only its own like back, about the same thing` : "";
}

/** Once the unit is being taken apart, less work than was agreed is a lead’s to decide. */
async function narrows(
  context: Readonly<RouterContextProvider>,
  place: { id: string; book: string },
  facts: readonly Fact[],
): Promise<string> {
  const scopes = facts.flatMap(({ body }) => (body.kind === "scope" ? [body.depths] : []));
  if (scopes.length === 0) return "";
  const { pool } = context.get(services);
  const job = fold(await factsOf(pool, place.id));
  const { book } = await bookById(pool, place.book);
  const less = scopes.some((scope) => isLessThanAgreed(book, job, scope));
  return less ? "the unit is open: a lead decides that less is done to it" : "";
}

/**
 * Closes a job, if nothing was said of it since the place in the order that closing was decided on.
 *
 * @param at what was read of the job when it was decided.
 * @param then what else is done with it, or not at all.
 */
export async function recordClosing(
  context: Readonly<RouterContextProvider>,
  at: Pick<JobRecord, "id" | "seq">,
  fact: Fact,
  author: Speaker,
  then?: (db: Queryable) => Promise<void>,
): Promise<Recorded> {
  readAnew(context);
  const closed = await closeJob(context.get(services).pool, at.id, fact, at.seq, author, then);
  if (closed.ok) return { ok: true };
  return closed.why === "more said"
    ? refuse(409, "Somebody has just said more of this job. Look again, then close it.")
    : refuse(409, REFUSED[closed.why]);
}

const FORBIDDEN: Readonly<Partial<Record<Fact["body"]["kind"], string>>> = {
  "way-on": "a lead decides whether it is rebuilt",
  waiver: "a lead signs it",
};
