// `npm run validate`: what the verdicts are worth on simulated panels with a hidden truth; writes docs/validation.md. Minutes, not in the test command.
import { writeFileSync } from "node:fs";
import { FilmJudge } from "#core/judge/film-judge";
import { DEFAULT_FLOOR_M, THIN_AREA_SHARE } from "#core/judge/limits";
import { wilsonInterval } from "#core/kernel/stats/proportion";
import { COVERAGE } from "#core/kernel/units/format";
import { pictureOf } from "#core/models/photo/picture";
import { readReflection } from "#core/models/photo/reflection-check";
import { TUBE_SETUP, photographTube } from "#stand-ins/camera";
import { causesSection, runsSection } from "./forecasts";
import { type Known, simulate } from "./truth";

const PANELS = Number(process.env.PANELS ?? 600);
const DRAWS = 800;
const KINDS = ["assumed", "misspecified", "second"] as const;
const HEADINGS = { assumed: "As assumed", misspecified: "Misspecified", second: "A second misspecified world" } as const;
const CASES: { spots: number; known: Known }[] = [
  { spots: 6, known: { before: true, foil: false, marks: 0 } },
  { spots: 12, known: { before: true, foil: false, marks: 0 } },
  { spots: 12, known: { before: true, foil: true, marks: 1 } },
  { spots: 12, known: { before: true, foil: true, marks: 3 } },
  { spots: 30, known: { before: true, foil: false, marks: 0 } },
  { spots: 12, known: { before: false, foil: false, marks: 0 } },
];
const CUT_BINS = [0, 0.005, 0.03, 0.3, 1.0001];
const THIN_BINS = [0, 0.05, 0.25, 0.5, 0.75, 1.0001];

interface Outcome {
  verdict: "safe" | "caution" | "stop";
  cutChance: number;
  thinChance: number;
  thin: boolean;
  cut: boolean;
  thinShare: number;
  covered: number;
  places: number;
}

function judgeAll(kind: (typeof KINDS)[number], { spots, known }: (typeof CASES)[number]): Outcome[] {
  return Array.from({ length: PANELS }, (_, k): Outcome => {
    const truth = simulate(k, kind);
    const judge = new FilmJudge(truth.facts(spots, known), { draws: DRAWS });
    const { verdict, cutChance, thinChance } = judge.risk({ panel: truth.work(known), local: [], floor_m: DEFAULT_FLOOR_M });
    const believed = judge.at(truth.places);
    const covered = believed.filter((c, i) => Math.abs(c.clear_m - truth.filmAt(truth.places[i]!)) <= COVERAGE * c.u_m).length;
    return {
      verdict,
      cutChance,
      thinChance,
      thin: truth.thin,
      cut: truth.cut,
      thinShare: truth.thinShare,
      covered,
      places: believed.length,
    };
  });
}

const percent = (n: number, of: number, digits = 0) => (of ? `${((100 * n) / of).toFixed(digits)} %` : "–");
/** An observed share with what chance alone may make of it, 95 %. */
function observed(n: number, of: number): string {
  if (of === 0) return "–";
  const { low, high } = wilsonInterval(n, of);
  return `${percent(n, of, 1)} (${percent(low, 1)} to ${percent(high, 1)})`;
}
const named = ({ spots, known }: (typeof CASES)[number]) =>
  `${known.before ? `${spots} + ${spots}` : `${spots} after clear only`}${known.foil ? ", foil check" : ""}${known.marks === 0 ? "" : known.marks === 1 ? ", one removal mark" : ", three removal marks"}`;

function decisions(outcomes: readonly Outcome[], name: string): string {
  const safe = outcomes.filter((o) => o.verdict === "safe");
  const fine = outcomes.filter((o) => !o.thin && !o.cut);
  const wrong = safe.filter((o) => o.thin || o.cut).length;
  const cover = percent(
    outcomes.reduce((a, o) => a + o.covered, 0),
    outcomes.reduce((a, o) => a + o.places, 0),
  );
  const most = Math.max(0, ...safe.filter((o) => o.thin || o.cut).map((o) => o.thinShare));
  return `| ${name} | ${safe.length} | ${wrong}: ${observed(wrong, safe.length)} | ${percent(most, 1, 1)} | ${fine.length} | ${percent(fine.filter((o) => o.verdict !== "safe").length, fine.length)} | ${cover} |`;
}

function calibration(all: readonly Outcome[], what: "cut" | "thin", bins: readonly number[]): string[] {
  const chance = (o: Outcome) => (what === "cut" ? o.cutChance : o.thinChance);
  return bins.slice(1).map((high, b) => {
    const inBin = all.filter((o) => chance(o) >= bins[b]! && chance(o) < high);
    const predicted = inBin.reduce((a, o) => a + chance(o), 0);
    return `| ${+(100 * bins[b]!).toFixed(1)} to ${Math.round(100 * Math.min(1, high) * 10) / 10} % | ${inBin.length} | ${percent(predicted, inBin.length, 1)} | ${observed(inBin.filter((o) => o[what]).length, inBin.length)} |`;
  });
}

const tables = (outcomes: readonly Outcome[]) => [
  "| Chance of cutting through | Panels | predicted | observed |",
  "| --- | --- | --- | --- |",
  ...calibration(outcomes, "cut", CUT_BINS),
  "",
  "| Chance of too little left | Panels | predicted | observed |",
  "| --- | --- | --- | --- |",
  ...calibration(outcomes, "thin", THIN_BINS),
  "",
];

const lines = [
  "# What the verdicts are worth",
  "",
  `Written by \`npm run validate\`: ${KINDS.length} × ${PANELS} simulated panels with a hidden truth, read three times a spot and sanded by an uneven hand. All of it is`,
  "synthetic: it shows that the arithmetic is honest, not that real panels behave so. A panel is too thin when more than",
  `${100 * THIN_AREA_SHARE} % of the worked area ends below the floor of ${DEFAULT_FLOOR_M * 1e6} µm; *wrong* is a panel called safe that ended too thin or cut through. All truths`,
  "have waves that are cosines, not the model's own; *as assumed* keeps its edges, gauge, tails and removal, *misspecified* has streaks of 5 to 15 %,",
  "an edge zone of 12 to 80 mm, a gauge off by up to 4 % and 2 µm, readings with heavy tails, 15 to 30 % more coming off than forecast,",
  "a hand uneven by 15 to 30 %, and here and there a slip of 5 to 20 µm. A removal mark is one place read three times before and after the first of",
  "two steps, with the hand as uneven there as anywhere; three are on different places. The *second world* was made apart from the first: film that sags to",
  "the lower edge and thins to the sides, a fat lower edge, a missed pass now and then, patches in the base, a gauge that drifts between the visits and tilts at",
  "edges, an operator who reads up to 15 % nearer to the middle than he says and 4 to 20 mm astray, a hand that presses to one side and to the edges, paper",
  "that wears, and 25 % less to 25 % more coming off than forecast. In brackets what chance alone may make of an observed share, 95 % (Wilson).",
  "",
];
for (const kind of KINDS) {
  const each = CASES.map((c) => ({ name: named(c), known: c.known, outcomes: judgeAll(kind, c) }));
  const read = each.filter((e) => e.known.before);
  const withMarks = (n: number) => read.filter((e) => e.known.marks === n).flatMap((e) => e.outcomes);
  const guarded = read.filter((e) => e.known.marks === 0).flatMap((e) => e.outcomes);
  lines.push(
    `## ${HEADINGS[kind]}`,
    "",
    "| Readings | Called safe | of those wrong | at most of the area | Really fine | of those refused | 2u covers |",
    "| --- | --- | --- | --- | --- | --- | --- |",
    ...each.map((e) => decisions(e.outcomes, e.name)),
    "",
    "Predicted against observed, with a foil check and one removal mark:",
    "",
    ...tables(withMarks(1)),
    "With a foil check and three removal marks:",
    "",
    ...tables(withMarks(3)),
    "Predicted against observed where neither was measured. More is taken to come off than the forecast says and less to be known of the gauge",
    "until somebody has measured it here, so more is foretold on purpose than comes true:",
    "",
    ...tables(guarded),
  );
  console.log(lines.join("\n"));
}
const reflections = Array.from({ length: 40 }, (_, i) => {
  const { picture, long_rad } = photographTube({ seed: 100 + i, slope_rad: 0.3e-3 + (i % 8) * 0.2e-3, width: 900 });
  const a = readReflection(pictureOf(picture.rgba, picture.width, picture.height), TUBE_SETUP);
  return a.ok ? a.reading.long_rad / long_rad : NaN;
}).sort((a, b) => a - b);
lines.push(
  ...causesSection(),
  ...runsSection(),
  "## Reflection check",
  "",
  `Of ${reflections.length} rendered tubes with slopes of 0.3 to 1.7 mrad, ${reflections.filter((r) => Math.abs(r - 1) <= 0.25).length} were read within a quarter of the true slope; read ÷ true from ${reflections[0]!.toFixed(2)} to ${reflections.at(-1)!.toFixed(2)}, middle ${reflections[20]!.toFixed(2)}.`,
  "",
);
writeFileSync("docs/validation.md", lines.join("\n"));
console.log(lines.join("\n"));
