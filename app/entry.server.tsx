import { Writable } from "node:stream";
import { renderToPipeableStream, renderToString } from "react-dom/server";
import {
  ServerRouter,
  isRouteErrorResponse,
  type EntryContext,
  type RouterContextProvider,
} from "react-router";
import { NonceContext } from "./look/nonce";
import { handedOn } from "./server/handoff";
import { services, nonce as nonceKey } from "./server/context";

const PATIENCE = 8_000;

/** A page as it is to be drawn, and what its script is handed. */
interface Page {
  request: Request;
  router: EntryContext;
  nonce: string;
}

const drawn = ({ request, router, nonce }: Page, handoff: EntryContext["serverHandoffStream"]) => (
  <NonceContext value={nonce}>
    <ServerRouter context={{ ...router, serverHandoffStream: handoff }} url={request.url} nonce={nonce} />
  </NonceContext>
);

export default async function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  router: EntryContext,
  context: Readonly<RouterContextProvider>,
): Promise<Response> {
  const page = { request, router, nonce: context.get(nonceKey) };
  const handoff = await new Response(router.serverHandoffStream ?? null).text();
  headers.set("Content-Type", "text/html");
  headers.set("Cache-Control", "no-store");
  const body =
    atOnce(page, handoff) ??
    (await inTime(page, handoff, (error) => {
      context.get(services).log.error({ err: error }, "rendering failed");
    }));
  return new Response(body, { headers, status });
}

/** What React leaves out where it draws into a text: without it a browser draws as browsers did before there were rules. */
const BEGIN = "<!DOCTYPE html>";
/** Where the page ends, and what stands in a page for a part that was not there at once. */
const END = "</body></html>";
const NOT_THERE = "<!--$!-->";

/**
 * A page drawn in one go into one text: in pieces, as they come, it takes half as long again, and nothing of a page comes later.
 *
 * @returns null where some part was not there at once, or something failed.
 */
function atOnce(page: Page, handoff: string): string | null {
  try {
    const html = renderToString(drawn(page, undefined));
    if (html.includes(NOT_THERE) || !html.endsWith(END)) return null;
    return BEGIN + html.slice(0, -END.length) + handedOn(handoff, page.nonce) + END;
  } catch {
    return null;
  }
}

/** The same, waiting for what was not there at once. */
function inTime(
  page: Page,
  handoff: string,
  onError: (error: unknown) => void,
): Promise<Buffer<ArrayBuffer>> {
  return new Promise((resolve, reject) => {
    let stands = false;
    const { pipe, abort } = renderToPipeableStream(drawn(page, new Response(handoff).body ?? undefined), {
      nonce: page.nonce,
      // Nothing comes later: what is large stands where it belongs, and not behind the page for a script to put there.
      progressiveChunkSize: Infinity,
      onShellReady: () => void (stands = true),
      onAllReady: () => {
        clearTimeout(patience);
        pipe(whole(resolve));
      },
      onShellError: reject,
      onError: (error) => void (stands && onError(error)),
    });
    const patience = setTimeout(abort, PATIENCE);
  });
}

/** Hands on what was written to it when all of it is there. */
function whole(tell: (body: Buffer<ArrayBuffer>) => void): Writable {
  const written: Buffer[] = [];
  return new Writable({
    write(chunk: Buffer, _, done) {
      written.push(chunk);
      done();
    },
    final(done) {
      tell(Buffer.concat(written));
      done();
    },
  });
}

export function handleError(
  error: unknown,
  { request, context }: { request: Request; context: Readonly<RouterContextProvider> },
): void {
  // A page that is not there is no fault of ours.
  if (isRouteErrorResponse(error) && error.status < 500) return;
  if (!request.signal.aborted) context.get(services).log.error({ err: error }, "loader or action failed");
}
