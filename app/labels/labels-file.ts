import { services } from "~/server/context";
import { jobContext } from "~/server/job-context";
import type { Route } from "./+types/labels-file";
import { printed } from "~/server/beside";
import { labelsOf, originOf } from "./make";
import { SHEETS } from "./sheets";

const MOST = 200;

/** What was asked for, as a PDF; a message when it makes no sheet. */
async function asked(
  context: Route.LoaderArgs["context"],
  request: Request,
  number: string,
  given: URLSearchParams,
) {
  const of = await jobContext(context, number);
  const sheet = SHEETS.find(({ id }) => id === given.get("sheet")) ?? SHEETS[0];
  const used = Math.min(
    sheet.columns * sheet.rows - 1,
    Math.max(0, Math.trunc(Number(given.get("used")) || 0)),
  );
  const labels = labelsOf(of, given.getAll("label").slice(0, MOST), originOf(request));
  return labels.length === 0 ? null : printed({ what: "labels", labels, sheet, used });
}

export const loader = async ({ context, request, params }: Route.LoaderArgs): Promise<Response> => {
  const pdf = await asked(context, request, params.number, new URL(request.url).searchParams);
  if (!pdf)
    return new Response("Choose at least one label; go back and tick what is to be printed.", {
      status: 400,
    });
  return new Response(new Uint8Array(pdf), {
    headers: {
      "Content-Type": "application/pdf",
      "Content-Disposition": `inline; filename="labels-${params.number}.pdf"`,
    },
  });
};

/** Sends the labels to the shop's label printer. */
export const action = async ({ context, request, params }: Route.ActionArgs): Promise<Response> => {
  const { printerUrl, log } = context.get(services);
  const form = await request.formData();
  const given = new URLSearchParams(
    [...form].filter((entry): entry is [string, string] => typeof entry[1] === "string"),
  );
  given.set("sheet", "roll");
  const pdf = await asked(context, request, params.number, given);
  if (!pdf) return Response.json({ problem: "Tick at least one label." }, { status: 400 });
  const answer = await fetch(`${printerUrl}/print`, {
    method: "POST",
    headers: { "Content-Type": "application/pdf" },
    body: new Uint8Array(pdf),
    signal: AbortSignal.timeout(5_000),
  }).catch((error: unknown) => log.warn({ err: error }, "label printer"));
  if (!answer?.ok)
    return Response.json(
      { problem: "The label printer does not answer. Look at its cable and paper, or print a sheet." },
      { status: 503 },
    );
  return Response.json({ printed: true });
};
