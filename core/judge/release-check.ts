import { noGaugeReads, type PanelBrief } from "../panel/brief";
import { FLOW } from "../models/flow/constants";
import { glossBeside } from "../models/gloss/gloss-beside";
import { compareReflections } from "../models/photo/reflection-check";
import { neighbourOf, wantedGloss } from "../panel/neighbour";
import { partGloss60 } from "../panel/gloss-read";
import { isLookedOver } from "../panel/looked";
import { holdOfMark } from "../panel/seen-to";
import type { Fault } from "../models/defects/remedies";
import type { PanelState } from "./account";
import { rejectionByFault, rejectionByPeel } from "./rejection";
import { leftTexture, textureOf } from "./texture";
import type { Finish } from "../models/ways/terms";
import type { EyeLight } from "../record/kinds";
import { openFaults } from "./open-faults";
import { openMarks } from "../panel/open-marks";
import { normalCdf } from "../kernel/stats/normal";
import { isForetold } from "./how-known";
import { VERDICT_LIMITS } from "./limits";
import { openNibs, openRuns } from "./zone-places";

/** How a point stands: as it should, worth a look, against it, or nobody has looked. */
export type PointState = "good" | "look" | "against" | "missing";

/** What is looked at before a panel goes out, each with the figures that decide it. */
export type ReleasePoint =
  | { what: "coats"; state: PointState; on: number; of: number }
  | { what: "cured"; state: PointState; left_s: number; soft: boolean }
  | {
      what: "film";
      state: PointState;
      /** Nothing was taken off, and what is there is known by its coats or its total alone. */
      asSprayed: boolean;
      clear_m: number | null;
      u_m: number | null;
      floor_m: number;
    }
  | { what: "faults"; state: PointState; open: Fault[]; chance: number }
  | {
      what: "texture";
      state: PointState;
      part: number | null;
      beside: number | null;
      pictures: ReturnType<typeof compareReflections> | null;
    }
  | {
      what: "gloss";
      state: PointState;
      part_GU: number | null;
      wanted_GU: number | null;
      from: "neighbour" | "brief" | "other panel" | null;
    }
  | { what: "colour"; state: PointState; colour: string | null; light: EyeLight | null }
  | { what: "coverage"; state: PointState; covered: boolean | null; light: EyeLight | null };
export interface ReleaseCheck {
  verdict: "goes" | "look" | "stays" | "not known";
  points: ReleasePoint[];
}

/** Steps of the scale 1 … 5 that are not told apart, and that are told apart at once. Defaults of ours. */
const TEXTURE_STEP = { same: 0.5, off: 1 } as const;
/** A gloss part below this at 60° is dull; below the second it is seen. Common practice: fresh clear reads 85 to 95. */
const GLOSS_60 = { good: 84, dull: 75 } as const;
/** What is rejected more often than this stays, and what is worth a look. */
const REJECTED = { look: 0.1, against: 0.5 } as const;
/** Light in which colour is judged: the others hide it. */
const DECIDES: readonly EyeLight[] = ["daylight", "sun"];

export interface ReleaseInput {
  brief: PanelBrief;
  state: PanelState;
  finish: Finish;
  targetGloss_GU: number | null;
  floor_m: number;
  cured: { share: number; left_s: number };
  /** Gloss at 60° of the job's other panels, where it was read. */
  others_GU?: readonly number[];
}

/**
 * Whether a finished panel goes out: its cure, film, faults, texture, gloss, colour and coverage, each with a word; and what is missing. It refuses
 * nothing: hand-over says what was not done. @throws RangeError
 */
export function releaseCheck(input: ReleaseInput): ReleaseCheck {
  const points = [
    coatsPoint(input),
    curedPoint(input),
    filmPoint(input),
    faultsPoint(input),
    texturePoint(input),
    glossPoint(input),
    ...eyePoints(input),
  ].filter((p): p is ReleasePoint => p !== null);
  const any = (state: PointState) => points.some((p) => p.state === state);
  return { verdict: any("against") ? "stays" : any("missing") ? "not known" : any("look") ? "look" : "goes", points };
}

/** Only where clear was begun and not all of it is on: what came sprayed needs no coats. */
function coatsPoint({ brief, state }: ReleaseInput): ReleasePoint | null {
  const on = state.coats.length + state.backCoats.length;
  const of = brief.coatsPlanned * (brief.sides ?? 1);
  return on > 0 && on < of ? { what: "coats", state: "against", on, of } : null;
}

/** A film that is marked as soft is not cured, whatever its age says. */
function curedPoint({ state, cured: { share, left_s } }: ReleaseInput): ReleasePoint {
  const soft = state.soft !== null;
  return { what: "cured", state: soft ? "against" : share >= 1 ? "good" : "look", left_s, soft };
}

/**
 * Film left. Where something was taken off, or all was measured, the floor has to hold in doubt as well. What is as it was sprayed, foretold by its coats or
 * inferred because nobody read below it, is good within the chance of *caution*: more is never known of plastic.
 */
function filmPoint({ brief, state, floor_m }: ReleaseInput): ReleasePoint {
  const { film, inTheWay, doubtful } = state;
  const there = film.thinnest ?? film.mean;
  if (!there)
    return { what: "film", asSprayed: false, state: noGaugeReads(brief.substrate) ? "look" : "missing", clear_m: null, u_m: null, floor_m };
  const asked = inTheWay.length + doubtful.length > 0;
  const asSprayed = (film.inferred || isForetold(film.how)) && !isWorked(state);
  const holds = asSprayed
    ? normalCdf((floor_m - there.clear_m) / there.u_m) <= VERDICT_LIMITS.caution.thin
    : there.clear_m - 2 * there.u_m >= floor_m;
  const stands = there.clear_m < floor_m ? "against" : !holds || asked ? "look" : "good";
  return { what: "film", asSprayed, state: stands, clear_m: there.clear_m, u_m: there.u_m, floor_m };
}

/** Whether anything took film off since the newest coat, over the panel or at a place. */
const isWorked = ({ builds, stepsDone, localWork }: PanelState): boolean =>
  (builds.at(-1)?.thinning.length ?? stepsDone.length) > 0 || localWork.some((w) => w.seq > (builds.at(-1)?.from_seq ?? 0));

function faultsPoint({ state, finish }: ReleaseInput): ReleasePoint {
  const nibs = openNibs(state).reduce((a, d) => a + d.body.count, 0);
  const runs = openRuns(state);
  const open: Fault[] = [
    ...runs.map(({ entry, height_m }) => ({ kind: entry.body.kind, count: 1, height_m, area_m2: null })),
    ...(nibs > 0 ? [{ kind: "nib" as const, count: nibs, height_m: null, area_m2: null }] : []),
    ...openFaults(state),
  ];
  const { texture } = textureOf(state);
  const seen = (f: Fault) =>
    f.kind === "peel" ? rejectionByPeel(texture.peakToValley_m, leftTexture(state, finish, texture)) : rejectionByFault(f, finish);
  const chance = 1 - open.reduce((a, f) => a * (1 - seen(f)), 1);
  if (open.length === 0) return { what: "faults", state: isLookedOver(state) ? "good" : "missing", open, chance };
  const holds = openMarks(state).flatMap((m) => holdOfMark(state, m) ?? []);
  const byHold = holds.some((h) => h.level === "stop") ? "against" : holds.length > 0 ? "look" : "good";
  const byChance = chance > REJECTED.against ? "against" : chance > REJECTED.look ? "look" : "good";
  return { what: "faults", state: RANK[byHold] > RANK[byChance] ? byHold : byChance, open, chance };
}

function texturePoint({ state, finish }: ReleaseInput): ReleasePoint | null {
  if (finish === "matte") return null;
  const part = state.texture.findLast((t) => t.body.role === "part")?.body.rating ?? null;
  const beside = finish === "match" ? (neighbourOf(state)?.rating ?? null) : finish === "flat" ? 1 : null;
  const kept = finish === "match" ? state.reflection?.body : undefined;
  const pictures = kept ? compareReflections([kept.own_rad], [kept.beside_rad]) : null;
  const known = [
    ...(part === null || (finish === "match" && beside === null) ? [] : [{ state: byRating(part, beside, finish) }]),
    ...(pictures ? [{ state: byPictures(pictures) }] : []),
  ];
  // Where eye and pictures differ the worse counts: both are looked at again.
  return { what: "texture", state: worstOf(known)?.state ?? "missing", part, beside, pictures };
}

const byStep = (off: number) => (off <= TEXTURE_STEP.same ? "good" : off <= TEXTURE_STEP.off ? "look" : "against");

function byRating(part: number, beside: number | null, finish: Finish): Exclude<PointState, "missing"> {
  if (beside === null) return part > 4 ? "against" : part > 3.5 ? "look" : "good";
  return byStep(finish === "flat" ? Math.max(0, part - beside - TEXTURE_STEP.same) : Math.abs(part - beside));
}

/** By two pictures: how many steps of the scale the ratio of the slopes is worth, where it is a difference at all. */
const byPictures = ({ ratio, differs }: ReturnType<typeof compareReflections>): Exclude<PointState, "missing"> =>
  differs ? byStep(Math.max(TEXTURE_STEP.off, Math.abs(Math.log(ratio)) / Math.log(FLOW.textureStep))) : "good";

const RANK = { good: 0, look: 1, against: 2 } as const;
/** The one that stands worst, the first of several alike; null where there is none. */
const worstOf = <T extends { state: keyof typeof RANK }>(list: readonly T[]): T | null =>
  list.reduce<T | null>((a, w) => (a === null || RANK[w.state] > RANK[a.state] ? w : a), null);

/** Of a gloss part only where it was read: few own a meter, and nothing hangs on it. */
function glossPoint({ state, finish, targetGloss_GU, others_GU = [] }: ReleaseInput): ReleasePoint | null {
  const part_GU = partGloss60(state.gloss);
  if (finish !== "matte") {
    if (part_GU === null) return null;
    return {
      what: "gloss",
      state: part_GU >= GLOSS_60.good ? "good" : part_GU >= GLOSS_60.dull ? "look" : "against",
      part_GU,
      wanted_GU: null,
      from: null,
    };
  }
  const own = wantedGloss(state, targetGloss_GU);
  const wanted = [...(own ? [own] : []), ...others_GU.map((GU) => ({ GU, from: "other panel" as const }))];
  const worst = part_GU === null ? null : worstOf(wanted.map((w) => ({ ...w, state: glossBeside(part_GU, w.GU) })));
  if (part_GU === null || worst === null)
    return { what: "gloss", state: "missing", part_GU, wanted_GU: wanted[0]?.GU ?? null, from: wanted[0]?.from ?? null };
  return { what: "gloss", state: worst.state, part_GU, wanted_GU: worst.GU, from: worst.from };
}

function eyePoints({ state }: ReleaseInput): ReleasePoint[] {
  const eye = state.eye?.body ?? null;
  if (!eye)
    return [
      { what: "colour", state: "missing", colour: null, light: null },
      { what: "coverage", state: "missing", covered: null, light: null },
    ];
  const decides = DECIDES.includes(eye.light);
  const colour = eye.colour === "off" ? "against" : eye.colour === "near" || !decides ? "look" : "good";
  return [
    { what: "colour", state: colour, colour: eye.colour, light: eye.light },
    {
      what: "coverage",
      state: eye.covered ? (decides || eye.light === "lamp" ? "good" : "look") : "against",
      covered: eye.covered,
      light: eye.light,
    },
  ];
}
