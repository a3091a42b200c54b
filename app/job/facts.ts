import { ground, visitor } from "~/server/context";
import { FOREIGN_KEY_VIOLATION, sqlState, UNIQUE_VIOLATION } from "~store/database";
import { addFacts, factsSince, type Author } from "~store/facts";
import { staffById, type Staff } from "~store/staff";
import { vouchedFor } from "~/server/voucher";
import { jobIdByNumber } from "~store/jobs";
import type { Route } from "./+types/facts";
import { readBenchFacts } from "./fact-schema";

const refuse = (status: number, problem: string): Response => Response.json({ problem }, { status });

const REFUSED = {
  closed: "the job is closed",
  "no job": "there is no such job",
  elsewhere: "it was said of another job already",
} as const;

/** Who said it: whoever is signed in, or whoever was when it was said, as their voucher proves. */
async function authorOf(
  context: Route.ActionArgs["context"],
  request: Request,
): Promise<Author & Pick<Staff, "role">> {
  const { pool, cookieKey } = context.get(ground);
  const { staff } = context.get(visitor);
  const said = vouchedFor(cookieKey, request.headers.get("x-said-by"));
  const other = said && said !== staff.id ? await staffById(pool, said) : null;
  return other ? { id: other.id, name: other.name, role: other.role, sentBy: staff.id } : staff;
}

/** Where the outbox sends. Each fact is stored once however often it comes; 4xx means it never will be. */
export const action = async ({ context, request, params }: Route.ActionArgs): Promise<Response> => {
  const read = readBenchFacts(await request.json().catch(() => null));
  if (!read.ok) return refuse(400, read.problem);
  const { pool } = context.get(ground);
  const job = await jobIdByNumber(pool, Number(params.number));
  if (!job) return refuse(404, "there is no such job");
  try {
    const author = await authorOf(context, request);
    const leads = author.role === "lead" || author.role === "owner";
    if (!leads && read.facts.some(({ body }) => body.kind === "way-on"))
      return refuse(403, "a lead decides whether it is rebuilt");
    const added = await addFacts(pool, job, read.facts, author);
    return added.ok ? Response.json({ stored: read.facts.length }) : refuse(409, REFUSED[added.why]);
  } catch (error) {
    if (sqlState(error) === UNIQUE_VIOLATION)
      return refuse(409, "somebody else has said which ring was in; look again");
    if (sqlState(error) === FOREIGN_KEY_VIOLATION)
      return refuse(409, "it corrects something this job does not have");
    throw error;
  }
};

/** What was said since a place in the order stored, by anyone. */
export const loader = async ({ context, request, params }: Route.LoaderArgs): Promise<Response> => {
  const { pool } = context.get(ground);
  const after = Number(new URL(request.url).searchParams.get("after"));
  const job = await jobIdByNumber(pool, Number(params.number));
  if (!job) return refuse(404, "there is no such job");
  if (!Number.isSafeInteger(after) || after < 0)
    return refuse(400, "after is not a place in the order stored");
  return Response.json(await factsSince(pool, job, after), { headers: { "Cache-Control": "no-store" } });
};
