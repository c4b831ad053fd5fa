import { panelShape } from "#core/kernel/geometry/shapes";
import { bestPath } from "#core/coat/best-path";
import { flowConditions } from "#core/coat/setting";
import { askedOf } from "#core/coat/testing/asked-of";
import { flowStep } from "#core/models/panel-film/flow-step";
import { coneOver, land } from "#core/models/panel-film/land";
import { type PanelFilm, copyFilm, panelFilm } from "#core/models/panel-film/panel-film";
import { plannedPath } from "#core/models/panel-film/planned-path";
import { seenPanel } from "#core/models/panel-film/seen";
import { waitOn } from "#core/models/panel-film/spray-rows";
import { productSheet } from "#core/models/product/sheet-schema";
import { USUAL_SHEETS } from "#core/models/product/usual-sheets";
import { USUAL_GUN } from "#core/models/spray/usual-gun";
import { houseWay } from "#core/models/ways/house-ways";
import { debrief } from "#core/practice/debrief";
import { coatsInRows } from "#core/practice/good-rows";
import { roundOf } from "#core/vehicle/round";
import { USUAL_ROUND, walkAsked } from "#core/vehicle/round-walk";
import { VEHICLES, placeKey } from "#core/vehicle/vehicles";
import { bestWalk } from "#core/vehicle/walk";
import { emptyShop, inBrowser, report, time } from "./bench-kit";
import { rowsOver, sprayRows } from "../e2e/bench-hand";

const sheet = productSheet.parse(USUAL_SHEETS.high.sheets[0]);
const UPRIGHT = flowConditions(sheet, { air_K: 295.15, material_K: null, reducer: 0, tilt_rad: Math.PI / 2 });

/** A panel of 66,000 cells, wet all over. */
function wetPanel(): PanelFilm {
  const film = panelFilm({ width_m: 1.5, height_m: 1.1, cell_m: 0.005 }, UPRIGHT);
  const cone = coneOver(film, USUAL_GUN);
  for (let y_m = 0; y_m <= 1.1; y_m += 0.125)
    for (let x_m = -0.1; x_m < 1.6; x_m += USUAL_GUN.handSpeed_m_s / 60) land(film, USUAL_GUN, cone, { x_m, y_m }, 1 / 60, 1);
  return film;
}

/** A coat seen from above: a step of landing and of flow, a flash, a picture, a path, a debrief; and what the page has to do while a hand sprays. */
export async function benchPanel(): Promise<string[]> {
  const misses: string[] = [];
  /** @param most_ms what its median may take */
  const measured = (name: string, samples: readonly number[], most_ms: number, unit = "ms") => {
    const median = report(name, samples, unit);
    if (median > most_ms) misses.push(`${name}: ${median.toFixed(1)} ${unit}, at most ${most_ms}`);
  };
  const wet = wetPanel();
  const cone = coneOver(wet, USUAL_GUN);
  report(
    "66,000 cells: what lands in a sixtieth of a second",
    time(200, () => land(wet, USUAL_GUN, cone, { x_m: 0.7, y_m: 0.5 }, 1 / 60, 1)),
  );
  const flowing = wetPanel();
  measured(
    "66,000 cells, all wet: a step of the flow",
    time(120, () => flowStep(flowing, 0.25)),
    8,
  );
  const flashed = wetPanel();
  measured(
    "66,000 cells: 15 min of flash",
    time(3, () => waitOn(copyFilm(flashed), 900)),
    15_000,
  );
  const look = { bare: [60, 90, 95], coated: [50, 80, 85], wet: [30, 60, 66], light: [230, 250, 250] } as const;
  report(
    "66,000 cells: a picture of as many points",
    time(40, () =>
      seenPanel(
        wet,
        {
          ...look,
          ramp: null,
          tubes: [0.2, 0.6],
          lean: -0.03,
          setSlope: [{ shares: [1], waits_s: [0], figures: [[0.004]] }],
          planned_m: [],
        },
        1,
      ),
    ),
  );
  const { outline } = panelShape("door", { width_m: 1.1, height_m: 0.7 });
  const gun = { ...USUAL_GUN };
  const coat = { gun, handSpeed_m_s: gun.handSpeed_m_s, overlap: gun.overlap, trigger: "released", turn_s: 0.6, flash_s: 600 } as const;
  measured(
    "planned path of a door, two coats",
    time(7, () => plannedPath(outline, UPRIGHT, [coat, { ...coat, flash_s: null }])),
    1000,
  );
  const door = askedOf(() => undefined, { shape: panelShape("door", { width_m: 1.1, height_m: 0.7 }) });
  const bonnet = askedOf(() => undefined, { shape: panelShape("bonnet", { width_m: 1.4, height_m: 1.2 }) });
  for (const [name, asked] of [
    ["door", door],
    ["bonnet", bonnet],
  ] as const)
    measured(
      `best path of a ${name}`,
      time(3, () => bestPath(asked)),
      10_000,
    );
  const parts = VEHICLES.car5.places
    .slice(0, 12)
    .map(({ id }) => ({ id, name: id, place: placeKey("car5", id), colour: "first" as const, asked: door }));
  const walk = walkAsked(roundOf(parts), USUAL_ROUND);
  measured(
    "wet edge of twelve parts, the best of all orders",
    time(5, () => bestWalk(walk)),
    500,
  );
  const setting = { outline, tilt_rad: Math.PI / 2, sheet, way: houseWay("two-full"), coats: 1, air_K: 294.15 };
  const coats = coatsInRows(setting, { dwell: { row: 2, seconds: 1 } });
  report(
    "debrief of one coat on a door with one mistake",
    time(5, () => debrief(setting, coats)),
  );
  const { folder } = await emptyShop();
  await inBrowser(folder, async (page) => {
    const cdp = await page.context().newCDPSession(page);
    await cdp.send("Performance.enable");
    const busy_ms = async () => 1000 * (await cdp.send("Performance.getMetrics")).metrics.find((m) => m.name === "TaskDuration")!.value;
    await page.goto("/practice/wide-bonnet");
    await page.getByRole("button", { name: "Spray coat 1" }).click();
    const each: number[] = [];
    const frames: number[] = [];
    for (const row of rowsOver(1.4, 1.1, 10).slice(0, 8)) {
      const from = { busy: await busy_ms(), at: performance.now() };
      const drawn = page.evaluate(
        () =>
          new Promise<number>((done) => {
            let n = 0;
            const until = performance.now() + 3000;
            const next = () => (performance.now() > until ? done(n) : (n++, requestAnimationFrame(next)));
            requestAnimationFrame(next);
          }),
      );
      await sprayRows(page, [row]);
      const n = await drawn;
      const took_ms = performance.now() - from.at;
      each.push(((await busy_ms()) - from.busy) / (n * (took_ms / 3000)));
      frames.push(n / 3);
    }
    measured("spraying in the browser: the page's own work a frame", each, 8);
    report("spraying in the browser: frames a second", frames, "/s");
  });
  return misses;
}
