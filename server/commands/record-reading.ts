import type { BodyInputOf } from "#core/record/bodies";
import type { ServerContext } from "../context";
import { getEntry } from "../repos/ledger-repo";
import { type EntryInput, recordEntries } from "./record-entry";
import { Refusal } from "./refusal";

export interface ReadingInput {
  panelId: string;
  body: BodyInputOf<"reading">;
  by: string;
  clientKey: string;
  at_ms: number;
  /** Readings of the same place that this one stands in for; the first hands on its place in the ledger, the surface it was read on. */
  replaces: readonly string[];
}

/** Records a reading, alone or in place of earlier ones: all of it or nothing. @throws Refusal where one of those is no reading of this place, or was changed meanwhile */
export async function recordReading(ctx: ServerContext, { replaces, ...reading }: ReadingInput): Promise<string> {
  for (const id of replaces) {
    const entry = await getEntry(ctx.db, id);
    if (entry?.kind !== "reading" || entry.panelId !== reading.panelId || entry.body.spot !== reading.body.spot)
      throw new Refusal(null, "What it stands in for is no reading of this spot");
  }
  const [first = null, ...rest] = replaces;
  const { panelId, by } = reading;
  const inputs: EntryInput<"reading" | "strike">[] = [
    { ...reading, kind: "reading", supersedes: first },
    ...rest.map((supersedes) => ({ panelId, kind: "strike" as const, body: { reason: "read again", whole: true }, by, supersedes })),
  ];
  const [id] = await recordEntries(ctx, panelId, inputs);
  return id!;
}
