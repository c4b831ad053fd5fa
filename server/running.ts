import type { ServerContext } from "./context";
import { dataFolder } from "./db/open";
import { demoShop, isDemo } from "./looking";
import { type OpenShop, openShop } from "./storage/open-shop";

declare global {
  // One shop a process; the development server reloads modules, the open file stays.
  var yakamozShop: Promise<OpenShop> | undefined;
}

/** Opens the data folder for this process, once; an opening that failed is not remembered. @throws StartRefusal in words */
export function runningShop(context: Partial<Omit<ServerContext, "db">> = {}): Promise<OpenShop> {
  const opening = (globalThis.yakamozShop ??= openShop(dataFolder(), { context }));
  opening.catch(() => {
    if (globalThis.yakamozShop === opening) globalThis.yakamozShop = undefined;
  });
  return opening;
}

/** The running server's context: of the shop, or of the invented one that a request is for. */
export const serverContext = async (): Promise<ServerContext> => (await (isDemo() ? demoShop() : runningShop())).ctx;
