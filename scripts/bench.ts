import { REFERENCE_SETTING } from "#core/models/flow/testing/usual-setting";
import { spawn } from "node:child_process";
import { mkdtempSync, readdirSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { emptyFluidity, fluidityInto } from "#core/models/flow/fluidity";
import { integratedFluidity } from "./integrated-fluidity";
import { planBooth } from "#core/models/schedule/booth-plan";
import type { BoothPart, BoothProblem } from "#core/models/schedule/booth-problem";
import { FLOW_PAIRS } from "#core/models/flow/flow-window";
import { seededRandom } from "#core/kernel/stats/random";
import { recordEntries } from "#server/commands/record-entry";
import { createContext } from "#server/context";
import { migrate, openDatabase } from "#server/db/open";
import { coatBody, readingBody, testJob } from "#server/testing/fixtures";
import { benchAnswers } from "./bench-answers";
import { benchFilm, benchFilmInBrowser } from "./bench-film";
import { benchGrowth } from "./bench-growth";
import { benchPages } from "./bench-pages";
import { benchPanel } from "./bench-panel";
import { benchPhoto } from "./bench-photo";
import { benchShop } from "./bench-shop";
import { benchTyping } from "./bench-typing";
import { firstLoad } from "./first-load";
import { PORT, emptyShop, inBrowser, report, time } from "./bench-kit";
import { listens } from "./trial/harness";

const JOBS = 200;
const PANELS = 5;
const READINGS = 60;

/** The flow model's own integrals beside a general-purpose integrator, and the booth's plan of six parts and three coats. */
function benchModels(): void {
  const film = {
    solids_m: 28e-6,
    u0: 0.8,
    u1: 0.2,
    viscosity0_Pa_s: 0.4,
    cure_1_s: 5.6e-4,
    evaporation_m_s: 3e-7,
    temperature_K: 295.15,
  };
  const out = emptyFluidity();
  const repeat = (count: number, run: () => unknown) => () => {
    for (let i = 0; i < count; i++) run();
  };
  const MANY = 500;
  const ours = report(
    `flow integrals × ${MANY}, own quadrature`,
    time(
      15,
      repeat(MANY, () => fluidityInto(out, film)),
    ),
  );
  const general = report(
    `flow integrals × ${MANY}, adaptive Runge–Kutta at 1e-6`,
    time(
      15,
      repeat(MANY, () => integratedFluidity(film, 1e-6)),
    ),
  );
  console.log(`ratio general-purpose : own = ${(general / ours).toFixed(1)}`);
  const MIN_S = 60;
  const part = (minutes: number, i: number): BoothPart => ({
    id: `part ${i}`,
    coats: 3,
    spray_s: minutes * MIN_S,
    flashMin_s: 10 * MIN_S,
    flashMax_s: 30 * MIN_S,
    sides: 1,
    turn_s: 0,
    group: null,
    product: "clear",
    potLife_s: 90 * MIN_S,
    volume_m3: 2e-4,
    done: 0,
    doneEnd_s: null,
  });
  const plan = (places: number): BoothProblem => ({
    parts: [5, 7, 6, 8, 4, 9].map(part),
    rules: { painters: 1, places, mix_s: 300, potsMost: null, carryOut_s: 900, end_s: null },
    fixed: [],
    openPots: [],
  });
  report(
    "booth plan, 6 parts × 3 coats, 6 places",
    time(15, () => planBooth(plan(6))),
  );
  report(
    "booth plan, 6 parts × 3 coats, 3 places",
    time(7, () => planBooth(plan(3))),
  );
}

async function benchServer(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), "yakamoz-bench-"));
  const db = openDatabase(join(folder, "yakamoz.sqlite"));
  await migrate(db);
  const ctx = createContext(db);
  const paths: string[] = [];
  const start = performance.now();
  for (let j = 0; j < JOBS; j++) {
    const { jobId, panelId } = await testJob(ctx);
    for (let p = 0; p < PANELS; p++) {
      const id = p === 0 ? panelId : ctx.newId();
      if (p > 0) {
        const first = await db.selectFrom("panel").selectAll().where("id", "=", panelId).executeTakeFirstOrThrow();
        await db
          .insertInto("panel")
          .values({ ...first, id, position: p + 1, client_key: null })
          .execute();
      }
      await recordEntries(
        ctx,
        id,
        [1, 2].map((n) => ({ panelId: id, kind: "coat" as const, by: "bench", body: coatBody(n) })),
      );
      await recordEntries(
        ctx,
        id,
        Array.from({ length: READINGS }, (_, i) => {
          const spot = i % 30;
          const body = readingBody(i < 30 ? "before" : "after", String(spot + 1), i < 30 ? 90 : 150, {
            x_m: 0.1 + 0.04 * spot,
            y_m: 0.3 + 0.02 * (spot % 20),
          });
          return { panelId: id, kind: "reading" as const, by: "bench", body };
        }),
      );
      paths.push(`/jobs/${jobId}/panels/${id}/inspect`);
    }
  }
  await db.destroy();
  console.log(
    `file with ${JOBS} jobs × ${PANELS} panels × ${READINGS} readings written in ${((performance.now() - start) / 1000).toFixed(0)} s`,
  );
  const server = spawn(process.execPath, ["server.mjs"], {
    env: { ...process.env, YAKAMOZ_DATA: folder, PORT },
    stdio: ["ignore", "pipe", "inherit"],
  });
  if (!(await listens(server))) throw new Error("the server ended before it listened");
  const get = async (path: string) => {
    const begun = performance.now();
    const answer = await fetch(`http://127.0.0.1:${PORT}${path}`);
    const text = await answer.text();
    if (!answer.ok) throw new Error(`${path}: ${answer.status}`);
    return { ms: performance.now() - begun, text };
  };
  try {
    const random = seededRandom(1);
    const some = () => paths[Math.floor(random() * paths.length)]!;
    for (let i = 0; i < 30; i++) await get(some());
    const measure = async (count: number, path: () => string) => {
      const samples: number[] = [];
      for (let i = 0; i < count; i++) samples.push((await get(path())).ms);
      return samples;
    };
    report("job page (whole document)", await measure(200, some));
    report("job page (data only)", await measure(200, () => `${some()}.data`));
    report("Floor (200 jobs)", await measure(20, () => "/"));
    for (const [name, path] of [
      ["Floor", "/"],
      ["Inspect", some()],
      ["Will it run?", some().replace("inspect", "spray/window")],
    ] as const) {
      const { kB, files } = firstLoad((await get(path)).text);
      console.log(`first-load script, ${name}: ${kB.toFixed(1)} kB gzipped in ${files.length} files`);
    }
  } finally {
    server.kill("SIGTERM");
  }
}

/** The flow window in a worker of Chromium, and how smoothly its point is dragged. */
async function benchFlow(): Promise<void> {
  const { folder } = await emptyShop();
  await inBrowser(folder, async (page) => {
    await page.goto(`http://127.0.0.1:${PORT}/ask/run`);
    await page.locator("html[data-live]").waitFor({ state: "attached" });
    const asset = readdirSync("build/client/assets").find((f) => f.startsWith("compute.worker"));
    const setting = REFERENCE_SETTING;
    for (const { x, y } of FLOW_PAIRS) {
      const times = await page.evaluate(
        async ({ url, input }) => {
          const worker = new Worker(url, { type: "module" });
          const run = (id: number) =>
            new Promise<number>((resolve) => {
              const start = performance.now();
              worker.onmessage = (e: MessageEvent<{ id: number; progress?: number }>) => {
                if (e.data.id === id && e.data.progress === undefined) resolve(performance.now() - start);
              };
              worker.postMessage({ id, op: "flowWindow", input });
            });
          const out: number[] = [];
          for (let i = 0; i < 9; i++) out.push(await run(i));
          worker.terminate();
          return out.slice(2);
        },
        { url: `/assets/${asset}`, input: { setting, xAxis: x, yAxis: y, n: 60 } },
      );
      report(`flow window ${x} × ${y}, 60 × 60, in a worker`, times);
    }
    const point = page.getByRole("slider", { name: /Today's settings/ });
    const box = (await point.boundingBox())!;
    await page.evaluate(() => {
      const seen = { frames: [] as number[], long: [] as number[] };
      Object.assign(globalThis, { benchSeen: seen });
      new PerformanceObserver((l) => l.getEntries().forEach((e) => seen.long.push(e.duration))).observe({ entryTypes: ["longtask"] });
      const frame = (t: number) => {
        seen.frames.push(t);
        requestAnimationFrame(frame);
      };
      requestAnimationFrame(frame);
    });
    await page.mouse.move(box.x + 10, box.y + 10);
    await page.mouse.down();
    for (let i = 0; i < 120; i++) {
      await page.mouse.move(box.x + 10 + 70 * Math.sin(i / 9), box.y + 10 + 50 * Math.cos(i / 11));
      await page.waitForTimeout(12);
    }
    await page.mouse.up();
    const seen = await page.evaluate(() => (globalThis as unknown as { benchSeen: { frames: number[]; long: number[] } }).benchSeen);
    const gaps = seen.frames.slice(1).map((t, i) => t - seen.frames[i]!);
    const median = report("frame while the point is dragged", gaps);
    console.log(
      `that is ${(1000 / median).toFixed(0)} frames a second; main thread blocked above 50 ms ${seen.long.length} times, longest ${Math.max(0, ...seen.long).toFixed(0)} ms`,
    );
  });
}

const wanted = process.argv[2];
const sizes = process.argv[3]?.split(",").filter(Boolean).map(Number);
if (!wanted || wanted === "core") {
  benchModels();
  benchFilm();
}
if (!wanted || wanted === "film") await benchFilmInBrowser();
if (!wanted || wanted === "photo") await benchPhoto();
if (!wanted || wanted === "flow") await benchFlow();
if (!wanted || wanted === "typing") await benchTyping();
if (!wanted || wanted === "server") await benchServer();
const BUDGETS = { pages: benchPages, growth: () => benchGrowth(sizes), answers: benchAnswers, shop: benchShop, panel: benchPanel } as const;
for (const [name, measure] of Object.entries(BUDGETS)) {
  if (wanted && wanted !== name) continue;
  for (const line of await measure()) {
    console.error(`above budget: ${line}`);
    process.exitCode = 1;
  }
}
