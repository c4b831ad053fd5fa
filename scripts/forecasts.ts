import { readFileSync } from "node:fs";
import { seededRandom } from "#core/kernel/stats/random";
import { type Said, brier, reliability } from "#core/kernel/stats/reliability";
import { type HiddenCase, askThrough } from "#core/models/defects/testing/hidden-case";
import { calibrateRuns, calibratedChance } from "#core/models/flow/run-calibration";
import { runChance, sagAtEdge } from "#core/models/flow/run-chance";
import { hiddenShop } from "#core/models/flow/testing/hidden-shop";

const table = (said: readonly Said[], what: string): string[] => [
  `| Said | ${what} | said on average | came true |`,
  "| --- | --- | --- | --- |",
  ...reliability(said).map(
    (t) =>
      `| ${Math.round(100 * t.from)} to ${Math.round(100 * t.from) + 10} % | ${t.n} | ${(100 * t.said).toFixed(0)} % | ${(100 * t.right).toFixed(0)} % |`,
  ),
];

const ROUNDS = 20;
const WRONG = 0.15;

/** How sure the causes are, and how often the first of them is the one: hidden cases asked through. */
export function causesSection(): string[] {
  const cases = JSON.parse(readFileSync("core/models/defects/testing/hidden-cases.json", "utf8")) as HiddenCase[];
  const saidOf = (c: HiddenCase, wrong?: () => boolean): Said => {
    const { causes } = askThrough(c, wrong);
    return { probability: causes[0]!.probability, right: causes[0]!.id === c.cause };
  };
  const right = cases.map((c) => saidOf(c));
  const random = seededRandom(5);
  const noisy = Array.from({ length: ROUNDS }, () => cases.map((c) => saidOf(c, () => random() < WRONG))).flat();
  return [
    "## Causes",
    "",
    `${cases.length} made-up cases with a hidden cause (${cases.filter((c) => c.cause === null).length} of causes that are not in the list), each with what a job's record would hold and`,
    `three questions answered. Brier score of the first cause ${brier(right).toFixed(3)}; with 15 % of the answers wrong, ${ROUNDS} times over, ${brier(noisy).toFixed(3)}.`,
    "With wrong answers, by what was said of the first cause:",
    "",
    ...table(noisy, "Cases"),
    "",
  ];
}

const SHOPS = 60;
const LOGS = 60;
const FRESH = 100;

/** A shop's own chance of a run after its told results: simulated shops whose border and unevenness nobody knows. */
export function runsSection(): string[] {
  const said: Said[] = [];
  const before: Said[] = [];
  for (let seed = 1; seed <= SHOPS; seed++) {
    const { coat } = hiddenShop(seed);
    const learnt = calibrateRuns(Array.from({ length: LOGS }, coat));
    if (!learnt.enough) continue;
    for (let i = 0; i < FRESH; i++) {
      const { sagLocal_m, ran } = coat();
      said.push({ probability: calibratedChance(learnt, sagLocal_m), right: ran });
      before.push({ probability: runChance(sagAtEdge(sagLocal_m)), right: ran });
    }
  }
  return [
    "## Runs",
    "",
    `${SHOPS} simulated shops, each with a border and an unevenness of its own that nobody knows, ${LOGS} told results each, then ${FRESH} fresh coats. Brier score`,
    `${brier(said).toFixed(3)} by the shop's own results, ${brier(before).toFixed(3)} by the model before them (which is why it is told in a word until then).`,
    "",
    ...table(said, "Coats"),
    "",
  ];
}
