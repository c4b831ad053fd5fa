// `npm run validate`: what the verdicts are worth on simulated panels with a hidden truth; writes docs/validation.md. Minutes, not in the test command.
import { writeFileSync } from "node:fs";
import { edgeMultiplier } from "#core/film/cell-risk";
import type { FilmObservation } from "#core/film/film-field";
import { chanceAt, mapPanel } from "#core/film/map-panel";
import { CUT_GUARD_M, DEFAULT_FLOOR_M, DEFAULT_TAPE_M, THIN_AREA_SHARE, verdictOf } from "#core/film/verdict";
import { edgeDistances, gridInside } from "#core/panel/geometry";
import { SHAPES, type ShapeKind, panelShape, suggestSpots } from "#core/panel/shapes";
import { pictureOf } from "#core/photo/picture";
import { readReflection } from "#core/photo/reflection-check";
import { normals, seededRandom } from "#core/stats/random";
import { TUBE_SETUP, photographTube } from "#stand-ins/camera";
import { type HiddenPanel, standInGauge, trueFilm } from "#stand-ins/film-gauge";

const PANELS = Number(process.env.PANELS ?? 200);
const SPOTS = [6, 14, 30];
const BINS = [0, 0.05, 0.25, 0.5, 0.75, 1.0001];
const KINDS: ShapeKind[] = ["bonnet", "door", "wing", "quarter", "bootLid"];

interface Outcome {
  verdict: "safe" | "caution" | "stop";
  thinChance: number;
  thin: boolean;
  cut: boolean;
}
const random = seededRandom(20260511);
const normal = normals(random);
const um = (x: number) => x * 1e-6;
const table = new Map<string, Outcome[]>();

for (let k = 0; k < PANELS; k++) {
  const kind = KINDS[k % KINDS.length]!;
  const [width_m, height_m] = SHAPES[kind].size_m;
  const { outline, bodyLines } = panelShape(kind, { width_m, height_m });
  // The truth is not drawn from the model's own beliefs: waves are cosines, their height and the thinning vary from panel to panel.
  const panel: HiddenPanel = {
    outline,
    bodyLines,
    under_m: um(Math.max(50, 95 + 18 * normal())),
    clear_m: um(Math.max(28, 54 + 9 * normal())),
    edge_m: um(Math.min(0, -10 + 5 * normal())),
    line_m: um(Math.min(0, -7 + 4 * normal())),
    wave_m: um(4 * Math.exp(0.45 * normal())),
    seed: 5000 + k,
  };
  const removal_m = um(4 + 12 * random());
  const u_removal_m = 0.15 * removal_m;
  const slope = 1 + 0.008 * normal();
  const truth = whatHappens(panel, removal_m + u_removal_m * normal());
  for (const spots of SPOTS)
    for (const before of [true, false]) {
      const places = suggestSpots(outline, spots, { bodyLines });
      const read = (clear_m: number, layer: FilmObservation["layer"], visitSeed: number): FilmObservation[] => {
        const gauge = standInGauge({ ...panel, clear_m }, { visitSeed, slope });
        return places.map((at) => {
          const films = [0, 1, 2].map(() => {
            const r = gauge.read(at);
            return r.ok ? r.total_m : NaN;
          });
          return { at, layer, total_m: films.reduce((a, b) => a + b, 0) / films.length, n: films.length };
        });
      };
      const observations = [...(before ? read(0, "before", 9000 + 2 * k) : []), ...read(panel.clear_m, "after", 9001 + 2 * k)];
      const { map } = mapPanel({
        outline,
        bodyLines,
        observations,
        history: { weights: { factory: 0.2, refinish: 0.8 } },
        removal_m,
        u_removal_m,
        floor_m: DEFAULT_FLOOR_M,
        tape_m: DEFAULT_TAPE_M,
      });
      if (!map) throw new Error("no map");
      const thinChance = chanceAt(map.allowedThin_m, removal_m);
      const verdict = verdictOf({ cut: chanceAt(map.allowedCut_m, removal_m), thin: thinChance });
      const key = `${spots} ${before}`;
      table.set(key, [...(table.get(key) ?? []), { verdict, thinChance, ...truth }]);
    }
  if ((k + 1) % 20 === 0) console.log(`${k + 1} of ${PANELS} panels`);
}

/** What really comes of a removal: a hand is uneven by 15 % from place to place, and bites harder at the edge. */
function whatHappens(panel: HiddenPanel, removal_m: number): { thin: boolean; cut: boolean } {
  const points = gridInside(panel.outline).map((c) => c.point);
  const edge_m = edgeDistances(points, panel.outline);
  const hand = { ...panel, clear_m: 1, wave_m: 0.15 * removal_m, edge_m: 0, line_m: 0, seed: panel.seed + 77 };
  const left = points.flatMap((p, i) => {
    if (edge_m[i]! < DEFAULT_TAPE_M) return [];
    const uneven_m = trueFilm(hand, p).clear_m - 1;
    return [trueFilm(panel, p).clear_m - edgeMultiplier(edge_m[i]!) * (removal_m + uneven_m)];
  });
  return {
    thin: left.filter((m) => m < DEFAULT_FLOOR_M).length > THIN_AREA_SHARE * left.length,
    cut: left.some((m) => m < CUT_GUARD_M),
  };
}

const percent = (n: number, of: number) => (of ? `${((100 * n) / of).toFixed(0)} %` : "–");
const lines = [
  "# What the verdicts are worth",
  "",
  `Written by \`npm run validate\`: ${PANELS} simulated panels with a hidden truth (invented; waves, edges and body lines vary and are not drawn`,
  "from the model's own beliefs), read by the stand-in gauge three times a spot, sanded by an uneven hand. All of it is synthetic: it shows that",
  "the arithmetic is honest, not that real panels behave so.",
  "",
  "## Of those called safe, how many went below the floor",
  "",
  `The floor is ${DEFAULT_FLOOR_M * 1e6} µm; a panel is too thin when more than ${100 * THIN_AREA_SHARE} % of the judged area ends below it. *Safe* promises at most 5 %.`,
  "",
  "| Spots | Before clear | Called safe | of those too thin | cut through | Called stop | of those would have held | Really too thin |",
  "| --- | --- | --- | --- | --- | --- | --- | --- |",
];
for (const [key, outcomes] of table) {
  const [spots, before] = key.split(" ");
  const of = (v: Outcome["verdict"]) => outcomes.filter((o) => o.verdict === v);
  const [safe, stop] = [of("safe"), of("stop")];
  lines.push(
    `| ${spots} | ${before === "true" ? "read" : "not read"} | ${safe.length} | ${safe.filter((o) => o.thin).length} (${percent(safe.filter((o) => o.thin).length, safe.length)}) | ${safe.filter((o) => o.cut).length} | ${stop.length} | ${percent(stop.filter((o) => !o.thin).length, stop.length)} | ${percent(outcomes.filter((o) => o.thin).length, outcomes.length)} |`,
  );
}
lines.push("", "## Predicted against observed chance of too little left", "");
lines.push(
  "| Predicted | With before-readings: panels, predicted, observed | Without: panels, predicted, observed |",
  "| --- | --- | --- |",
);
for (let b = 0; b + 1 < BINS.length; b++) {
  const cell = (before: string) => {
    const inBin = [...table]
      .filter(([k]) => k.endsWith(before))
      .flatMap(([, o]) => o.filter((x) => x.thinChance >= BINS[b]! && x.thinChance < BINS[b + 1]!));
    const predicted = inBin.reduce((a, o) => a + o.thinChance, 0);
    return inBin.length
      ? `${inBin.length}, ${percent(predicted, inBin.length)}, ${percent(inBin.filter((o) => o.thin).length, inBin.length)}`
      : "none";
  };
  lines.push(`| ${100 * BINS[b]!}–${Math.round(100 * Math.min(1, BINS[b + 1]!))} % | ${cell("true")} | ${cell("false")} |`);
}
const reflections = Array.from({ length: 40 }, (_, i) => {
  const { picture, long_rad } = photographTube({ seed: 100 + i, slope_rad: 0.3e-3 + (i % 8) * 0.2e-3, width: 900 });
  const a = readReflection(pictureOf(picture.rgba, picture.width, picture.height), TUBE_SETUP);
  return a.ok ? a.reading.long_rad / long_rad : NaN;
}).sort((a, b) => a - b);
lines.push(
  "## Reflection check",
  "",
  `Of ${reflections.length} rendered tubes with slopes of 0.3 to 1.7 mrad, ${reflections.filter((r) => Math.abs(r - 1) <= 0.25).length} were read within a quarter of the true slope; read ÷ true from ${reflections[0]!.toFixed(2)} to ${reflections.at(-1)!.toFixed(2)}, middle ${reflections[20]!.toFixed(2)}.`,
);
lines.push("", "Cut-through (any place below 8 µm) is too rare here to be checked: its 0.5 % is a guard, not a promise.", "");
writeFileSync("docs/validation.md", lines.join("\n"));
console.log(lines.join("\n"));
