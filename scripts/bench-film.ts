import { readdirSync } from "node:fs";
import { assessPanel } from "#core/film/assess-panel";
import { DEFAULT_FIELD, type FilmObservation } from "#core/film/film-field";
import { mapPanel } from "#core/film/map-panel";
import { type FilmInput, filmGrid, filmState, possibleWorlds } from "#core/film/panel-film";
import { panelShape, suggestSpots } from "#core/panel/shapes";
import { takeStandInReadings } from "#server/devices/take-readings";
import { trueFilm } from "#stand-ins/film-gauge";
import { PORT, emptyShop, inBrowser, report, time } from "./bench-kit";
import { denseField } from "./dense-kriging";

const { outline, bodyLines } = panelShape("bonnet", { width_m: 1.4, height_m: 1.2 });

function inputOf(spots: number): FilmInput {
  const hidden = { outline, under_m: 92e-6, clear_m: 58e-6, seed: 3 };
  return {
    outline,
    bodyLines,
    observations: suggestSpots(outline, spots, { bodyLines }).flatMap((at): FilmObservation[] => {
      const { under_m, clear_m } = trueFilm(hidden, at);
      return [
        { at, layer: "before", total_m: under_m, n: 3 },
        { at, layer: "after", total_m: under_m + clear_m, n: 3 },
      ];
    }),
    history: { weights: { factory: 0, refinish: 1 } },
    removal_m: 8.9e-6,
    u_removal_m: 1.3e-6,
    floor_m: 35e-6,
    tape_m: 0.02,
  };
}

/** Map and verdict in Node, and the map's film against one dense regression with a general-purpose matrix library. */
export function benchFilm(): void {
  for (const spots of [6, 30, 60]) {
    const input = inputOf(spots);
    report(
      `film map, ${spots} + ${spots} readings, fit and 2,000 draws`,
      time(7, () => mapPanel(input)),
    );
    report(
      `verdict, ${spots} + ${spots} readings, with the look ahead`,
      time(5, () => assessPanel(input)),
    );
  }
  const input = inputOf(30);
  const [world] = possibleWorlds(input);
  const grid = filmGrid(input);
  const own = report(
    "film and draws of 60 × 50 cells, 30 + 30 readings",
    time(7, () => filmState(input, input.observations, { worlds: [world!], grid })),
  );
  // The plain way needs every covariance between cells; a quarter of the cells already tells.
  const points = grid.points.filter((_, i) => i % 4 === 0);
  const dense = report(
    `covariance of ${points.length} cells by a general-purpose matrix library`,
    time(3, () => denseField(input.observations, outline, { ...DEFAULT_FIELD, ...world!.prior }, points)),
  );
  console.log(`ratio plain dense (a quarter of the cells, without any draw) to own film and draws ${(dense / own).toFixed(1)}`);
}

/** The map in a worker of Chromium, and how soon a moved slider shows. */
export async function benchFilmInBrowser(): Promise<void> {
  const { folder, db, ctx, job } = await emptyShop();
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
    for (const layer of ["Clear", "Risk below the floor"]) {
      await page.getByRole("radio", { name: new RegExp(layer) }).click();
      await page.getByRole("slider", { name: /Take off/ }).focus();
      const redraws = await page.evaluate(async () => {
        const thumb = document.querySelector<HTMLElement>('[role="slider"]')!;
        const out: number[] = [];
        for (let i = 0; i < 40; i++) {
          const start = performance.now();
          thumb.dispatchEvent(new KeyboardEvent("keydown", { key: i < 20 ? "ArrowRight" : "ArrowLeft", bubbles: true, cancelable: true }));
          // React has rendered what the key asked for when the next task runs.
          await new Promise((resolve) => setTimeout(resolve, 0));
          out.push(performance.now() - start);
          await new Promise((resolve) => setTimeout(resolve, 60));
        }
        return out;
      });
      report(`slider moved by a key to the page redrawn, layer "${layer}"`, redraws);
    }
  });
}
