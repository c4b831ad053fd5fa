import { openReplica } from "#device/replica";
import { seededRandom } from "#core/kernel/stats/random";
import type { ServerContext } from "#server/context";
import { type Sent, asSent, carriedOutWhole, ofSending, wasCarriedOut } from "#server/sent";
import { rowsForDevice } from "#server/views/rows-view";
import { testContext } from "#server/testing/fixtures";
import { type Said, compareFigures } from "./figures";
import { type Send, makePanel } from "./ledgers";

/** One life whose shop was away now and then: what it came to on the device, at the shop when all was sent, and where the shop was never away. */
export interface AwayLife {
  seed: number;
  /** How often the shop was away, and what was entered meanwhile. */
  away: number;
  entered: number;
  faults: string[];
}

const TABLES = ["product_revision", "job", "panel", "ledger_entry", "clock", "panel_summary", "cause_word", "container"] as const;
const rowsOf = async ({ db }: ServerContext, table: (typeof TABLES)[number]): Promise<string[]> =>
  (await db.selectFrom(table).selectAll().execute()).map((r) => JSON.stringify(r)).sort();

/** Begins to be away, and comes back, before so many commands. */
const GOES = 0.12;
const COMES = 0.2;
/** So much of what is sent is sent twice: the answer to the first was lost. */
const TWICE = 0.25;

/**
 * The same life three times: with the shop, and by way of a device whose shop is away now and then. What is entered while it is away stands on the
 * device at once, and is sent in order, some of it twice, when it is back.
 */
export async function awayLife(seed: number): Promise<AwayLife> {
  const random = seededRandom(810_001 + 29 * seed);
  let count = 0;
  const keyed = (now_ms: number): Sent => ({ key: `life-${seed}-${count++}`, at_ms: now_ms, personId: null });
  const carryOut = <T>(ctx: ServerContext, sent: Sent, command: (ctx: ServerContext) => Promise<T>): Promise<T> =>
    asSent(sent, () => command(ofSending(ctx)));

  const never = await testContext();
  await makePanel(never, seed, (command) => carryOut(never, keyed(never.now_ms()), command));

  count = 0;
  const shop = await testContext();
  const waiting: { sent: Sent; command: (ctx: ServerContext) => Promise<unknown> }[] = [];
  const life: AwayLife = { seed, away: 0, entered: 0, faults: [] };
  let device: Awaited<ReturnType<typeof openReplica>> | null = null;
  const here = (): ServerContext => device?.ctx ?? shop;
  const goes = async () => {
    const { rows } = await rowsForDevice(shop, { epoch: null, since: null });
    device = await openReplica(
      rows.flatMap((r) => (r.row ? [{ ...r, row: r.row }] : [])),
      () => shop.now_ms(),
    );
    life.away++;
  };
  const comes = async () => {
    for (const { sent, command } of waiting.splice(0)) {
      const fault = await carriedOutWhole(shop, sent, async () => (await command(ofSending(shop)), true)).catch((error: unknown) => error);
      if (fault instanceof Error) life.faults.push(`${sent.key} was not taken: ${fault.message}`);
      // Its answer was lost: it is sent once more, and the shop knows it.
      if (random() < TWICE && !(await wasCarriedOut(shop, sent))) life.faults.push(`${sent.key} is not known any more`);
    }
    const panels = await shop.db.selectFrom("panel").select(["id", "job_id as jobId"]).execute();
    for (const { id, jobId } of panels) {
      const panel = { seed, jobId, panelId: id, story: [] };
      const [there, onIt] = [await compareFigures(shop, panel), await compareFigures(device!.ctx, panel)];
      life.faults.push(...differences(there.said, onIt.said).map((d) => `on the device ${d}`));
    }
    await device!.close();
    device = null;
  };
  const send: Send = async (command) => {
    if (device ? random() < COMES : random() < GOES) await (device ? comes() : goes());
    const sent = keyed(shop.now_ms());
    if (!device) return carryOut(shop, sent, command);
    const result = await carryOut(device.ctx, sent, command);
    waiting.push({ sent, command });
    life.entered++;
    return result;
  };
  const moving = new Proxy(shop, {
    get: (of, name) => Reflect.get(name === "advance" || name === "now_ms" ? of : here(), name) as unknown,
  });
  await makePanel(moving, seed, send);
  if (device) await comes();
  for (const table of TABLES) {
    const [one, other] = [await rowsOf(never, table), await rowsOf(shop, table)];
    const lost = one.filter((r) => !other.includes(r));
    const more = other.filter((r) => !one.includes(r));
    if (lost.length + more.length > 0)
      life.faults.push(`${table}: ${lost.length} rows otherwise, ${more.length} instead: ${lost[0] ?? ""} / ${more[0] ?? ""}`);
  }
  await Promise.all([never.db.destroy(), shop.db.destroy()]);
  return life;
}

function differences(there: readonly Said[], onIt: readonly Said[]): string[] {
  const key = (s: Said) => `${s.quantity}, ${s.page}: ${s.value}`;
  const [a, b] = [there.map(key), onIt.map(key)];
  return [...a.filter((s) => !b.includes(s)).map((s) => `lacks ${s}`), ...b.filter((s) => !a.includes(s)).map((s) => `says ${s}`)];
}
