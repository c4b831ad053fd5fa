import { currentActor } from "./access/actor";
import { type Pairing, createPairing } from "./access/pairing";
import type { ServerContext } from "./context";
import { dataFolder } from "./db/open";
import { type Door, createDoor } from "./http/door";
import type { Lan } from "./lan/lan";
import { demoShop, isDemo } from "./looking";
import { getShop } from "./repos/shop-repo";
import { type Keeper, createKeeper } from "./storage/keeper";
import { type KeptCopy, keptCopies } from "./storage/kept-backups";
import { ofSending } from "./sent";
import { type OpenShop, openShop } from "./storage/open-shop";
import { restoreFrom } from "./storage/restore";

type Context = Partial<Omit<ServerContext, "db">>;

/** Codes by which devices come in; and where the network finds the program. */
export const pairing = (): Pairing => (globalThis.yakamozPairing ??= createPairing(() => Date.now()));
export const network = (): Lan | null => globalThis.yakamozNetwork ?? null;
export const onNetwork = (lan: Lan | null): void => void (globalThis.yakamozNetwork = lan);

declare global {
  var yakamozPairing: Pairing | undefined;
  var yakamozNetwork: Lan | null | undefined;
  // One shop a process; the development server reloads modules, the open file stays.
  var yakamozShop: Promise<OpenShop> | undefined;
  var yakamozOpened: ((shop: OpenShop) => void) | undefined;
  var yakamozKeeper: Keeper | undefined;
  var yakamozDoor: Door | undefined;
}

/** Opens the data folder for this process, once; an opening that failed is not remembered. @throws StartRefusal in words */
export function runningShop(context: Context = {}): Promise<OpenShop> {
  const opening = (globalThis.yakamozShop ??= openShop(dataFolder(), { context }));
  opening.catch(() => {
    if (globalThis.yakamozShop === opening) globalThis.yakamozShop = undefined;
  });
  return opening;
}

/** Told of the shop that is open, and of each that is opened in its place. */
export function onOpened(told: (shop: OpenShop) => void): void {
  globalThis.yakamozOpened = told;
  void globalThis.yakamozShop?.then(told, () => {});
}

/** The running server's context: of the shop, or of the invented one that a request is for. */
export const serverContext = async (): Promise<ServerContext> => ofSending(inName(await (isDemo() ? demoShop() : runningShop())));
/** The shop's, whichever shop a request looks at: those who may come in are the shop's, and by the shop's own clock. */
export const shopContext = async (): Promise<ServerContext> => inName(await runningShop());
const inName = ({ ctx }: OpenShop): ServerContext => ({ ...ctx, actor: currentActor() });

/** Who makes the shop's backups; the invented shop has none. */
export const keeper = (): Keeper | null => (isDemo() ? null : theKeeper());
const theKeeper = (): Keeper =>
  (globalThis.yakamozKeeper ??= createKeeper({
    folder: dataFolder(),
    now_ms: () => Date.now(),
    secondPlace: async () => (await getShop((await runningShop()).ctx.db)).secondPlace,
    backup: async (from) => (await runningShop()).ctx.inFileThread("backup", from),
  }));

/** Copies of the running shop, the newest first; of the invented one there are none. */
export async function shopCopies(): Promise<KeptCopy[]> {
  if (isDemo()) return [];
  const { secondPlace } = await getShop((await runningShop()).ctx.db);
  return keptCopies(dataFolder(), secondPlace);
}

/** The way to the pages: shut for a moment while the shop's file is exchanged. */
export const door = (): Door => (globalThis.yakamozDoor ??= createDoor());

/**
 * Puts a copy in the place of the shop's file while the server runs: requests that come meanwhile wait, what was there is set aside whole, and every
 * window looks again. If it cannot be put back, the shop that was there is opened again.
 * @param file of the copy
 * @throws Error in words; nothing was changed
 */
export function bringBack(file: string): Promise<void> {
  return door().whileShut(async () => {
    const old = await runningShop();
    const { bus, devices, inThread, inFileThread } = old.ctx;
    const now_ms = old.ctx.now_ms();
    const reopened = (async () => {
      await old.close();
      const fault: unknown = await restoreFrom(file, dataFolder(), now_ms).then(
        () => null,
        (error: unknown) => error,
      );
      return { shop: await openShop(dataFolder(), { context: { bus, devices, inThread, inFileThread } }), fault };
    })();
    globalThis.yakamozShop = reopened.then(({ shop }) => shop);
    const { shop, fault } = await reopened;
    globalThis.yakamozOpened?.(shop);
    if (fault) throw fault instanceof Error ? fault : new Error("the copy could not be put back", { cause: fault });
    bus.publish({ topic: "shop", id: "shop" });
  });
}
