import { services, signedIn } from "~/server/context";
import { record, type Speaker } from "~/server/record";
import { vouchedFor } from "~/server/voucher";
import { BENCH, checkFacts, problemText } from "~core/fact";
import { factsSince } from "~store/facts";
import { jobIdByNumber } from "~store/jobs";
import { staffById } from "~store/staff";
import type { Route } from "./+types/facts";

const refuse = (status: number, problem: string): Response => Response.json({ problem }, { status });

/**
 * Who said it: whoever is signed in, or whoever was when it was said, as their voucher proves.
 *
 * @returns null where that cannot be told: then nobody is said to have said it.
 */
async function speakerOf(context: Route.ActionArgs["context"], request: Request): Promise<Speaker | null> {
  const { pool, cookieKey } = context.get(services);
  const { staff } = context.get(signedIn);
  const voucher = request.headers.get("x-said-by");
  if (voucher === null) return staff;
  const said = vouchedFor(cookieKey, voucher);
  if (said?.staff === staff.id) return staff;
  const other = said?.holds ? await staffById(pool, said.staff) : null;
  // Somebody else sends it: it says what anybody may, and no more, and wherever its author is shown it says who sent it.
  return other
    ? { id: other.id, name: `${other.name}, sent by ${staff.name}`, role: "builder", sentBy: staff.id }
    : null;
}

/** Where the outbox sends. Each fact is stored once however often it comes; 4xx means it never will be. */
export const action = async ({ context, request, params }: Route.ActionArgs): Promise<Response> => {
  const read = checkFacts(await request.json().catch(() => null), BENCH);
  if (!read.ok) return refuse(400, read.problems.slice(0, 5).map(problemText).join("; "));
  const speaker = await speakerOf(context, request);
  if (!speaker) return refuse(403, "nobody can be told to have said it; sign in as whoever did");
  const kept = await record(context, Number(params.number), read.facts, speaker, request);
  return kept.ok ? Response.json({ stored: read.facts.length }) : refuse(kept.status, kept.problem);
};

/** What was said since a place in the order stored, by anyone. */
export const loader = async ({ context, request, params }: Route.LoaderArgs): Promise<Response> => {
  const { pool } = context.get(services);
  const after = Number(new URL(request.url).searchParams.get("after"));
  const job = await jobIdByNumber(pool, Number(params.number));
  if (!job) return refuse(404, "there is no such job");
  if (!Number.isSafeInteger(after) || after < 0)
    return refuse(400, "after is not a place in the order stored");
  return Response.json(await factsSince(pool, job, after), { headers: { "Cache-Control": "no-store" } });
};
