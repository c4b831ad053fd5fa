import { type RouterContextProvider, data, redirect } from "react-router";
import type { First } from "#server/access/guard";
import { pagePath } from "#server/http/page-path";
import { requestContext } from "./request-context.server";

/** Where a visitor goes first, and comes back from. */
const FIRST: Record<First, string> = { owner: "/owner", pair: "/pair", "sign in": "/sign-in", passcode: "/sign-in" };

/** The address of a page as it stands in the browser, also of a request for its data. */
export function addressOf(request: Request): string {
  const { pathname, search } = new URL(request.url);
  const path = pagePath(pathname);
  const asked = new URLSearchParams(search);
  asked.delete("_routes");
  return asked.size > 0 ? `${path}?${asked}` : path;
}

/** A path of this program to go on with; anything else is the Floor. */
export const pathIn = (to: string | null): string => (to !== null && /^\/(?![/\\])/.test(to) ? to : "/");

/** Tells a page's visitor what the guard found. */
export async function turnedAway(
  { request, context }: { request: Request; context: Readonly<RouterContextProvider> },
  next: () => Promise<unknown>,
): Promise<void> {
  const { turned } = context.get(requestContext).known;
  if (turned && "words" in turned) throw data(turned.words, { status: turned.status });
  if (turned) {
    const asked = new URLSearchParams({ to: addressOf(request), ...(turned.to === "passcode" ? { again: "yes" } : {}) });
    throw redirect(turned.to === "owner" ? FIRST.owner : `${FIRST[turned.to]}?${asked}`);
  }
  await next();
}
