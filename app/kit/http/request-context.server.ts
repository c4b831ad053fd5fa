import { createContext } from "react-router";
import type { Logger } from "pino";
import { type Known, NOT_ASKED } from "#server/access/guard";

export interface RequestFacts {
  /** Lets the page's own scripts run under the policy that its answer carries. */
  nonce: string;
  requestId: string;
  log: Logger | null;
  /** Who asks, and what stands in the way of it. */
  known: Known;
}
/** What the web server knows of a request; the development server, which has no gate of ours, knows nothing. */
export const requestContext = createContext<RequestFacts>({ nonce: "", requestId: "", log: null, known: NOT_ASKED });
