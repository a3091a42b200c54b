import { data, type RouterContextProvider } from "react-router";
import { jobContext, lastSeen, type JobContext } from "./job-context";
import { record } from "./record";
import { readSignature } from "./signature";

/**
 * A lead answers for something as it is, with a reason.
 *
 * @param keys what is signed for, by what `core/stage` calls it, as the job stands now; nothing is kept where it is none.
 */
export async function signOff(
  context: Readonly<RouterContextProvider>,
  request: Request,
  number: string,
  keys: (at: JobContext) => readonly string[],
) {
  const at = await jobContext(context, number);
  const intent = "sign";
  const read = await readSignature(context, request, "Say why it may leave as it is.");
  if (!read.ok) return data({ intent, problems: read.problems, typed: read.typed }, { status: read.status });
  const { id, reason, lead } = read.signature;
  const of = [...keys(at)];
  if (of.length === 0) return data({ intent, problems: {}, typed: {} });
  const fact = {
    id,
    at: new Date().toISOString(),
    by: lead.name,
    ...lastSeen(at.record.facts),
    body: { kind: "sign-off", of, reason, signedBy: lead.name } as const,
  };
  const kept = await record(context, at.record.number, [fact], lead);
  return kept.ok
    ? data({ intent, problems: {}, typed: {} })
    : data(
        { intent, problems: { reason: `Not signed: ${kept.problem}.` }, typed: { reason, lead: lead.id } },
        { status: kept.status },
      );
}
