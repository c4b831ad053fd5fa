import type { ServerContext } from "../context";
import type { Tx } from "../db/open";
import { StorageFault } from "../db/storage-fault";
import type { Change } from "../events/bus";
import { once } from "../repos/sent-form-repo";

/** What a command works with while it is carried out. */
export interface Running {
  /** The one transaction: whatever is written goes through it, or nothing is. */
  db: Tx;
  now_ms: number;
  /** Every open window is told of this once it is committed; of a form sent again nothing new is told. */
  tell: (change: Change) => void;
}

/** A form that is carried out once, however often it is sent; a key of null is carried out each time. */
export interface Form {
  key: string | null;
  what: string;
  content: unknown;
  /** In which words it is answered; sent again, in the same. */
  said?: string | null;
}

/**
 * Carries a command out: in one transaction all of it or nothing, once for a key, told to every window after it is committed. Every write of the
 * program goes through here: what writes asks for a transaction by its type, and nothing else opens one (a rule of lint).
 * @throws Refusal of the command, or for a key that was used for something else
 */
export async function run<R>(ctx: ServerContext, form: Form | null, work: (running: Running) => Promise<R>): Promise<R> {
  if (!ctx.stillOurs()) throw new StorageFault("taken", null);
  const now_ms = ctx.now_ms();
  // What comes under the key of its request is carried out once too, also where the form has none of its own.
  const now = ctx.nextRun();
  const key = now?.key ?? null;
  const told = new Map<string, Change>();
  const tell = (change: Change) => void told.set(`${change.topic} ${change.id}`, change);
  const result = await ctx.db
    .transaction()
    .execute((db) => {
      const carryOut = () => work({ db, now_ms, tell });
      const asForm = () => (form ? once(db, { ...form, now_ms }, carryOut) : carryOut());
      return key === null ? asForm() : once(db, { key, what: "sent", content: null, now_ms }, asForm);
    })
    .finally(() => now?.over());
  ctx.reads.forget();
  for (const change of told.values()) ctx.bus.publish(change);
  return result;
}
