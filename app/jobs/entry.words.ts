import { LAYER_NAMES } from "#core/models/prep/layer-names";
import { PHASES } from "#core/record/kinds";
import type { EntryToPutRight } from "#server/commands/put-right";

/** Pages that lead here, and back. */
const FROM = new Set(["spray", "spray/below", "inspect", "hand-over", "ledger"]);

/** A page of this very panel that leads here; of any other word, where the ledger is. */
export const backTo = ({ jobId, panelId }: { jobId: string; panelId: string }, from: string) =>
  `/jobs/${encodeURIComponent(jobId)}/panels/${encodeURIComponent(panelId)}/${FROM.has(from) ? from : "hand-over"}`;

/** What is put right: "coat 2". @param coat its place among those that count */
export function nameOf(entry: EntryToPutRight, coat: number): string {
  switch (entry.kind) {
    case "coat":
      return `coat ${coat}`;
    case "colourCoat":
      return LAYER_NAMES[entry.body.coat];
    case "mix":
      return "a mix";
    case "climate":
      return "a climate";
    case "reading":
      return `spot ${entry.body.spot}, ${PHASES[entry.body.phase]}`;
    case "wetComb":
      return "a wet comb";
    case "flatten":
      return "a sanding flat";
    case "bake":
      return "a bake";
    case "turn":
      return "how the part lies";
    case "strip":
      return `the strip ${entry.body.phase} clear`;
  }
}
