import { type ComputeClient, createComputeClient } from "#workers/client";

const clients = new Map<string, ComputeClient>();

export type WorkLine = "verdict" | "map" | "flow" | "booth" | "photo";

/** One worker for each line of work, so that cancelling one does not end another. */
export function computeClient(line: WorkLine): ComputeClient {
  const known = clients.get(line);
  if (known) return known;
  const made = createComputeClient(() => new Worker(new URL("../../../workers/compute.worker.ts", import.meta.url), { type: "module" }));
  clients.set(line, made);
  return made;
}
