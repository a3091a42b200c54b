import type { ShouldRevalidateFunctionArgs } from "react-router";
import { AWAY } from "./unless-away";

/**
 * What a page asks anew after something was sent: also after a refusal because somebody else was quicker, since then what is shown is out of date; and
 * nothing after what could not be sent, as a page that cannot be had anew would be lost for it.
 */
export function afterSent({
  actionStatus,
  actionResult,
  defaultShouldRevalidate,
}: ShouldRevalidateFunctionArgs): boolean {
  if (actionStatus === 409) return true;
  if (saysAway(actionResult)) return false;
  return defaultShouldRevalidate;
}

/** Told for the whole form, or at its fields. */
function saysAway(result: unknown): boolean {
  const { problem, problems } = (result ?? {}) as { problem?: unknown; problems?: Record<string, unknown> };
  return problem === AWAY || Object.values(problems ?? {}).includes(AWAY);
}

/** The same for a page within a job: and not when only the tab within the page changes, which must work with the server away. */
export function skipTabChanges(args: ShouldRevalidateFunctionArgs): boolean {
  const { currentUrl, nextUrl, formMethod } = args;
  const onlyTab = currentUrl.pathname === nextUrl.pathname && currentUrl.search !== nextUrl.search;
  return formMethod === undefined && onlyTab && args.actionStatus === undefined ? false : afterSent(args);
}
