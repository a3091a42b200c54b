import { problemText } from "~core/fact";
import { check, type Shape } from "~core/shape";

/** Passes a checked question on to the bench’s gauge, which only the server reaches, and its answer back. */
export async function pass(url: string, request: Request, shape: Shape<unknown>): Promise<Response> {
  const { value, problems } = check(shape, await request.json().catch(() => null));
  const [wrong] = problems;
  if (wrong) return Response.json({ problem: problemText(wrong) }, { status: 400 });
  const answer = await fetch(url, { method: "POST", body: JSON.stringify(value) }).catch(() => null);
  return answer?.ok
    ? Response.json(await answer.json())
    : Response.json({ problem: "the gauge does not answer" }, { status: 503 });
}
