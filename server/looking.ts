import { AsyncLocalStorage } from "node:async_hooks";
import { existsSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import type { ServerContext } from "./context";
import { dataFolder } from "./db/open";
import { type OpenShop, openShop } from "./storage/open-shop";

/**
 * An invented shop to look at, in a folder of its own beside the shop's file: whoever looks at it works there, and nothing of it, nor of what is tried
 * in it, ever touches the shop. Which of the two a request is for is known all through it.
 */
const looking = new AsyncLocalStorage<boolean>();
export const isDemo = (): boolean => looking.getStore() === true;

const folder = () => join(dataFolder(), "demo-shop");
/** Written last: a folder without it was never finished. */
const finished = () => join(folder(), "finished");

interface Demo {
  load: (ctx: ServerContext) => Promise<void>;
  context: Partial<Omit<ServerContext, "db">>;
  shop: Promise<OpenShop> | null;
}
let demo: Demo | null = null;

/** Tells how the invented shop is filled; without it there is none. */
export function offerDemo(of: Omit<Demo, "shop">): void {
  demo = { ...of, shop: null };
}

/** Carries a request out in the invented shop, where it is asked for and there; else in the shop. */
export const inShopOf = <T>(asked: boolean, work: () => T): T =>
  asked && demo !== null && (demo.shop !== null || existsSync(finished())) ? looking.run(true, work) : work();

/** The invented shop, made when it is first asked for. @throws Error where this program has none */
export function demoShop(): Promise<OpenShop> {
  if (!demo) throw new Error("no invented shop is offered here");
  const of = demo;
  of.shop ??= openDemo(of);
  of.shop.catch(() => (of.shop = null));
  return of.shop;
}

async function openDemo({ load, context }: Demo): Promise<OpenShop> {
  const there = existsSync(finished());
  if (!there) rmSync(folder(), { recursive: true, force: true });
  const shop = await openShop(folder(), { what: "the invented shop", context });
  if (there) return shop;
  try {
    await load(shop.ctx);
    writeFileSync(finished(), "");
    return shop;
  } catch (error) {
    await shop.close(); // else its folder stays taken, and nobody could try again
    throw error;
  }
}

/** Throws the invented shop away, with all that was tried in it. */
export async function dropDemo(): Promise<void> {
  const open = demo?.shop;
  if (demo) demo.shop = null;
  await open?.then((shop) => shop.close());
  rmSync(folder(), { recursive: true, force: true });
}

/** Closes it with the program; it is there again at the next start. */
export async function closeDemo(): Promise<void> {
  await demo?.shop?.then((shop) => shop.close());
}
