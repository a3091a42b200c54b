const NOT_IN_SCRIPT: Readonly<Record<string, string>> = {
  "&": "\\u0026",
  ">": "\\u003e",
  "<": "\\u003c",
  "\u2028": "\\u2028",
  "\u2029": "\\u2029",
};

/**
 * What a page’s script reads its data from, as the router’s own server part writes it.
 *
 * @param handoff what the loaders told, encoded by the router.
 * @param nonce what the response lets scripts run by.
 */
export function handedOn(handoff: string, nonce: string): string {
  const text = JSON.stringify(handoff).replace(/[&><\u2028\u2029]/g, (sign) => NOT_IN_SCRIPT[sign] ?? sign);
  const to = "window.__reactRouterContext.streamController";
  return `<script nonce="${nonce}">${to}.enqueue(${text});${to}.close();</script>`;
}
