import { ofKind } from "#core/record/entry";
import { livingEntries } from "#core/record/timeline";
import type { ServerContext } from "../context";
import type { ImportedSpot } from "../interchange/readings-csv";
import { listEntries } from "../repos/ledger-repo";
import { wasSent } from "../repos/sent-form-repo";
import { type EntryInput, recordEntries } from "./record-entry";

const READINGS_AN_ENTRY = 20;
const FROM_FILE = "file";

/** A gauge shows no difference finer than this: films nearer to each other are one reading. */
const SAME_READING_M = 0.5e-9;

/**
 * Whether all of a file is on the panel already, imported before: a second import would double it unseen. The same form sent once more is not a
 * second import.
 */
export async function isThereAlready(
  ctx: ServerContext,
  panelId: string,
  spots: readonly ImportedSpot[],
  clientKey: string | null = null,
): Promise<boolean> {
  if (await wasSent(ctx.db, clientKey)) return false;
  const known = new Map<string, number[]>();
  for (const e of ofKind(livingEntries(await listEntries(ctx.db, panelId)), "reading")) {
    if (e.body.gauge !== FROM_FILE) continue;
    const at = `${e.body.phase} ${e.body.spot}`;
    known.set(at, [...(known.get(at) ?? []), ...e.body.readings.map((r) => r.thickness_m)]);
  }
  return (
    spots.length > 0 &&
    spots.every(({ phase, spot, readings }) => {
      const there = known.get(`${phase} ${spot}`) ?? [];
      return there.length >= readings.length && readings.every((r, i) => Math.abs(there[i]! - r.thickness_m) < SAME_READING_M);
    })
  );
}

/** Records a checked file in one transaction: all of it or nothing. @returns the entries made, and how many readings were stored */
export async function importReadings(
  ctx: ServerContext,
  input: { panelId: string; spots: readonly ImportedSpot[]; by: string; clientKey: string | null },
): Promise<{ entryIds: string[]; count: number }> {
  const entries = input.spots.flatMap((s) =>
    Array.from({ length: Math.ceil(s.readings.length / READINGS_AN_ENTRY) }, (_, part): EntryInput<"reading"> => ({
      panelId: input.panelId,
      kind: "reading",
      by: input.by,
      body: {
        phase: s.phase,
        spot: s.spot,
        at: { x_m: s.at[0], y_m: s.at[1] },
        gauge: FROM_FILE,
        readings: s.readings.slice(part * READINGS_AN_ENTRY, (part + 1) * READINGS_AN_ENTRY),
      },
    })),
  );
  const [first, ...rest] = entries;
  if (!first) return { entryIds: [], count: 0 };
  const entryIds = await recordEntries(ctx, input.panelId, [{ ...first, clientKey: input.clientKey }, ...rest]);
  return { entryIds, count: input.spots.reduce((a, s) => a + s.readings.length, 0) };
}
