import { PassThrough } from "node:stream";
import { createReadableStreamFromReadable } from "@react-router/node";
import { isbot } from "isbot";
import { renderToPipeableStream } from "react-dom/server";
import { ServerRouter, type EntryContext, type RouterContextProvider } from "react-router";
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
    // Robots and pages without script get the whole page at once.
    const ready = isbot(request.headers.get("user-agent") ?? "") ? "onAllReady" : "onShellReady";
    let shown = false;
    const { pipe, abort } = renderToPipeableStream(
      <NonceContext value={nonce}>
        <ServerRouter context={routerContext} url={request.url} nonce={nonce} />
      </NonceContext>,
      {
        nonce,
        [ready]() {
          shown = true;
          const body = new PassThrough();
          headers.set("Content-Type", "text/html");
          headers.set("Cache-Control", "no-store");
          resolve(new Response(createReadableStreamFromReadable(body), { headers, status }));
          pipe(body);
        },
        onShellError: reject,
        onError(error: unknown) {
          if (shown) context.get(services).log.error({ err: error }, "rendering failed");
        },
      },
    );
    setTimeout(abort, PATIENCE);
  });
}

export function handleError(
  error: unknown,
  { request, context }: { request: Request; context: Readonly<RouterContextProvider> },
): void {
  if (!request.signal.aborted) context.get(services).log.error({ err: error }, "loader or action failed");
}
