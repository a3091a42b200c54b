import { KEPT } from "~/offline/keys";
import { data, redirect } from "react-router";
import { skipTabChanges } from "~/look/revalidate";
import { services, signedIn } from "~/server/context";
import { readForm, typedIn } from "~/server/form";
import { field, maybeWords, oneOf, uuid, whole, words, type Fields } from "~core/shape";
import { isFromShelf } from "~core/book";
import { type Nm } from "~core/quantity";
import { FITTED } from "~core/select";
import { parseReading } from "~core/reading";
import { readHouse } from "~store/house";
import type { JobRecord } from "~store/jobs";
import { placeFor, receive } from "~store/shelf";
import type { Route } from "./+types/chain";
import { loadOrKept } from "~/offline/kept";
import { AWAY, unlessAway } from "~/look/unless-away";
import { decide, nameOnShelf, putTrialIn, worksheetOf } from "./decide";
import { useJobView } from "~/view/view";
import { chainPage } from "./chain-page";
import { jobRecord, lastSeen } from "~/server/job-context";
import { record } from "~/server/record";
import { readSignature } from "~/server/signature";
import { readTyped } from "~/reading/typed";
import { useShelfAnew } from "./use-shelf-anew";
import { ChainSheet } from "./worksheet";

export const loader = async ({ context, params }: Route.LoaderArgs) => {
  const { pool } = context.get(services);
  const record = await jobRecord(context, params.number);
  const page = await chainPage(pool, record, params.chain);
  if (!page) throw new Response("Nothing of that name is chosen for on this job.", { status: 404 });
  return page;
};

export const clientLoader = ({ params, serverLoader }: Route.ClientLoaderArgs) =>
  loadOrKept(KEPT.page(params.number, `choose/${params.chain}`), serverLoader);

export const shouldRevalidate = skipTabChanges;

const chosen = {
  id: field(uuid),
  seat: field(words(1, 120), "Pick one."),
  key: field(words(1, 120), "Pick one."),
  fit: field(whole(0, 1000)),
  reason: field(maybeWords(500)),
  removed: field(maybeWords(40)),
  going: field(maybeWords(40)),
  scrap: field(maybeWords(10)),
  byMark: field(maybeWords(10)),
  note: field(maybeWords(500)),
  unit: field(oneOf("mm", "in")),
};
const taken = {
  id: field(uuid),
  phase: field(oneOf("found", "built")),
  value: field(words(1, 40), "Type the reading."),
  sure: field(maybeWords(10)),
  unit: field(oneOf("mm", "in")),
};

export const action = async ({ context, request, params }: Route.ActionArgs) => {
  const at = await jobRecord(context, params.number);
  const typed = await typedIn(request);
  const { intent } = typed;
  if (intent === "choose") return choose(context, typed, at, params.chain);
  if (intent === "here") return takeIn(context, typed, at, params.chain);
  if (intent === "trial") return putIn(context, typed, at);
  if (intent === "waive") return waive(context, request, at, params.chain);
  if (intent === "read") return readWithoutScript(context, typed, at, params.chain);
  throw new Response("Nothing was asked for.", { status: 400 });
};

/** What could not be sent keeps what was typed: the page stays and says that the server is away. */
export const clientAction = async ({ request, serverAction }: Route.ClientActionArgs) => {
  const form = await request.clone().formData();
  return unlessAway(serverAction, () => {
    const typed = Object.fromEntries(
      [...form].filter((entry): entry is [string, string] => typeof entry[1] === "string"),
    );
    return { intent: typed.intent ?? "", problems: { key: AWAY, reason: AWAY }, typed };
  });
};

type Context = Route.ActionArgs["context"];

const inHand = { id: field(uuid), seat: field(words(1, 120)), part: field(words(1, 80)) };

/** A piece that somebody holds and the shelf does not know: it is one more there, by their name. */
async function takeIn(context: Context, given: Fields, record: JobRecord, chain: string) {
  const form = readForm(inHand, given);
  if ("problems" in form) return data({ intent: "here", ...form }, { status: 400 });
  const { pool } = context.get(services);
  const { id, seat, part } = form.values;
  const found = worksheetOf(record, chain, await readHouse(pool))?.seats.find(({ link }) => link.id === seat);
  if (!found?.link.sizes.some((one) => one.part === part))
    throw new Response("There is no such size.", { status: 404 });
  await placeFor(pool, part, nameOnShelf(found.link, part));
  await receive(pool, { id, part, quantity: 1, by: context.get(signedIn).staff.name });
  return data({ intent: "here", problems: {}, typed: {} });
}

async function choose(context: Context, given: Fields, record: JobRecord, chain: string) {
  const form = readForm(chosen, given);
  if ("problems" in form) return data({ intent: "choose", ...form }, { status: 400 });
  const { pool } = context.get(services);
  const { unit, removed, going, scrap, byMark, note, ...decision } = form.values;
  const typed: Record<string, string> = { ...form.values, fit: `${decision.fit}` };
  const refuse = (problems: Record<string, string>, status = 400) =>
    data({ intent: "choose", problems, typed }, { status });
  const measured: { removed?: Nm; going?: Nm } = {};
  for (const [name, value] of Object.entries({ removed, going })) {
    if (value === "") continue;
    const parsed = parseReading(value, unit);
    if (!parsed.ok) return refuse({ [name]: `${parsed.problem}; ${parsed.remedy}` });
    if (parsed.length < 200_000 || parsed.length > 40_000_000)
      return refuse({ [name]: "nothing of its series is that thick; check the unit" });
    measured[name as "removed" | "going"] = parsed.length;
  }
  const house = await readHouse(pool);
  const link = worksheetOf(record, chain, house)?.seats.find(({ link: { id } }) => id === decision.seat);
  // Of what is set or made on the spot nothing comes out.
  const out = link?.fitted && isFromShelf(link.link) && !link.isTrial && link.fitted.size !== 0;
  const settled = measured.removed !== undefined || scrap !== "" || byMark !== "";
  if (decision.key !== FITTED && out && !settled) {
    return refuse({
      removed: "Measure what came out, or tick that it goes back by its mark or is scrapped.",
    });
  }
  const result = await decide(
    pool,
    record,
    house,
    { ...decision, ...measured, byMark: byMark !== "" && scrap === "", ...(note ? { note } : {}) },
    context.get(signedIn).staff,
  );
  return result.ok
    ? redirect(`/jobs/${record.number}/choose/${chain}?show=built`)
    : refuse({ [result.field ?? "key"]: result.problem }, result.field ? 400 : 409);
}

const triedWith = {
  id: field(uuid),
  seat: field(words(1, 120)),
  fit: field(whole(0, 1000)),
  byMark: field(maybeWords(10)),
};

/** The piece it is read with goes in. */
async function putIn(context: Context, given: Fields, record: JobRecord) {
  const form = readForm(triedWith, given);
  if ("problems" in form) return data({ intent: "trial", ...form }, { status: 400 });
  const { pool } = context.get(services);
  const { byMark, ...rest } = form.values;
  const asked = { ...rest, byMark: byMark !== "" };
  const result = await putTrialIn(pool, record, await readHouse(pool), asked, context.get(signedIn).staff);
  return result.ok
    ? data({ intent: "trial", done: true })
    : data({ intent: "trial", problems: { key: result.problem }, typed: {} }, { status: 409 });
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
async function readWithoutScript(context: Context, typed: Fields, at: JobRecord, chain: string) {
  const form = readForm(taken, typed);
  if ("problems" in form) return data({ intent: "read", ...form }, { status: 400 });
  const { pool } = context.get(services);
  const { id: factId, phase, value, sure, unit } = form.values;
  const sheet = worksheetOf(at, chain, await readHouse(pool));
  if (!sheet) throw new Response("Nothing of that name is chosen for on this job.", { status: 404 });
  const read = readTyped(value, unit, sheet, phase, sure !== "");
  if (!read.ok)
    return data({ intent: "read", problems: { value: read.problem }, typed: { value } }, { status: 400 });
  const { staff } = context.get(signedIn);
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

export default function ChainPage({ loaderData, actionData, params }: Route.ComponentProps) {
  const { sheets, number } = useJobView();
  // Its own ids stay those it was loaded with: a form that is sent twice is carried out once.
  const { stock } = useShelfAnew(`/jobs/${number}/choose/${params.chain}`, loaderData);
  const sheet = sheets.find(({ applied }) => applied.chain.id === params.chain);
  if (!sheet)
    return <p className="plate mt-3 p-6 text-xl">This does not belong to this unit’s configuration.</p>;
  return (
    <ChainSheet key={params.chain} sheet={sheet} actionData={actionData} {...loaderData} stock={stock} />
  );
}
