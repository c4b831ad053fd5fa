import { requireNumber } from "../../kernel/guard";
import type { PlaceOnPanel } from "../../models/panel-film/over-part";
import { POLISH_M } from "../../models/correction/abrasives";
import { RUN_SCHOOLS } from "../../models/correction/run-work";
import { type CuredPanel, WORKED, cellsAround } from "./cured";

/** By hand at a light pressure, whatever is touched: volume in a minute. A default of ours. */
const PER_MINUTE_M3 = 40e-9;
/** What a run or a nib is taken down with. Sizes, and the soft pad's give, are defaults of ours; the others give as the schools of runs say (`RUN_SCHOOLS`). */
export const JOB_TOOLS = {
  file: { name: "Flat file", size_m: [0.06, 0.04], compliance_m: RUN_SCHOOLS.file.compliance_m, perMinute_m3: 1.5 * PER_MINUTE_M3 },
  block: { name: "Hard block", size_m: [0.13, 0.07], compliance_m: RUN_SCHOOLS.block.compliance_m, perMinute_m3: PER_MINUTE_M3 },
  soft: { name: "Soft pad", size_m: [0.08, 0.08], compliance_m: 60e-6, perMinute_m3: PER_MINUTE_M3 },
} as const;
export type JobTool = keyof typeof JOB_TOOLS;
export const JOB_TOOL_IDS = Object.keys(JOB_TOOLS) as [JobTool, ...JobTool[]];

/** One bite takes no more than this share of the tool's give, so that what touches is looked at anew. */
const BITE = 0.2;
const MOST_BITES = 600;

/**
 * A tool works at a place for so long. It lies flat on what stands highest below it; what lies lower by less than the tool gives is touched, and less
 * the lower it lies: pressure as 1 − depth/give. So much volume goes in a minute, whatever is touched. Where no clear is left it is through.
 * Beside a ridge that is taken level the film loses δ·ln(δ/ε) − (δ − ε), as `lossBesideRun` has it.
 * @returns volume that came off, m³ @throws RangeError
 */
export function sand(panel: CuredPanel, tool: JobTool, place: PlaceOnPanel, seconds: number): number {
  requireNumber("seconds", seconds, { min: 0, max: 3600 });
  const { size_m, compliance_m, perMinute_m3 } = JOB_TOOLS[tool];
  const half = [size_m[0] / 2, size_m[1] / 2] as const;
  const { film } = panel.on;
  const area_m2 = film.cell_m ** 2;
  const under = cellsAround(panel.on, place, half);
  if (under.length === 0) return 0;
  let left_m3 = (perMinute_m3 * seconds) / 60;
  let off_m3 = 0;
  for (const nib of panel.nibs)
    if (nib.height_m > 0 && Math.abs(nib.x_m - place.x_m) <= half[0] && Math.abs(nib.y_m - place.y_m) <= half[1]) nib.height_m = 0; // a speck is gone at the first strokes
  const lies = restsOn(under.map(({ cell, dx_m, dy_m }) => ({ dx_m, dy_m, z_m: film.fixed_m[cell]! })));
  const share = new Float64Array(under.length);
  for (let bite = 0; bite < MOST_BITES && left_m3 > 0; bite++) {
    let top = -Infinity;
    under.forEach(({ cell, dx_m, dy_m }) => (top = Math.max(top, film.fixed_m[cell]! - lies(dx_m, dy_m))));
    let touched = 0;
    under.forEach(({ cell, dx_m, dy_m }, k) => {
      share[k] = Math.max(0, 1 - (top - film.fixed_m[cell]! + lies(dx_m, dy_m)) / compliance_m);
      touched += share[k];
    });
    const depth_m = Math.min(BITE * compliance_m, left_m3 / (touched * area_m2));
    left_m3 -= depth_m * touched * area_m2;
    under.forEach(({ cell }, k) => {
      if (share[k] === 0) return;
      const goes = Math.min(film.fixed_m[cell]!, depth_m * share[k]!);
      film.fixed_m[cell]! -= goes;
      off_m3 += goes * area_m2;
      panel.worked[cell] = film.fixed_m[cell]! <= 0 ? WORKED.through : Math.max(WORKED.sanded, panel.worked[cell]!);
    });
  }
  return off_m3;
}

/** How a flat tool leans on what lies below it: as the plane nearest to it. @returns its height beside the middle's */
function restsOn(under: readonly { dx_m: number; dy_m: number; z_m: number }[]): (dx_m: number, dy_m: number) => number {
  const n = under.length;
  const mean = (of: (u: (typeof under)[number]) => number) => under.reduce((sum, u) => sum + of(u), 0) / n;
  const [mx, my, mz] = [mean((u) => u.dx_m), mean((u) => u.dy_m), mean((u) => u.z_m)];
  const sum = (of: (x: number, y: number, z: number) => number) => under.reduce((s, u) => s + of(u.dx_m - mx, u.dy_m - my, u.z_m - mz), 0);
  const [xx, yy, xy, xz, yz] = [
    sum((x) => x * x),
    sum((_, y) => y * y),
    sum((x, y) => x * y),
    sum((x, _, z) => x * z),
    sum((_, y, z) => y * z),
  ];
  const det = xx * yy - xy * xy;
  if (!(det > 1e-14)) return () => 0;
  const [gx, gy] = [(xz * yy - yz * xy) / det, (yz * xx - xz * xy) / det];
  return (dx, dy) => gx * dx + gy * dy;
}

/** What was sanded is polished, compound and polish: so much less stays there. */
export const POLISHED_M = POLISH_M.compound[0] + POLISH_M.polish[0];
export function polish({ on: { film }, worked }: CuredPanel): void {
  for (let c = 0; c < worked.length; c++) {
    if (worked[c] === WORKED.not) continue;
    film.fixed_m[c] = Math.max(0, film.fixed_m[c]! - POLISHED_M);
    if (film.fixed_m[c] === 0) worked[c] = WORKED.through;
  }
}
