import type { ServerContext } from "../context";
import type { ImportedSpot } from "../interchange/readings-csv";
import { type EntryInput, recordEntries } from "./record-entry";

const READINGS_AN_ENTRY = 20;

/** Records a checked file in one transaction: all of it or nothing. @returns how many readings were stored. */
export async function importReadings(
  ctx: ServerContext,
  input: { panelId: string; spots: readonly ImportedSpot[]; by: string; clientKey: string | null },
): Promise<number> {
  const entries = input.spots.flatMap((s) =>
    Array.from({ length: Math.ceil(s.readings.length / READINGS_AN_ENTRY) }, (_, part): EntryInput<"reading"> => ({
      panelId: input.panelId,
      kind: "reading",
      by: input.by,
      body: {
        phase: s.phase,
        spot: s.spot,
        at: { x_m: s.at[0], y_m: s.at[1] },
        gauge: "file",
        readings: s.readings.slice(part * READINGS_AN_ENTRY, (part + 1) * READINGS_AN_ENTRY),
      },
    })),
  );
  const [first, ...rest] = entries;
  if (!first) return 0;
  await recordEntries(ctx, input.panelId, [{ ...first, clientKey: input.clientKey }, ...rest]);
  return input.spots.reduce((a, s) => a + s.readings.length, 0);
}
