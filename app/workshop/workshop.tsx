import { KEPT } from "~/offline/keys";
import { useMemo } from "react";
import { Outlet } from "react-router";
import { useJobView, type JobView } from "~/job/job";
import { bookOfPage, wholeText } from "~/job/job-page";
import { jobRecord } from "~/server/job-context";
import { orKept } from "~/offline/kept";
import { appliedTo } from "~core/fact";
import type { Route } from "./+types/workshop";

/** Steps, parts and fasteners: two thirds of a book, which only the pages at the bench read. */
export const loader = async ({ context, params }: Route.LoaderArgs) => {
  const record = await jobRecord(context, params.number);
  return { book: wholeText(record) };
};

export const clientLoader = ({ params, serverLoader }: Route.ClientLoaderArgs) =>
  orKept(KEPT.page(params.number, "whole"), serverLoader);

/** A job stays on its revision, and a revision never changes. */
export const shouldRevalidate = ({
  currentParams,
  nextParams,
}: {
  currentParams: Params;
  nextParams: Params;
}): boolean => currentParams.number !== nextParams.number;
type Params = Readonly<Record<string, string | undefined>>;

/** The pages at the bench: the job as they see it has the whole book. */
export default function Workshop({ loaderData: { book: text } }: Route.ComponentProps) {
  const view = useJobView();
  const { job } = view;
  const { house } = view.applied;
  const whole = useMemo((): JobView => {
    const book = bookOfPage(text);
    return Object.create(view, {
      book: { value: book, enumerable: true },
      applied: { value: appliedTo(book, job, house), enumerable: true },
    }) as JobView;
  }, [text, view, job, house]);
  return <Outlet context={whole} />;
}
