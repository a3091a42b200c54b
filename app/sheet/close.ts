import { data, type RouterContextProvider } from "react-router";
import { pricedParts } from "~/inspect/worth-of";
import { services, signedIn } from "~/server/context";
import { readForm, typedIn } from "~/server/form";
import { jobContext, lastSeen, type JobContext } from "~/server/job-context";
import { recordClosing } from "~/server/record";
import { field, uuid } from "~core/shape";
import type { BodyOf, Fact } from "~core/fact";
import { readSignature } from "~/server/signature";
import { cancelFor } from "~store/orders";
import { pricesOf } from "~store/prices";
import type { Staff } from "~store/staff";

/**
 * Closes a job: nothing more is added to it. The same form sent twice closes it once.
 *
 * @param hinders what still stands in the way, in words; empty when nothing does.
 */
export async function closeJob(
  context: Readonly<RouterContextProvider>,
  request: Request,
  number: number,
  hinders: (at: JobContext, staff: Staff) => string,
) {
  const form = readForm({ id: field(uuid) }, await typedIn(request));
  if ("problems" in form) throw new Response("There is no such job.", { status: 404 });
  const { staff } = context.get(signedIn);
  const at = await jobContext(context, number);
  if (at.job.closed) return data({ problem: "" });
  const problem = hinders(at, staff);
  if (problem) return data({ problem }, { status: 409 });
  const done = await recordClosing(
    context,
    at.record,
    await closing(context, at, form.values.id, staff),
    staff,
  );
  return done.ok ? data({ problem: "" }) : data({ problem: done.problem }, { status: done.status });
}

/** A lead calls a job off, unfinished: nothing is wanted for it any more, and what is on order is cancelled as far as it still can be. */
export async function callOff(context: Readonly<RouterContextProvider>, request: Request, number: number) {
  const read = await readSignature(context, request, "Say why it is called off.");
  const intent = "call-off";
  if (!read.ok) return data({ intent, problems: read.problems, typed: read.typed }, { status: read.status });
  const { id, reason, lead } = read.signature;
  const at = await jobContext(context, number);
  if (at.job.closed) return data({ intent, problems: {}, typed: {} });
  const fact = await closing(context, at, id, lead, { reason, signedBy: lead.name });
  const { tellSupplier } = context.get(services);
  const done = await recordClosing(context, at.record, fact, lead, (db) =>
    cancelFor(db, at.record.id, { note: `job ${number} called off`, by: lead.name }, tellSupplier),
  );
  if (done.ok) return data({ intent, problems: {}, typed: {} });
  return data(
    { intent, problems: { reason: `Not called off: ${done.problem}` }, typed: { reason, lead: lead.id } },
    { status: done.status },
  );
}

/** The fact that closes a job, with everything the house had chosen and the prices it was decided with. */
async function closing(
  context: Readonly<RouterContextProvider>,
  at: JobContext,
  id: string,
  { name }: Staff,
  calledOff?: BodyOf<"closed">["calledOff"],
): Promise<Fact> {
  const { rule, target, steels, bushings, hourCents, comebackCents } = at.house;
  const prices = await pricesOf(context.get(services).pool, pricedParts(at.record.book));
  const house = { rule, target, steels, bushings, hourCents, comebackCents };
  const body = {
    kind: "closed" as const,
    rule,
    house,
    prices: prices.map(([part, cents]): [string, number] => [part, cents]),
    ...(calledOff ? { calledOff } : {}),
  };
  return { id, at: new Date().toISOString(), by: name, ...lastSeen(at.record.facts), body };
}
