import { KEPT } from "~/offline/keys";
import Joi from "joi";
import { data, isRouteErrorResponse, redirect } from "react-router";
import { whenItMatters } from "~/look/revalidate";
import { ground, visitor } from "~/server/context";
import { readForm } from "~/server/form";
import { parseLength, type LengthUnit, type Nm } from "~core/quantity";
import { readHouse } from "~store/house";
import type { JobRecord } from "~store/jobs";
import type { Route } from "./+types/pack";
import { orKept } from "~/offline/kept";
import { decide, worksheetOf } from "./choose";
import { useJobView } from "./job";
import { packPage } from "./pack-page";
import { jobRecord, lastSeen } from "~/server/job-context";
import { record } from "~/server/record";
import { readSignature } from "~/server/signature";
import { readTyped } from "./typed";
import { Pack } from "./worksheet";

export const loader = async ({ context, params }: Route.LoaderArgs) => {
  const { pool } = context.get(ground);
  const record = await jobRecord(context, params.number);
  const page = await packPage(pool, record, params.chain);
  if (!page) throw new Response("This job has no such pack.", { status: 404 });
  return page;
};

export const clientLoader = ({ params, serverLoader }: Route.ClientLoaderArgs) =>
  orKept(KEPT.page(params.number, `pack/${params.chain}`), serverLoader);

export const shouldRevalidate = whenItMatters;

const id = Joi.string().uuid().required();

const chooseForm = Joi.object<{
  id: string;
  key: string;
  fit: number;
  reason: string;
  removed: string;
  going: string;
  scrap: string;
  byMark: string;
  unit: LengthUnit;
}>({
  id,
  key: Joi.string().max(80).required().messages({ "*": "Pick one." }),
  fit: Joi.number().integer().min(0).required(),
  reason: Joi.string().trim().allow("").max(500).default(""),
  removed: Joi.string().allow("").max(40).default(""),
  going: Joi.string().allow("").max(40).default(""),
  scrap: Joi.string().allow("").default(""),
  byMark: Joi.string().allow("").default(""),
  unit: Joi.valid("mm", "in").required(),
});
const readingForm = Joi.object<{
  id: string;
  phase: "found" | "built";
  value: string;
  sure: string;
  unit: LengthUnit;
}>({
  id,
  phase: Joi.valid("found", "built").required(),
  value: Joi.string().max(40).required().messages({ "*": "Type the reading." }),
  sure: Joi.string().allow("").default(""),
  unit: Joi.valid("mm", "in").required(),
});

export const action = async ({ context, request, params }: Route.ActionArgs) => {
  const at = await jobRecord(context, params.number);
  const intent = (await request.clone().formData()).get("intent");
  if (intent === "choose") return choose(context, request, at, params.chain);
  if (intent === "waive") return waive(context, request, at, params.chain);
  if (intent === "read") return readWithoutScript(context, request, at, params.chain);
  throw new Response("Nothing was asked for.", { status: 400 });
};

/** What could not be sent keeps what was typed: the page stays and says that the server is away. */
export const clientAction = async ({ request, serverAction }: Route.ClientActionArgs) => {
  const form = await request.clone().formData();
  try {
    return await serverAction();
  } catch (error) {
    if (error instanceof Response || isRouteErrorResponse(error)) throw error;
    const typed = Object.fromEntries(
      [...form].filter((entry): entry is [string, string] => typeof entry[1] === "string"),
    );
    const away = "The shop’s server is away; nothing was changed. Try again in a moment.";
    return { intent: typed.intent ?? "", problems: { key: away, reason: away }, typed };
  }
};

type Context = Route.ActionArgs["context"];

async function choose(context: Context, request: Request, record: JobRecord, chain: string) {
  const form = await readForm(request, chooseForm);
  if ("problems" in form) return data({ intent: "choose", ...form }, { status: 400 });
  const { pool } = context.get(ground);
  const { unit, removed, going, scrap, byMark, ...decision } = form.values;
  const typed: Record<string, string> = { ...form.values, fit: `${decision.fit}` };
  const refuse = (problems: Record<string, string>, status = 400) =>
    data({ intent: "choose", problems, typed }, { status });
  const measured: { removed?: Nm; going?: Nm } = {};
  for (const [name, value] of Object.entries({ removed, going })) {
    if (value === "") continue;
    const parsed = parseLength(value, unit);
    if (!parsed.ok) return refuse({ [name]: `${parsed.problem}; ${parsed.remedy}` });
    if (parsed.length < 200_000 || parsed.length > 20_000_000)
      return refuse({ [name]: "nothing of its series is that thick; check the unit" });
    measured[name as "removed" | "going"] = parsed.length;
  }
  const settled = measured.removed !== undefined || scrap !== "" || byMark !== "";
  if (decision.key !== "fitted" && !settled) {
    return refuse({
      removed: "Measure what came out, or tick that it goes back by its mark or is scrapped.",
    });
  }
  const house = await readHouse(pool);
  const result = await decide(
    pool,
    record,
    chain,
    house,
    { ...decision, ...measured, byMark: byMark !== "" && scrap === "" },
    context.get(visitor).staff,
  );
  return result.ok
    ? redirect(`/jobs/${record.number}/pack/${chain}?show=built`)
    : refuse({ [result.field ?? "key"]: result.problem }, result.field ? 400 : 409);
}

async function waive(context: Context, request: Request, at: JobRecord, chain: string) {
  const read = await readSignature(context, request, "Say why it may leave without an as-built verdict.");
  if (!read.ok)
    return data({ intent: "waive", problems: read.problems, typed: read.typed }, { status: read.status });
  const { id: factId, reason, lead } = read.signature;
  const body = { kind: "waiver", chain, reason, signedBy: lead.name } as const;
  const fact = {
    id: factId,
    at: new Date().toISOString(),
    by: lead.name,
    body,
    ...lastSeen(at.facts),
  };
  const kept = await record(context, at.number, [fact], lead);
  return kept.ok
    ? data({ intent: "waive", done: true })
    : data(
        {
          intent: "waive",
          problems: { reason: `Not signed: ${kept.problem}.` },
          typed: { reason, lead: lead.id },
        },
        { status: kept.status },
      );
}

/** A typed reading from a page whose script has not loaded: the same checks as at the bench. */
async function readWithoutScript(context: Context, request: Request, at: JobRecord, chain: string) {
  const form = await readForm(request, readingForm);
  if ("problems" in form) return data({ intent: "read", ...form }, { status: 400 });
  const { pool } = context.get(ground);
  const { id: factId, phase, value, sure, unit } = form.values;
  const sheet = worksheetOf(at, chain, await readHouse(pool));
  if (!sheet) throw new Response("This job has no such pack.", { status: 404 });
  const read = readTyped(value, unit, sheet, phase, sure !== "");
  if (!read.ok)
    return data({ intent: "read", problems: { value: read.problem }, typed: { value } }, { status: 400 });
  const { staff } = context.get(visitor);
  const fact = {
    id: factId,
    at: new Date().toISOString(),
    by: staff.name,
    body: read.body,
    ...lastSeen(at.facts),
  };
  const kept = await record(context, at.number, [fact], staff);
  if (!kept.ok)
    return data(
      { intent: "read", problems: { value: `Not kept: ${kept.problem}.` }, typed: { value } },
      { status: kept.status },
    );
  return data({ intent: "read", done: true });
}

export default function PackPage({ loaderData, actionData, params }: Route.ComponentProps) {
  const { sheets } = useJobView();
  const sheet = sheets.find(({ applied }) => applied.chain.id === params.chain);
  if (!sheet)
    return <p className="plate mt-3 p-6 text-xl">This pack does not belong to this unit’s configuration.</p>;
  return <Pack key={params.chain} sheet={sheet} actionData={actionData} {...loaderData} />;
}
