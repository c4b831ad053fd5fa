import { randomUUID } from "node:crypto";
import { may } from "../access/rights";
import type { ServerContext } from "../context";
import { type RowChange, rowsSince } from "../repos/rows-repo";

/** Of this run of the server: what was counted in another says nothing. A file that was brought back begins a run of its own too. */
const RUNS = new WeakMap<object, string>();
const runOf = (ctx: ServerContext): string => {
  const known = RUNS.get(ctx.db);
  if (known) return known;
  const made = randomUUID();
  RUNS.set(ctx.db, made);
  return made;
};

/**
 * What is new of the rows that a device keeps, as far as whoever stands at it may see.
 * @param epoch and since: of the last answer; anything else is answered with all of them
 */
export async function rowsForDevice(ctx: ServerContext, { epoch: of, since }: { epoch: string | null; since: number | null }) {
  const costs = may(ctx.actor.role, "costs");
  const epoch = `${runOf(ctx)}${costs ? "" : " without costs"}`;
  const { seq, whole, rows } = await rowsSince(ctx.db, of === epoch ? since : null);
  return { epoch, seq, whole, rows: costs ? rows : rows.map(withoutCosts) };
}

/** What work costs is not told to whoever may not see it. */
function withoutCosts(change: RowChange): RowChange {
  if (change.table !== "shop" || !change.row) return change;
  const settings = JSON.parse(String(change.row.settings_json)) as Record<string, unknown>;
  delete settings.rates;
  return { ...change, row: { ...change.row, settings_json: JSON.stringify(settings) } };
}
