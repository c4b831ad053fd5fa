import { rectangle } from "#core/kernel/geometry/geometry";
import { seededRandom } from "#core/kernel/stats/random";
import { FLOW } from "#core/models/flow/constants";
import { simulateCoats } from "#core/models/flow/simulate-coats";
import type { FanPattern } from "#core/models/spray/fan-pattern";
import { patternRipple } from "#core/models/spray/pattern-ripple";
import { rowsOver } from "#core/models/spray/row-plan";
import { filmFigures, middleOf } from "./film-figures";
import { flowStep } from "./flow-step";
import { coneOver, land } from "./land";
import { type FilmConditions, type PanelFilm, copyFilm, dryFilm, filmViscosity, panelFilm, solidsOn } from "./panel-film";
import { sprayRows, sprayer, waitOn } from "./spray-rows";

const DAY: FilmConditions = { air_K: 295.15, speed: "medium", volumeSolids: 0.475, reducer: 0, airSpeed_m_s: 0.3, tilt_rad: Math.PI / 2 };
const GUN = { fluidRate_m3_s: 230e-6 / 60, pressure_Pa: 28 * 6894.757, distance_m: 0.175 };
const HAND = { handSpeed_m_s: 0.34, turn_s: 0.6, held: false };
const evenRows = (size: { width_m: number; height_m: number }, fan_m = 0.25) =>
  rowsOver(rectangle(size.width_m, size.height_m), { fan_m, overlap: 0.5 });
const SIZE = { width_m: 0.8, height_m: 0.6, cell_m: 0.01 };

function coated(size = SIZE, day = DAY, hand = HAND, coats = 1): PanelFilm {
  const film = panelFilm(size, day);
  const rows = evenRows(size, coneOver(film, GUN).fan_m);
  for (let coat = 1; coat <= coats; coat++) {
    sprayRows(film, GUN, rows, hand, coat);
    waitOn(film, coat < coats ? 600 : 900);
  }
  return film;
}
const kept = (film: PanelFilm) => (solidsOn(film) + film.sums.dripped_m3) / film.sums.landed_m3 - 1;

test("film, unevenness and slide of even rows are the flow model's own of the same coat", () => {
  const film = coated();
  const model = simulateCoats({ ...DAY, edge: 1, below: { long_m: 0, short_m: 0 } }, [
    { gun: { ...GUN, overlap: 0.5, handSpeed_m_s: HAND.handSpeed_m_s }, flash_s: 600 },
  ]);
  const middle = filmFigures(film, middleOf(film));
  expect(Math.abs(middle.mean_m / model.dry_m - 1)).toBeLessThan(0.015);
  expect(Math.abs(middle.cv / patternRipple(0.5).cv - 1)).toBeLessThan(0.12);
  expect(Math.abs(filmFigures(film).slideMiddle_m / model.coats[0]!.sag_m - 1)).toBeLessThan(0.1);
  expect(Math.abs(filmFigures(film).slideMost_m / model.sagLocal_m - 1)).toBeLessThan(0.1);
});

test("what landed is on the panel or fell off its edge; what was sprayed landed or was lost", () => {
  for (const film of [coated(), coated(SIZE, { ...DAY, tilt_rad: 0 }), coated(SIZE, DAY, { ...HAND, handSpeed_m_s: 0.14 }, 2)]) {
    expect(Math.abs(kept(film))).toBeLessThan(1e-9);
    expect(film.sums.landed_m3).toBeLessThan(film.sums.sprayed_m3 * coneOver(film, GUN).transfer);
    expect(film.sums.sprayed_m3 / film.sums.used_m3).toBeCloseTo(coneOver(film, GUN).volumeSolids, 9);
  }
});

test("a far too heavy lower edge drips, and what drips is counted", () => {
  const film = panelFilm({ width_m: 0.3, height_m: 0.2, cell_m: 0.005 }, DAY);
  const at = sprayer(film, GUN, 1);
  at.moves({ x_m: 0.15, y_m: 0.15 }, { x_m: 0.15, y_m: 0.15 }, 6, true);
  at.ends();
  waitOn(film, 900);
  expect(film.sums.dripped_m3).toBeGreaterThan(0.01 * film.sums.landed_m3);
  expect(Math.abs(kept(film))).toBeLessThan(1e-9);
});

test("nothing slides on a lying panel; left and right are the same; a path and its reverse differ by little", () => {
  expect(filmFigures(coated(SIZE, { ...DAY, tilt_rad: 0 })).slideMost_m).toBe(0);
  const film = panelFilm(SIZE, DAY);
  const mirrored = panelFilm(SIZE, DAY);
  const reverse = panelFilm(SIZE, DAY);
  const rows = evenRows(SIZE);
  sprayRows(film, GUN, rows, HAND, 1);
  sprayRows(
    mirrored,
    GUN,
    rows.map((p) => ({ x0_m: SIZE.width_m - p.x0_m, x1_m: SIZE.width_m - p.x1_m, y_m: p.y_m })),
    HAND,
    1,
  );
  sprayRows(
    reverse,
    GUN,
    [...rows].reverse().map((p) => ({ x0_m: p.x1_m, x1_m: p.x0_m, y_m: p.y_m })),
    HAND,
    1,
  );
  for (let j = 0; j < film.rows; j++)
    for (let i = 0; i < film.columns; i++) {
      const here = dryFilm(film, j * film.columns + i);
      expect(Math.abs(here / dryFilm(mirrored, j * film.columns + film.columns - 1 - i) - 1)).toBeLessThan(1e-9);
      expect(Math.abs(here / dryFilm(reverse, j * film.columns + i) - 1)).toBeLessThan(0.02);
    }
});

test("cells of half the side: the mean within 1 %, the rest within 10 %", () => {
  const [coarse, fine] = [coated(), coated({ ...SIZE, cell_m: 0.005 })].map((f) => ({
    all: filmFigures(f),
    middle: filmFigures(f, middleOf(f)),
  }));
  expect(Math.abs(fine!.middle.mean_m / coarse!.middle.mean_m - 1)).toBeLessThan(0.01);
  for (const [a, b] of [
    [fine!.middle.cv, coarse!.middle.cv],
    [fine!.all.most_m, coarse!.all.most_m],
    [fine!.middle.slideMiddle_m, coarse!.middle.slideMiddle_m],
    [fine!.all.slideMost_m, coarse!.all.slideMost_m],
  ] as const)
    expect(Math.abs(a / b - 1)).toBeLessThan(0.1);
});

test("without surface tension's pull and drying, a step of film goes down at the kinematic wave's speed ρg h²/η", () => {
  // Cells so large that surface tension does nothing, and so short a time that nothing dries.
  const film = panelFilm({ width_m: 0.04, height_m: 2, cell_m: 0.02 }, { ...DAY, airSpeed_m_s: 1e-9, air_K: 295.15 });
  const h0 = 100e-6;
  const u = 0.8;
  // A profile that rises evenly goes on as it is at each depth: the place where it has a depth moves at ρg h²/η.
  const at = (row: number) => h0 * (1 + 0.2 * Math.min(1, Math.max(0, (row - 20) / 40)));
  for (let j = 0; j < film.rows; j++)
    for (let i = 0; i < film.columns; i++) {
      const c = j * film.columns + i;
      film.solids_m[c] = at(j) / (1 + u);
      film.solvent_m[c] = (at(j) * u) / (1 + u);
    }
  const place = (depth: number) => {
    for (let j = 1; j < film.rows; j++) {
      const [a, b] = [film.solids_m[(j - 1) * 2]!, film.solids_m[j * 2]!].map((s) => s * (1 + u));
      if (a! < depth && b! >= depth) return (j - 1 + (depth - a!) / (b! - a!)) * film.cell_m;
    }
    throw new Error("no such depth");
  };
  const depth = 1.1 * h0;
  const before = place(depth);
  for (let k = 0; k < 240; k++) flowStep(film, 0.25);
  const eta = filmViscosity(film.rates, u, 30);
  const speed = (FLOW.density_kg_m3 * FLOW.gravity_m_s2 * depth ** 2) / eta;
  expect(Math.abs((place(depth) - before) / (speed * 60) - 1)).toBeLessThan(0.03);
});

test("a hand that stays leaves a lip well below where it stayed, and a starved trail above it", () => {
  const film = panelFilm(SIZE, DAY);
  const rows = evenRows(SIZE);
  sprayRows(film, GUN, rows, HAND, 1);
  const at = sprayer(film, GUN, 1);
  at.moves({ x_m: 0.4, y_m: 0.2 }, { x_m: 0.4, y_m: 0.2 }, 0.8, true);
  at.ends();
  waitOn(film, 900);
  const column = Array.from({ length: film.rows }, (_, j) => dryFilm(film, j * film.columns + 40));
  const lip = column.indexOf(Math.max(...column));
  expect(column[lip]).toBeGreaterThan(120e-6);
  expect(column[lip]).toBeLessThan(240e-6);
  expect((lip + 0.5) * film.cell_m - 0.2).toBeGreaterThan(0.05);
  expect(filmFigures(film).runShare).toBeGreaterThan(0.01);
});

test("150 random paths: every number is one, none is below nothing, nothing is made", () => {
  const random = seededRandom(27);
  const between = (a: number, b: number) => a + (b - a) * random();
  for (let k = 0; k < 150; k++) {
    const round = random() < 0.3;
    const film = panelFilm(
      {
        width_m: between(0.1, 0.6),
        height_m: between(0.1, 0.5),
        cell_m: 0.02,
        ...(round ? { inside: (x: number, y: number) => (x - 0.2) ** 2 + (y - 0.15) ** 2 < 0.03 } : {}),
      },
      {
        ...DAY,
        air_K: between(280, 315),
        reducer: between(0, 0.2),
        tilt_rad: between(0, Math.PI),
        speed: (["fast", "medium", "slow"] as const)[Math.floor(random() * 3)]!,
      },
    );
    for (let coat = 1; coat <= 3; coat++) {
      const gun = { fluidRate_m3_s: between(60, 800) * (1e-6 / 60), pressure_Pa: between(0.8e5, 3.5e5), distance_m: between(0.09, 0.33) };
      const at = sprayer(film, gun, coat);
      let here = { x_m: between(-0.2, 0.8), y_m: between(-0.2, 0.7) };
      for (let leg = 0; leg < 5; leg++) {
        const there = { x_m: between(-0.2, 0.8), y_m: between(-0.2, 0.7) };
        at.moves(here, there, between(0, 3), random() < 0.8);
        here = there;
      }
      at.ends();
      waitOn(film, between(0, 900));
    }
    for (const cells of [film.solids_m, film.solvent_m, film.fixed_m, film.thirst_m, film.slide_m, film.age_s])
      expect(cells.every((x) => Number.isFinite(x) && x >= 0)).toBe(true);
    expect(film.solids_m.every((s, c) => s === 0 || film.inside[c] === 1)).toBe(true);
    if (film.sums.landed_m3 > 0) expect(Math.abs(kept(film))).toBeLessThan(1e-9);
    expect(film.sums.landed_m3).toBeLessThanOrEqual(film.sums.sprayed_m3);
  }
});

test("an outline keeps the film: nothing lands beside it, nothing flows over its edge", () => {
  const film = panelFilm({ ...SIZE, inside: (x, y) => x + y < 0.7 }, DAY);
  sprayRows(film, GUN, evenRows(SIZE), HAND, 1);
  waitOn(film, 60);
  for (let c = 0; c < film.inside.length; c++) expect(dryFilm(film, c) > 0).toBe(film.inside[c] === 1);
});

test("a long wait in one go is the wait in steps, when nothing moves any more", () => {
  const film = coated();
  const stepped = copyFilm(film);
  waitOn(film, 7200);
  for (let k = 0; k < 7200; k++) flowStep(stepped, 1);
  expect(film.sums.time_s).toBeCloseTo(stepped.sums.time_s, 6);
  for (let c = 0; c < film.solids_m.length; c += 37) expect(Math.abs(film.solvent_m[c]! / stepped.solvent_m[c]! - 1)).toBeLessThan(0.01);
});

test("how easily each cell flows is its viscosity's own to nine digits, from the wet film to the one that stands still", () => {
  const film = panelFilm({ width_m: 0.5, height_m: 0.4, cell_m: 0.005 }, DAY);
  const random = seededRandom(5);
  film.solids_m.fill(20e-6);
  film.solvent_m.forEach((_, c) => (film.solvent_m[c] = 20e-6 * (0.02 + 1.6 * random())));
  film.age_s.forEach((_, c) => (film.age_s[c] = 7200 * random()));
  flowStep(film, 1e-9); // so short that nothing has moved yet
  let [flowing, worst] = [0, 0];
  film.mobility.forEach((mobility, c) => {
    if (mobility === 0) return;
    flowing += 1;
    const depth_m = film.depth_m[c]!;
    const viscosity_Pa_s = depth_m ** 3 / 3 / mobility;
    worst = Math.max(worst, Math.abs(viscosity_Pa_s / filmViscosity(film.rates, depth_m / 20e-6 - 1, film.age_s[c]!) - 1));
  });
  expect(flowing).toBeGreaterThan(1000);
  expect(worst).toBeLessThan(1e-9);
});

test("what makes no sense is refused by name", () => {
  expect(() => panelFilm({ ...SIZE, cell_m: 0 }, DAY)).toThrow("cell_m");
  expect(() => panelFilm({ ...SIZE, width_m: Number.NaN }, DAY)).toThrow("width_m");
  expect(() => panelFilm({ width_m: 4, height_m: 4, cell_m: 0.001 }, DAY)).toThrow("cells");
  expect(() => panelFilm(SIZE, { ...DAY, tilt_rad: 4 })).toThrow("tilt_rad");
  const film = panelFilm(SIZE, DAY);
  const cone = coneOver(film, GUN);
  expect(() => flowStep(film, 0)).toThrow("dt_s");
  expect(() => flowStep(film, 6)).toThrow("dt_s");
  expect(() => land(film, GUN, cone, { x_m: Number.NaN, y_m: 0 }, 0.01, 1)).toThrow("x_m");
  expect(() => land(film, GUN, cone, { x_m: 0, y_m: 0 }, 0.01, 0)).toThrow("coat");
  expect(() => waitOn(film, -1)).toThrow("seconds");
  expect(() => rowsOver(rectangle(1, 1), { fan_m: 0.25, overlap: 1 })).toThrow("overlap");
  expect(() => filmFigures(film, () => false)).toThrow("at least 1 cell");
});

test("a fan that does not lie even lays the same in all, elsewhere", () => {
  const laid = (pattern?: FanPattern) => {
    const film = panelFilm({ width_m: 0.5, height_m: 0.6, cell_m: 0.01 }, DAY);
    const gun = { ...GUN, pattern };
    land(film, gun, coneOver(film, gun), { x_m: 0.25, y_m: 0.3 }, 0.1, 1);
    const rows = Array.from({ length: film.rows }, (_, j) =>
      film.solids_m.slice(j * film.columns, (j + 1) * film.columns).reduce((a, b) => a + b, 0),
    );
    return { landed: film.sums.landed_m3, rows };
  };
  const even = laid();
  for (const pattern of [
    { balance: 0.8, end: 0 },
    { balance: -1.5, end: 0 },
    { balance: 0, end: 0.75 },
    { balance: 0.4, end: -0.5 },
  ])
    expect(Math.abs(laid(pattern).landed / even.landed - 1)).toBeLessThan(0.01);
  expect(laid({ balance: 0, end: 0 }).rows).toEqual(even.rows);
  expect(laid({ balance: 0.8, end: 0 }).rows[30]!).toBeLessThan(0.75 * even.rows[30]!); // split
  expect(laid({ balance: -1.5, end: 0 }).rows[30]!).toBeGreaterThan(1.2 * even.rows[30]!); // wet middle
  const heavy = laid({ balance: 0, end: 0.75 }).rows;
  expect(heavy[36]!).toBeGreaterThan(1.5 * heavy[23]!); // the lower end
});

test("a face that curves from flank over the top to flank: both flanks alike, the top stays, a plain one is as it was", () => {
  const size = { width_m: 0.3, height_m: 0.5, cell_m: 0.01 };
  const flow = (film: PanelFilm) => {
    film.solids_m.fill(45e-6);
    film.solvent_m.fill(45e-6);
    film.coat.fill(1);
    const before = solidsOn(film);
    waitOn(film, 600);
    expect(Math.abs((solidsOn(film) + film.sums.dripped_m3) / before - 1)).toBeLessThan(1e-9);
    return film;
  };
  const tank = flow(panelFilm({ ...size, curve: { from_rad: -Math.PI / 2, to_rad: Math.PI / 2 } }, DAY));
  const row = (of: ArrayLike<number>, j: number) => of[j * tank.columns + 15]!;
  for (let j = 0; j < tank.rows / 2; j++) {
    expect(row(tank.solids_m, j)).toBeCloseTo(row(tank.solids_m, tank.rows - 1 - j), 12);
    expect(row(tank.slide_m, j)).toBeCloseTo(row(tank.slide_m, tank.rows - 1 - j), 9);
  }
  expect(row(tank.slide_m, 24)).toBeLessThan(0.1 * row(tank.slide_m, 3));
  expect(row(tank.solids_m, 24)).toBeLessThan(45e-6); // it runs off the top to both sides
  const flat = flow(panelFilm({ ...size, curve: { from_rad: 1, to_rad: 1 } }, DAY));
  const plain = flow(panelFilm(size, { ...DAY, tilt_rad: 1 }));
  expect(flat.solids_m).toEqual(plain.solids_m);
  expect(() => panelFilm({ ...size, curve: { from_rad: -4, to_rad: 0 } }, DAY)).toThrow(RangeError);
});
