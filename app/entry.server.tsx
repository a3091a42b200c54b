import { Writable } from "node:stream";
import { renderToPipeableStream } from "react-dom/server";
import {
  ServerRouter,
  isRouteErrorResponse,
  type EntryContext,
  type RouterContextProvider,
} from "react-router";
import { NonceContext } from "./look/nonce";
import { services, nonce as nonceKey } from "./server/context";

const PATIENCE = 8_000;

export default function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  routerContext: EntryContext,
  context: Readonly<RouterContextProvider>,
): Promise<Response> {
  const nonce = context.get(nonceKey);
  return new Promise((resolve, reject) => {
    let stands = false;
    const { pipe, abort } = renderToPipeableStream(
      <NonceContext value={nonce}>
        <ServerRouter context={routerContext} url={request.url} nonce={nonce} />
      </NonceContext>,
      {
        nonce,
        // Nothing comes later: what is large stands where it belongs, and not behind the page for a script to put there.
        progressiveChunkSize: Infinity,
        onShellReady: () => void (stands = true),
        // No page waits for a part of itself: sent whole, it costs half of what it costs in pieces.
        onAllReady: () => {
          clearTimeout(patience);
          headers.set("Content-Type", "text/html");
          headers.set("Cache-Control", "no-store");
          pipe(whole((body) => resolve(new Response(body, { headers, status }))));
        },
        onShellError: reject,
        onError(error: unknown) {
          if (stands) context.get(services).log.error({ err: error }, "rendering failed");
        },
      },
    );
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
