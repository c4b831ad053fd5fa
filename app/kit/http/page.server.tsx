import type { ReactElement } from "react";
import { type EntryContext, type HandleErrorFunction, type RouterContextProvider, ServerRouter, isRouteErrorResponse } from "react-router";
import { NonceContext } from "./nonce";
import { requestContext } from "./request-context.server";

/** Draws a whole page; `told` of what could not be drawn. */
export type Draw = (page: ReactElement, options: { nonce: string; told: (error: unknown) => void }) => Promise<string>;
interface Drawn {
  html: string;
  failed: Error | null;
}

/** The whole page in one piece: no page here defers data, and one piece is sent twice as fast as a stream of small ones. */
export const pageWith =
  (draw: Draw) =>
  async (request: Request, status: number, headers: Headers, routerContext: EntryContext, loadContext: RouterContextProvider) => {
    if (request.method.toUpperCase() === "HEAD") return new Response(null, { status, headers });
    const { nonce } = loadContext.get(requestContext);
    const render = async (context: EntryContext): Promise<Drawn> => {
      let failed: Error | null = null;
      const page = (
        <NonceContext value={nonce}>
          <ServerRouter context={context} url={request.url} nonce={nonce} />
        </NonceContext>
      );
      const html = await draw(page, {
        nonce,
        told(error) {
          failed ??= error instanceof Error ? error : new Error(String(error));
          toldOf(error, { request, context: loadContext, params: {} });
        },
      });
      return { html, failed };
    };
    const [once, again] = routerContext.serverHandoffStream?.tee() ?? [];
    const first = await render(withStream(routerContext, once));
    // A page that cannot be drawn is answered by its own boundary, inside the pages around it: what they show is still there.
    const { html, failed } = first.failed ? await render(failedAt(withStream(routerContext, again), first.failed)) : first;
    headers.set("Content-Type", "text/html; charset=utf-8");
    return new Response(html, { headers, status: failed ? 500 : first.failed ? statusOf(first.failed) : status });
  };

const withStream = (context: EntryContext, stream: ReadableStream<Uint8Array> | undefined): EntryContext =>
  stream ? { ...context, serverHandoffStream: stream } : context;

/** What the models refuse to work with is not a fault of the server. */
const statusOf = (error: Error) => (error instanceof RangeError ? 422 : 500);

/** The same request with its page failed: the nearest boundary shows that. */
function failedAt(context: EntryContext, error: Error): EntryContext {
  const { staticHandlerContext, routeModules } = context;
  const boundary = staticHandlerContext.matches.findLast(({ route }) => routeModules[route.id]?.ErrorBoundary)?.route.id ?? "root";
  return { ...context, staticHandlerContext: { ...staticHandlerContext, errors: { [boundary]: error } } };
}

/** Faults go to the log with their request; a page that is not there, or a visitor who has gone, is none. */
export const toldOf: HandleErrorFunction = (error, { request, context }) => {
  if (request.signal.aborted || (isRouteErrorResponse(error) && error.status < 500)) return;
  const { log, requestId } = (context as RouterContextProvider).get(requestContext);
  const route = new URL(request.url).pathname;
  if (log) log.error({ requestId, route, err: error }, "fault");
  else console.error(error);
};
