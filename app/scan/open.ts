import { redirect } from "react-router";
import { findJob, jobContext } from "~/server/job-context";
import { buildOf, subAssembliesOf } from "~core/build";
import { houseOf } from "~core/measure";
import { depthsOf, fold } from "~core/fact";
import type { Route } from "./+types/open";
import { versionSearch } from "~/book/version-search";
import { targetOf } from "./code";

/** Opens what a label belongs to. */
export const loader = async ({ context, params }: Route.LoaderArgs): Promise<Response> => {
  const target = targetOf(params.code);
  const record = target && (await findJob(context, target.job));
  if (!target || !record)
    throw new Response(`“${params.code.slice(0, 60)}” is no label of this shop’s.`, { status: 404 });
  if (target.kind === "case") throw redirect(`/jobs/${target.job}`);
  if (target.kind === "place") throw redirect(`/jobs/${target.job}/bench#place-${target.place}`);
  if (target.kind === "sub") {
    const { job, applied, house } = await jobContext(context, target.job);
    const subs = subAssembliesOf(buildOf(job, applied, houseOf(job, house), Date.now()));
    const step = subs.find(({ id }) => id === target.sub)?.step;
    throw redirect(`/jobs/${target.job}/build${step ? `?step=${step}` : ""}`);
  }
  const job = fold(record.facts);
  const search = versionSearch(record.book, job.configuration, depthsOf(record.book, job));
  throw redirect(`/books/${record.book.unit.id}/parts?${search}#part-${target.part}`);
};
