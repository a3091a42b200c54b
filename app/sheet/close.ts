import { data, type RouterContextProvider } from "react-router";
import { pricedParts } from "~/inspect/worth-of";
import { services, signedIn } from "~/server/context";
import { readForm, typedIn } from "~/server/form";
import { jobContext, lastSeen, type JobContext } from "~/server/job-context";
import { recordClosing } from "~/server/record";
import { field, uuid } from "~core/shape";
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
  const { staff } = context.get(signedIn);
  const form = readForm({ id: field(uuid) }, await typedIn(request));
  if ("problems" in form) throw new Response("There is no such job.", { status: 404 });
  const { id } = form.values;
  const at = await jobContext(context, number);
  if (at.job.closed) return data({ problem: "" });
  const problem = hinders(at, staff);
  if (problem) return data({ problem }, { status: 409 });
  const { rule, target, steels, bushings, hourCents, comebackCents } = at.house;
  const prices = await pricesOf(context.get(services).pool, pricedParts(at.record.book));
  const house = { rule, target, steels, bushings, hourCents, comebackCents };
  const body = {
    kind: "closed" as const,
    rule,
    house,
    prices: prices.map(([part, cents]): [string, number] => [part, cents]),
  };
  const fact = { id, at: new Date().toISOString(), by: staff.name, ...lastSeen(at.record.facts), body };
  const done = await recordClosing(context, at.record, fact, staff);
  return done.ok ? data({ problem: "" }) : data({ problem: done.problem }, { status: done.status });
}
