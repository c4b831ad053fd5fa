import { houseWay } from "#core/models/ways/house-ways";
import type { AssessInput } from "#core/judge/assess";
import { flowWindow } from "#core/models/flow/flow-window";
import { assess } from "#core/judge/assess";
import type { FilmObservation } from "#core/models/film/film-field";
import { DEFAULT_RATES } from "#core/judge/option-figures";
import { planFor } from "#core/judge/plan-for";
import { mapQuestion, optionQuestion, usualChoice } from "#core/judge/questions";
import { NIBS, RUN, testView } from "~/kit/testing/render-panel";
import { createComputeClient } from "#workers/client";
import { type Call, type Reply, answer } from "#workers/ops";

const observations = [0.2, 0.5, 0.8].flatMap((x): FilmObservation[] => [
  { at: [x, 0.4], layer: "before", total_m: 90e-6, n: 3 },
  { at: [x, 0.4], layer: "after", total_m: 165e-6, n: 3 },
]);
const input: AssessInput = {
  film: {
    outline: [
      [0, 0],
      [1, 0],
      [1, 0.8],
      [0, 0.8],
    ],
    observations,
    history: { weights: { factory: 1, refinish: 0 } },
    foil: true,
  },
  work: { panel: { removal_m: 6e-6, u_m: 1e-6, rim_m: 0.02 }, local: [], floor_m: 35e-6 },
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
  const result = await client.run("assess", input, { onProgress: (p) => seen.push(p) });
  expect(result).toEqual(assess(input));
  expect(seen.length).toBeGreaterThan(0);
});

test("a figure outside the model comes back as a RangeError, and the worker lives on", async () => {
  const { client, started } = setup();
  await expect(client.run("assess", { ...input, work: { ...input.work, floor_m: NaN } })).rejects.toThrow(RangeError);
  await client.run("assess", input);
  expect(started).toHaveLength(1);
});

test("cancelling ends the worker; the next call starts another", async () => {
  const { client, started } = setup();
  const abort = new AbortController();
  const run = client.run("assess", input, { signal: abort.signal });
  abort.abort();
  await expect(run).rejects.toThrow("cancelled");
  expect(started[0]!.terminated).toBe(true);
  await expect(client.run("assess", input, { signal: AbortSignal.abort() })).rejects.toThrow("cancelled");
  await client.run("assess", input);
  expect(started).toHaveLength(2);
});

test("a flow window from the worker is the core's own, cell by cell", async () => {
  const { client } = setup();
  const gun = { fluidRate_m3_s: 230e-6 / 60, pressure_Pa: 193053, distance_m: 0.175, overlap: 0.5, handSpeed_m_s: 0.34 };
  const setting = {
    conditions: {
      air_K: 295.15,
      speed: "medium" as const,
      volumeSolids: 0.475,
      reducer: 0,
      airSpeed_m_s: 0.3,
      tilt_rad: 1.57,
      edge: 1,
      below: { long_m: 1.2e-7, short_m: 1.5e-7 },
    },
    coats: [{ gun, flash_s: 0 }],
  };
  const swept = await client.run("flowWindow", { setting, xAxis: "distance", yAxis: "speed", n: 6 });
  expect(swept).toEqual(flowWindow(setting, { xAxis: "distance", yAxis: "speed", n: 6 }));
  await expect(client.run("flowWindow", { setting, xAxis: "speed", yAxis: "speed", n: 6 })).rejects.toThrow("yAxis must differ");
});

test("whatever an operation answers is plain data that may cross to another thread", async () => {
  const view = testView({ add: (l) => [l.add("defect", RUN), l.add("defect", NIBS)] });
  const asked = { ...view, job: { way: houseWay("three-flat"), finish: "flat" as const } };
  const { client } = setup();
  const options = await client.run("options", optionQuestion(asked, { cured: 1, rates: DEFAULT_RATES }));
  expect(structuredClone(options).answer!.decision.options).toHaveLength(6);
  expect(structuredClone(await client.run("mapPanel", mapQuestion(asked))).map!.index.length).toBeGreaterThan(1000);
  const { assess: question } = planFor(view.panel, view.state, usualChoice(asked));
  expect(structuredClone(await client.run("assess", question)).reason).toBeNull();
});
