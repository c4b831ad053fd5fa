import { currentActor } from "#server/access/actor";
import type { ServerContext } from "#server/context";
import { Refusal } from "#server/commands/refusal";
import { ofSending } from "#server/sent";

/**
 * The running program on a device: its context is of the rows that the device keeps. What only the shop's own machine has (backups, the network, the
 * invented shop) is not here.
 */
let here: ServerContext | null = null;
export const standOn = (ctx: ServerContext | null): void => void (here = ctx);

export const serverContext = (): Promise<ServerContext> => {
  if (!here) throw new Error("no rows are kept on this device");
  return Promise.resolve(ofSending({ ...here, actor: currentActor() }));
};
export const shopContext = serverContext;
export const keeper = () => null;
export const network = () => null;
export const shopCopies = () => Promise.resolve([]);
const notHere = (): never => {
  throw new Refusal(null, "This is done with the shop's server, and it does not answer.", 503);
};
export const bringBack = notHere;
export const pairing = notHere;
export const door = notHere;
export const onNetwork = notHere;
export const onOpened = notHere;
export const runningShop = notHere;
