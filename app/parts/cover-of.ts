import { services } from "~/server/context";
import { coveredBeside, type Ways } from "~/server/beside";
import { supplierRecords, type SupplierRecord } from "~store/orders";
import type { Route } from "./+types/cover-of";
import { coverQuestion } from "./ways-of";

/** What the page of a job’s parts is answered. */
export type Covered = Ways & { records: SupplierRecord[] };

/** The ways to cover what a job needs, for its page, and how its suppliers are. */
export const loader = async ({ context, params }: Route.LoaderArgs): Promise<Response> => {
  const { question } = await coverQuestion(context, params.number);
  const [ways, records] = await Promise.all([
    coveredBeside(question),
    supplierRecords(context.get(services).pool),
  ]);
  const answer: Covered = { front: ways.front, plain: ways.plain, records };
  return Response.json(answer, { headers: { "Cache-Control": "no-store" } });
};
