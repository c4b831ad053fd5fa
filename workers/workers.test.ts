import type { AssessInput } from "#core/film/assess-panel";
import { assessPanel } from "#core/film/assess-panel";
import type { FilmObservation } from "#core/film/film-field";
import { createComputeClient } from "#workers/client";
import { type Call, type Reply, answer } from "#workers/ops";

const observations = [0.2, 0.5, 0.8].flatMap((x): FilmObservation[] => [
  { at: [x, 0.4], layer: "before", total_m: 90e-6, n: 3 },
  { at: [x, 0.4], layer: "after", total_m: 165e-6, n: 3 },
]);
const input: AssessInput = {
  outline: [
    [0, 0],
    [1, 0],
    [1, 0.8],
    [0, 0.8],
  ],
  observations,
  history: { weights: { factory: 1, refinish: 0 } },
  removal_m: 6e-6,
  u_removal_m: 1e-6,
  floor_m: 35e-6,
  tape_m: 0.02,
  draws: 200,
};

/** A worker in the same thread: the real handler behind the message port. */
class FakeWorker extends EventTarget {
  terminated = false;
  postMessage(call: Call) {
    queueMicrotask(() => {
      if (this.terminated) return;
      const send = (data: Reply) => this.dispatchEvent(new MessageEvent("message", { data }));
      send(answer(call, send));
    });
  }
  terminate() {
    this.terminated = true;
  }
}
const setup = () => {
  const started: FakeWorker[] = [];
  const client = createComputeClient(() => {
    const worker = new FakeWorker();
    started.push(worker);
    return worker as unknown as Worker;
  });
  return { client, started };
};

test("what the worker answers is what the core answers, with progress on the way", async () => {
  const { client } = setup();
  const seen: number[] = [];
  const result = await client.run("assessPanel", input, { onProgress: (p) => seen.push(p) });
  expect(result).toEqual(assessPanel(input));
  expect(seen.length).toBeGreaterThan(0);
});

test("a figure outside the model comes back as a RangeError, and the worker lives on", async () => {
  const { client, started } = setup();
  await expect(client.run("assessPanel", { ...input, removal_m: NaN })).rejects.toThrow(RangeError);
  await client.run("assessPanel", input);
  expect(started).toHaveLength(1);
});

test("cancelling ends the worker; the next call starts another", async () => {
  const { client, started } = setup();
  const abort = new AbortController();
  const run = client.run("assessPanel", input, { signal: abort.signal });
  abort.abort();
  await expect(run).rejects.toThrow("cancelled");
  expect(started[0]!.terminated).toBe(true);
  await expect(client.run("assessPanel", input, { signal: AbortSignal.abort() })).rejects.toThrow("cancelled");
  await client.run("assessPanel", input);
  expect(started).toHaveLength(2);
});
