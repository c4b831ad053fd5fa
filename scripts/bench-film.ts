import { readdirSync } from "node:fs";
import { assess } from "#core/judge/assess";
import { pictureCells } from "#core/judge/judge-cells";
import { FilmJudge } from "#core/judge/film-judge";
import { DEFAULT_FIELD, type FilmObservation } from "#core/models/film/film-field";
import { type MapInput, mapPanel } from "#core/judge/panel-map";
import { panelShape, suggestSpots } from "#core/kernel/geometry/shapes";
import { changeShop } from "#server/commands/house";
import { takeStandInReadings } from "#server/devices/take-readings";
import { trueFilm } from "#stand-ins/film-gauge";
import { PORT, emptyShop, inBrowser, report, time } from "./bench-kit";
import { numpyField } from "./numpy-kriging";

const { outline, bodyLines } = panelShape("bonnet", { width_m: 1.4, height_m: 1.2 });

function inputOf(spots: number): MapInput {
  const hidden = { outline, under_m: 92e-6, clear_m: 58e-6, seed: 3 };
  const film = {
    outline,
    bodyLines,
    foil: false,
    observations: suggestSpots(outline, spots, { bodyLines }).flatMap((at): FilmObservation[] => {
      const { under_m, clear_m } = trueFilm(hidden, at);
      return [
        { at, layer: "before", total_m: under_m, n: 3 },
        { at, layer: "after", total_m: under_m + clear_m, n: 3 },
      ];
    }),
    history: { weights: { factory: 0, refinish: 1 } },
  };
  return { film, removal_m: 8.9e-6, uRel: 0.2, rim_m: 0.02, floor_m: 35e-6 };
}

/** Map and verdict in Node, and the map's film against one dense regression with a general-purpose matrix library. */
export function benchFilm(): void {
  for (const spots of [6, 30, 60]) {
    const input = inputOf(spots);
    const work = { panel: { removal_m: 8.9e-6, u_m: 1.8e-6, rim_m: 0.02 }, local: [], floor_m: 35e-6 };
    report(
      `film map, ${spots} + ${spots} readings, fit and draws`,
      time(7, () => mapPanel(input)),
    );
    report(
      `verdict, ${spots} + ${spots} readings, fit and draws`,
      time(7, () => assess({ film: input.film, work, remedies: false })),
    );
    const judge = new FilmJudge(input.film);
    report(
      `verdict as a page asks it, the fit in hand from its account, ${spots} + ${spots} readings`,
      time(7, () => assess({ film: input.film, hypotheses: judge.hypotheses, work, remedies: false })),
    );
    judge.risk(work);
    report(
      `one more question to the same judge, ${spots} + ${spots} readings`,
      time(7, () => judge.risk(work)),
    );
    report(
      `the account alone (fit, spots, mean, thinnest), ${spots} + ${spots} readings`,
      time(7, () => {
        const own = new FilmJudge(input.film);
        return [own.at(input.film.observations.map((o) => o.at)), own.mean(), own.thinnest()];
      }),
    );
  }
  const input = inputOf(30);
  const { hypotheses } = new FilmJudge(input.film);
  const own = report(
    "film and draws of 60 × 50 cells, 30 + 30 readings",
    time(7, () => new FilmJudge(input.film, { hypotheses, draws: DRAWS }).allowance({ ...input })),
  );
  // What somebody would write with an array library of compiled kernels, with as many joint draws; of every fourth cell, since all of them do not fit
  // into its memory (two matrices of cells × cells and the draws).
  const points = pictureCells(outline, bodyLines).points.filter((_, i) => i % 4 === 0);
  const array = report(
    `a quarter of the cells (${points.length}) and 2,000 joint draws with numpy-ts (NumPy's interface, WebAssembly kernels)`,
    time(3, () => numpyField(input.film.observations, outline, { ...DEFAULT_FIELD, ...hypotheses[0]!.prior }, points, DRAWS)),
  );
  console.log(`ratio array library (a quarter of the cells) : own film and draws of all = ${(array / own).toFixed(1)}`);
}
const DRAWS = 2000;

/** The map in a worker of Chromium, and how soon a moved slider shows. */
export async function benchFilmInBrowser(): Promise<void> {
  const { folder, db, ctx, job } = await emptyShop();
  await changeShop(ctx, (now) => ({ ...now, standIns: true }));
  const spots = suggestSpots(outline, 30, { bodyLines }).map((at, i) => ({ name: String(i + 1), at }));
  for (const phase of ["before", "after"] as const)
    await takeStandInReadings(ctx, { panelId: job.panelId, phase, spots, count: 3, by: "bench" });
  await db.destroy();
  await inBrowser(folder, async (page) => {
    await page.goto(`http://127.0.0.1:${PORT}/jobs/${job.jobId}/panels/${job.panelId}/inspect/map`);
    await page.getByRole("slider", { name: /Take off/ }).waitFor();
    const asset = readdirSync("build/client/assets").find((f) => f.startsWith("compute.worker"));
    const times = await page.evaluate(
      async ({ url, input }) => {
        const worker = new Worker(url, { type: "module" });
        const run = (id: number) =>
          new Promise<number>((resolve) => {
            const start = performance.now();
            worker.onmessage = (e: MessageEvent<{ id: number; progress?: number }>) => {
              if (e.data.id === id && e.data.progress === undefined) resolve(performance.now() - start);
            };
            worker.postMessage({ id, op: "mapPanel", input });
          });
        const out: number[] = [];
        for (let i = 0; i < 12; i++) out.push(await run(i));
        worker.terminate();
        return out.slice(2);
      },
      { url: `/assets/${asset}`, input: inputOf(30) },
    );
    report("film map with 2,000 draws, 30 + 30 readings, in a worker of Chromium", times);
    await page.waitForTimeout(3000); // the look ahead of the page itself
    const session = await page.context().newCDPSession(page);
    for (const rate of [1, 4]) {
      await session.send("Emulation.setCPUThrottlingRate", { rate });
      for (const layer of ["Clear", "Risk below the floor"]) {
        await page.getByRole("radio", { name: new RegExp(layer) }).check();
        await page.getByRole("slider", { name: /Take off/ }).focus();
        await page.waitForTimeout(500);
        await page.evaluate(watchPaints);
        for (let i = 0; i < 60; i++) {
          await page.keyboard.press(i < 30 ? "ArrowRight" : "ArrowLeft");
          await page.waitForTimeout(70);
        }
        const { paint, work } = await page.evaluate(
          () => (globalThis as unknown as { paints: { paint: number[]; work: number[] } }).paints,
        );
        const how = `layer "${layer}", ${rate === 1 ? "whole processor" : "a quarter of the processor"}`;
        report(`slider, key to painted frame, ${how}`, paint);
        report(`slider, work on the main thread, ${how}`, work);
      }
    }
  });
}

/** In the page: from a key's own time stamp to the frame that shows it, and how long its handlers and React's render took. */
function watchPaints(): void {
  const paints = { paint: [] as number[], work: [] as number[] };
  Object.assign(globalThis, { paints });
  let begun = 0;
  addEventListener(
    "input",
    () => {
      begun = performance.now();
    },
    true,
  );
  // React renders what a key asked for in a microtask that is queued before this one.
  addEventListener("input", () => queueMicrotask(() => paints.work.push(performance.now() - begun)));
  addEventListener(
    "keydown",
    (e) => {
      const pressed = e.timeStamp;
      requestAnimationFrame(() => {
        const painted = new MessageChannel();
        painted.port1.onmessage = () => paints.paint.push(performance.now() - pressed);
        painted.port2.postMessage(0);
      });
    },
    true,
  );
}
