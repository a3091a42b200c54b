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
  if ((actionResult as { problem?: unknown } | null | undefined)?.problem === AWAY) return false;
  return defaultShouldRevalidate;
}

/** The same for a page within a job: and not when only the tab within the page changes, which must work with the server away. */
export function skipTabChanges(args: ShouldRevalidateFunctionArgs): boolean {
  const { currentUrl, nextUrl, formMethod } = args;
  const onlyTab = currentUrl.pathname === nextUrl.pathname && currentUrl.search !== nextUrl.search;
  return formMethod === undefined && onlyTab && args.actionStatus === undefined ? false : afterSent(args);
}
