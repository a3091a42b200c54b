import type { ShouldRevalidateFunctionArgs } from "react-router";

/**
 * When a page within a job asks the server anew: not when only the tab within the page changes, which must work with the server
 * away; and also after a refusal because somebody else was quicker, since then what is shown is out of date.
 */
export function skipTabChanges({
  currentUrl,
  nextUrl,
  formMethod,
  actionStatus,
  defaultShouldRevalidate,
}: ShouldRevalidateFunctionArgs): boolean {
  if (actionStatus === 409) return true;
  const onlyTab = currentUrl.pathname === nextUrl.pathname && currentUrl.search !== nextUrl.search;
  return formMethod === undefined && onlyTab ? false : defaultShouldRevalidate;
}
