import { type ClearedStep, type ShopRemoval, clearingPlan, clearsWithin, finishLadder, marksLeft } from "../models/correction/clearing";
import { type Removal, type RemovalStep, scaled, sumOf } from "../models/correction/removal-plan";
import { stepName } from "../models/correction/schools";
import type { ZoneTask } from "./zone-work";

/** Steps between what a local task leaves and the panel's own first step, which can clear the rest within its passes. */
function bridge(last: RemovalStep, first: RemovalStep, shop: ShopRemoval): RemovalStep[] {
  if ("polish" in last) return [];
  const between: RemovalStep[] = [];
  const polishing = "polish" in first;
  let now: RemovalStep = last;
  for (const step of finishLadder(last).slice(1)) {
    if ("polish" in step || (!polishing && clearsWithin(first, marksLeft(now), shop))) break;
    between.push({ ...step, tool: "pad" });
    now = step;
  }
  return between;
}

const bridgeTask = (use: RemovalStep, what: "Run" | "Nibs"): ZoneTask => ({
  use,
  name: `${what}: ${stepName(use)}`,
  tool: "small pad, on the place only, wet",
  wet: true,
  doThis: "A little wider than the step before, feathered out",
  lookFor: "No coarser scratch left there",
});

/** Work at single places before the panel's own ladder. */
export interface LocalWork {
  /** `between`: a step on the way to the ladder, not the task's own. */
  tasks: { task: ZoneTask; passes: number; removal: Removal; default_m: number; own: boolean; between: boolean }[];
  /** The whole chain there, the ladder's steps after it: the proof. */
  chain: ClearedStep[];
  /** What comes off there after the first `papers` tasks, up to the ladder. */
  between: Removal;
  all: Removal;
  /** What the ladder's steps take off there where they are no work of the whole panel. */
  rest: Removal;
}

/**
 * Own tasks at a place, what lies between them and the ladder, and the ladder's first step once more where its own passes are not enough
 * there.
 */
export function localWork(tasks: readonly ZoneTask[], what: "Run" | "Nibs", ladder: readonly ClearedStep[], shop: ShopRemoval): LocalWork {
  const papers = tasks.flatMap((t) => (t.use ? [t.use] : []));
  const [first] = ladder as readonly [ClearedStep];
  const bridged = bridge(papers.at(-1)!, first.use, shop);
  const chain = clearingPlan([...papers, ...bridged, ...ladder.map((s) => s.use)], undefined, shop).steps;
  const local = chain.slice(0, papers.length + bridged.length);
  const rest = chain.slice(local.length);
  const again = Math.max(0, rest[0]!.passes - first.passes);
  const byPaper = new Map(papers.map((p, i) => [p, local[i]!]));
  const taskOf = (task: ZoneTask, s: ClearedStep | undefined, passes = s?.passes ?? 1) => ({
    task,
    passes,
    between: false,
    removal: s ? scaled(s, passes / s.passes) : { removal_m: 0, u_m: 0 },
    default_m: s ? (s.default_m * passes) / s.passes : 0,
    own: s?.own ?? false,
  });
  const between = [
    ...local.slice(papers.length).map((s) => taskOf(bridgeTask(s.use, what), s)),
    ...(again > 0 ? [taskOf(bridgeTask("polish" in first.use ? first.use : { ...first.use, tool: "pad" }, what), rest[0], again)] : []),
  ].map((t) => ({ ...t, between: true }));
  const all = [...tasks.map((t) => taskOf(t, t.use ? byPaper.get(t.use) : undefined)), ...between];
  return {
    tasks: all,
    chain,
    between: sumOf(between.map((t) => t.removal)),
    all: sumOf(all.map((t) => t.removal)),
    rest: sumOf(rest),
  };
}
