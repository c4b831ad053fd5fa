import { type FlowAxis, type FlowSetting, type FlowWindow, flowWindow } from "#core/models/flow/flow-window";
import { type BoothAnswer, planBooth } from "#core/models/schedule/booth-plan";
import type { BoothProblem } from "#core/models/schedule/booth-problem";
import { type MapInput, mapPanel } from "#core/judge/panel-map";
import { type Flip, type OptionInput, optionFlips, weighOptions } from "#core/judge/option-case";
import { type InclusionAnswer, findInclusions } from "#core/models/photo/nibs";
import { pictureOf } from "#core/models/photo/picture";
import { type ReflectionAnswer, type ReflectionSetup, readReflection } from "#core/models/photo/reflection-check";
import { type AssessInput, type Assessment, assess } from "#core/judge/assess";
import { keepJudge } from "#core/judge/kept-judge";
import { inRange } from "#core/kernel/guard";
import { type Walk, type WalkAsked, bestWalk, shorterWalk, twoHands } from "#core/vehicle/walk";
import type { HouseWay } from "#core/models/ways/way";
import { type WayEffect, wayEffect } from "#core/models/ways/way-effect";
import { type BestPath, bestPath } from "#core/coat/best-path";
import type { CoatsAsked } from "#core/coat/coats-ahead";
import type { PathSet } from "#core/coat/path-ahead";
import { type PathView, pathView } from "#core/coat/path-view";
import { type DoorSetting, doorSetting } from "#core/coat/door-setting";
import { type EqualFinish, type EqualFrom, type FoundOtherwise, equalFinish } from "#core/coat/equal-finish";
import { type JudgedPlan, type PlanQuestion, judgedPlan } from "#core/judge/plan-for";

/** Every operation that runs off the main thread: its input and output. Both ends are typed from here. */
export interface Ops {
  assess: { in: AssessInput; out: Assessment };
  plan: { in: PlanQuestion; out: JudgedPlan };
  mapPanel: { in: MapInput; out: ReturnType<typeof mapPanel> };
  options: { in: OptionInput; out: ReturnType<typeof weighOptions> };
  /** What would lead to another choice: asked once the options are shown. */
  optionFlips: { in: OptionInput; out: Flip[] };
  findInclusions: { in: { rgba: Uint8ClampedArray; width: number; height: number; scale_m_px: number }; out: InclusionAnswer };
  readReflection: { in: { rgba: Uint8ClampedArray; width: number; height: number; setup: ReflectionSetup }; out: ReflectionAnswer };
  flowWindow: { in: { setting: FlowSetting; xAxis: FlowAxis; yAxis: FlowAxis; n: number }; out: FlowWindow };
  boothPlan: { in: BoothProblem; out: BoothAnswer };
  /** The film that a path leaves on a panel, and the path that falls least short of the one wanted; null where the model does not reach. */
  path: { in: { asked: CoatsAsked; set: PathSet }; out: PathView | null };
  bestPath: { in: { asked: CoatsAsked; set: PathSet }; out: BestPath | null };
  /** The settings that lay the same film where something is found otherwise. */
  equalFinish: { in: { from: EqualFrom; found: FoundOtherwise }; out: EqualFinish };
  /** The best walk round a vehicle, what two hands make of it, and what one makes of it with a slow hardener. */
  bestWalk: {
    in: { asked: WalkAsked; slow: WalkAsked; starts: number | null };
    out: { walk: Walk; two: ReturnType<typeof twoHands>; slow: Walk };
  };
  /** Each way beside the others; null where the model does not reach. */
  wayEffects: { in: { ways: readonly HouseWay[]; setting: DoorSetting }; out: (WayEffect | null)[] };
}
export type OpName = keyof Ops;

export interface Call<K extends OpName = OpName> {
  id: number;
  op: K;
  input: Ops[K]["in"];
}
export type Reply<K extends OpName = OpName> =
  { id: number; ok: true; output: Ops[K]["out"] } | { id: number; ok: false; message: string } | { id: number; progress: number };

const judgeOf = keepJudge();

type Handlers = { [K in OpName]: (input: Ops[K]["in"], onProgress: (share: number) => void) => Ops[K]["out"] };
const HANDLERS: Handlers = {
  assess: (input, onProgress) => assess(input, { onProgress, judgeOf }),
  plan: (input, onProgress) => judgedPlan(input, { onProgress, judgeOf }),
  options: (input, onProgress) => weighOptions(input, { onProgress, judgeOf }),
  optionFlips: (input, onProgress) => optionFlips(input, { onProgress, judgeOf }),
  mapPanel: (input, onProgress) => mapPanel(input, { onProgress, judgeOf }),
  findInclusions: ({ rgba, width, height, scale_m_px }, onProgress) =>
    findInclusions(pictureOf(rgba, width, height), scale_m_px, { onProgress }),
  readReflection: ({ rgba, width, height, setup }) => readReflection(pictureOf(rgba, width, height), setup),
  path: ({ asked, set }, onProgress) => pathView(asked, set, onProgress),
  bestPath: ({ asked, set }, onProgress) => bestPath(asked, set, onProgress),
  equalFinish: ({ from, found }) => equalFinish(from, found),
  bestWalk: ({ asked, slow, starts }) => {
    const from = { starts: starts ?? undefined };
    const walk = shorterWalk(asked, bestWalk(asked, from), from.starts);
    return { walk, two: twoHands(asked, walk), slow: bestWalk(slow, from) };
  },
  boothPlan: (problem) => planBooth(problem),
  wayEffects: ({ ways, setting }, onProgress) => {
    const door = doorSetting(setting);
    return ways.map((way, i) => {
      onProgress(i / ways.length);
      return inRange(() => wayEffect(way, door)) ?? null;
    });
  },
  flowWindow: ({ setting, ...axes }, onProgress) => flowWindow(setting, axes, onProgress),
};

/** Runs one call; a RangeError of the core becomes an answer, anything else too, so that no call stays open. */
export function answer<K extends OpName>({ id, op, input }: Call<K>, onProgress: (reply: Reply<K>) => void): Reply<K> {
  try {
    return { id, ok: true, output: HANDLERS[op](input, (progress) => onProgress({ id, progress })) };
  } catch (error) {
    return { id, ok: false, message: error instanceof Error ? error.message : String(error) };
  }
}
