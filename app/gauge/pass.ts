import type { AnySchema } from "joi";
import { check } from "~/server/check";

/** Passes a checked question on to the bench’s gauge, which only the server reaches, and its answer back. */
export async function pass(url: string, request: Request, schema: AnySchema): Promise<Response> {
  const checked = check<unknown>(schema, await request.json().catch(() => null));
  if (!checked.ok) return Response.json({ problem: checked.details[0]?.message }, { status: 400 });
  const answer = await fetch(url, { method: "POST", body: JSON.stringify(checked.value) }).catch(() => null);
  return answer?.ok
    ? Response.json(await answer.json())
    : Response.json({ problem: "the gauge does not answer" }, { status: 503 });
}
