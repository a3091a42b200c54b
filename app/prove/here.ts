import { services, signedIn } from "~/server/context";
import { problemText } from "~core/fact";
import { check, object, oneOf, words } from "~core/shape";
import { hearHere } from "~store/here";
import { jobUnit } from "~store/jobs";
import type { Route } from "./+types/here";

const asked = object({ procedure: words(1, 120), side: oneOf("seat", "lift", "both") });

/** Somebody is at a procedure; the answer tells who else is. */
export const action = async ({ context, params, request }: Route.ActionArgs): Promise<Response> => {
  const { value, problems } = check(asked, await request.json().catch(() => null));
  const [wrong] = problems;
  if (wrong) return Response.json({ problem: problemText(wrong) }, { status: 400 });
  const { pool } = context.get(services);
  const job = Number(params.number);
  if (!(await jobUnit(pool, job))) return Response.json({ problem: "there is no such job" }, { status: 404 });
  const person = context.get(signedIn).staff.name;
  return Response.json(await hearHere(pool, { job, person, ...value }));
};

export const loader = (): Response => new Response("Only for saying so.", { status: 405 });
