import { PassThrough } from "node:stream";
import { createReadableStreamFromReadable } from "@react-router/node";
import { isbot } from "isbot";
import { renderToPipeableStream } from "react-dom/server";
import { isRouteErrorResponse, RouterContextProvider, ServerRouter, type EntryContext } from "react-router";
import { NonceContext } from "~/components/nonce";
import { demoNow, nonceContext, nowContext } from "~/server/context.server";

const RENDER_LIMIT_MS = 5000;

/** What loaders may read of one request: its nonce, and the instant the app runs on. */
export function requestContext(nonce: string): RouterContextProvider {
  const context = new RouterContextProvider();
  context.set(nonceContext, nonce);
  context.set(nowContext, demoNow());
  return context;
}

/** Renders a page as a stream, with the nonce of this response on every script. */
export default function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  entry: EntryContext,
  context: RouterContextProvider,
) {
  const nonce = context.get(nonceContext);
  return new Promise<Response>((resolve, reject) => {
    let hasShell = false;
    const ready = isbot(request.headers.get("user-agent")) ? "onAllReady" : "onShellReady";
    const { pipe, abort } = renderToPipeableStream(
      <NonceContext value={nonce}>
        <ServerRouter context={entry} url={request.url} nonce={nonce} />
      </NonceContext>,
      {
        nonce: { script: nonce, style: nonce },
        [ready]() {
          hasShell = true;
          const body = new PassThrough();
          headers.set("Content-Type", "text/html; charset=utf-8");
          resolve(new Response(createReadableStreamFromReadable(body), { headers, status }));
          pipe(body);
        },
        onShellError: reject,
        onError(error: unknown) {
          if (hasShell && !request.signal.aborted) logFault(request, error);
        },
      },
    );
    setTimeout(abort, RENDER_LIMIT_MS + 1000).unref();
  });
}

/** One line in the log for a fault; never a stack. A client that has gone away is none. */
function logFault(request: Request, error: unknown): void {
  const words = error instanceof Error ? error.message.split("\n")[0] : "fault";
  console.error(
    `${new Date().toISOString()} ${request.method} ${new URL(request.url).pathname.slice(0, 120)}: ${words}`,
  );
}

/** Faults of loaders and of rendering; an answer that a loader chose to give, such as 404, is none. */
export function handleError(error: unknown, { request }: { readonly request: Request }): void {
  if (request.signal.aborted || isRouteErrorResponse(error)) return;
  logFault(request, error);
}
