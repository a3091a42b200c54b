import { KEPT } from "~/offline/keys";
import { isRouteErrorResponse, Outlet, useMatches, useRouteLoaderData } from "react-router";
import { Bar } from "~/frame/bar";
import { Away } from "~/look/away";
import { skipTabChanges } from "~/look/revalidate";
import { useKeepJobs } from "~/offline/keep-jobs";
import { dropAll, loadOrKept } from "~/offline/kept";
import { useEffect } from "react";
import { useLeaving } from "./leave";
import { IdleLock } from "./idle-lock";
import { useKept } from "~/offline/use-kept";
import { services, signedIn } from "~/server/context";
import { requireSignIn } from "~/server/session";
import { voucherFor } from "~/server/voucher";
import { readHouse } from "~store/house";
import type { Route } from "./+types/inside";

export const middleware: Route.MiddlewareFunction[] = [requireSignIn];

export const loader = async ({ context }: Route.LoaderArgs) => {
  const { pool, gaugeUrl, cookieKey } = context.get(services);
  const { staff } = context.get(signedIn);
  return {
    staff,
    house: await readHouse(pool),
    gauge: gaugeUrl !== "",
    voucher: voucherFor(cookieKey, staff.id),
  };
};

export const clientLoader = ({ serverLoader }: Route.ClientLoaderArgs) =>
  loadOrKept(KEPT.inside, serverLoader);

export const shouldRevalidate = skipTabChanges;

/** What a route says that draws its own frame: a job does, with its stages. */
export const OWN_FRAME = "own frame";

type Inside = Awaited<ReturnType<typeof loader>>;

/** Who is signed in and what the house has chosen, for every page behind the door. */
export function useInside(): Inside {
  const data = useRouteLoaderData<Inside>("door/inside");
  if (!data) throw new Error("used outside the door");
  return data;
}

export default function InsidePage({ loaderData }: Route.ComponentProps) {
  const { staff, house } = loaderData;
  useKept(KEPT.inside, loaderData);
  useKeepJobs();
  useLeaving();
  useGeneration(house.generation);
  const ownFrame = useMatches().some(({ handle }) => handle === OWN_FRAME);
  return (
    <>
      {!ownFrame && <Bar staff={staff} footKey={house.footKey} />}
      <Outlet />
      <IdleLock staff={staff} minutes={house.lockMinutes} />
    </>
  );
}

const GENERATION = "yard-key-generation";

/** After a copy was put back, what this browser kept of the shop before it is dropped; what waits to be sent stays. */
function useGeneration(generation: string): void {
  useEffect(() => {
    if ((localStorage.getItem(GENERATION) ?? "") === generation) return;
    void dropAll().then(() => localStorage.setItem(GENERATION, generation));
  }, [generation]);
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  if (isRouteErrorResponse(error) && error.status < 500) throw error;
  return <Away />;
}
