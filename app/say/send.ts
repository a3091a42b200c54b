import { redirect } from "react-router";
import { v7 as newId } from "uuid";
import { within } from "~/door/within";
import { signedIn } from "~/server/context";
import { jobContext, lastSeen } from "~/server/job-context";
import { record } from "~/server/record";
import { BENCH, checkFacts, problemText } from "~core/fact";
import type { Route } from "./+types/send";
import { readIntake } from "./form";

const page = (lines: readonly string[], back: string, status: number): Response =>
  new Response(
    `<!doctype html><meta charset="utf-8"><title>Not kept · Yard Key</title><h1>Not kept yet</h1><ul>${lines
      .map((line) => `<li>${escape(line)}</li>`)
      .join(
        "",
      )}</ul><p>Go back in the browser: what you typed is still there. <a href="${escape(back)}">To the page</a></p>`,
    { status, headers: { "Content-Type": "text/html; charset=utf-8" } },
  );
const escape = (text: string): string => text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);

/** Where a form goes whose page's script has not loaded: the same reading of its fields as at the bench. */
export const action = async ({ context, request, params }: Route.ActionArgs): Promise<Response> => {
  const { staff } = context.get(signedIn);
  const { record: kept, applied } = await jobContext(context, params.number);
  const entries = [...(await request.formData())].filter(
    (entry): entry is [string, string] => typeof entry[1] === "string",
  );
  const read = readIntake(Object.fromEntries(entries), applied.present, newId());
  const referer = request.headers.get("referer") ?? "";
  const from = URL.canParse(referer) ? new URL(referer) : null;
  const back =
    from && from.host === request.headers.get("host") ? within(from.pathname) : `/jobs/${kept.number}`;
  if (!read.ok) return page(Object.values(read.problems), back, 400);
  const at = new Date().toISOString();
  const fact = { id: newId(), at, by: staff.name, ...lastSeen(kept.facts), body: read.body };
  const checked = checkFacts([fact], BENCH);
  if (!checked.ok) return page(checked.problems.map(problemText), back, 400);
  const done = await record(context, kept.number, checked.facts, staff);
  return done.ok ? redirect(back, 303) : page([`Not kept: ${done.problem}.`], back, done.status);
};

export const loader = (): Response => new Response("Only for sending.", { status: 405 });
