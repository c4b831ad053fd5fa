import type { RouterContextProvider } from "react-router";
import { stillThere } from "#server/access/who";
import { shopContext } from "#server/running";
import { requestContext } from "./request-context.server";

/** Whether whoever asked may still be told; null where nobody signs in. */
export function stillKnown(context: Readonly<RouterContextProvider>): (() => Promise<boolean>) | null {
  const { known } = context.get(requestContext);
  return known.asked ? async () => stillThere(await shopContext(), known) : null;
}
