import { redirect } from "react-router";
import { v7 as newId } from "uuid";
import { readBenchFacts } from "~/job/fact-schema";
import { ground, visitor } from "~/server/context";
import { appliedTo, fold } from "~core/job";
import { addFacts } from "~store/facts";
import { jobByNumber } from "~store/jobs";
import type { Route } from "./+types/say";
import { readIntake } from "./intake-form";

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
  const { pool } = context.get(ground);
  const { staff } = context.get(visitor);
  const record = await jobByNumber(pool, Number(params.number));
  if (!record) throw new Response("There is no job of this number.", { status: 404 });
  const entries = [...(await request.formData())].filter(
    (entry): entry is [string, string] => typeof entry[1] === "string",
  );
  const job = fold(record.facts);
  const { unit } = appliedTo(record.book, job, record.houseValues);
  const read = readIntake(Object.fromEntries(entries), unit, newId());
  const referer = request.headers.get("referer") ?? "";
  const from = URL.canParse(referer) ? new URL(referer) : null;
  const back = from && from.host === request.headers.get("host") ? from.pathname : `/jobs/${record.number}`;
  if (!read.ok) return page(Object.values(read.problems), back, 400);
  const fact = { id: newId(), at: new Date().toISOString(), by: staff.name, body: read.body };
  const checked = readBenchFacts([fact]);
  if (!checked.ok) return page([checked.problem], back, 400);
  const added = await addFacts(pool, record.id, checked.facts, staff);
  return added.ok ? redirect(back, 303) : page(["This job is closed."], back, 409);
};

export const loader = (): Response => new Response("Only for sending.", { status: 405 });
