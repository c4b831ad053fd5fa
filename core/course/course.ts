import { inRange } from "../kernel/guard";
import { type Finish, plannedCoat } from "../models/ways/way";
import type { CoatWait } from "../models/ways/wait-after";
import { FLATTEN_S } from "../models/trade-limits";
import { airBeforeHeat_s, bearsAfter_s, turnAfter_s } from "../models/ways/after-last-coat";
import type { CoatVolume } from "../models/spray/strokes";
import { coatVolumes } from "../models/ways/way-volumes";
import { noGaugeReads } from "../panel/brief";
import type { CoatState } from "../panel/builds";
import { isLookedOver } from "../panel/looked";
import { coatsOf, coatsOn, facesOf, newestCoat, nextSide } from "../panel/coats-on";
import { coatTime_s } from "../coat/coat-time";
import { type CoatAhead, type CoatsAsked, coatsAhead } from "../coat/coats-ahead";
import { facesToCome, litresToCome } from "../coat/litres";
import { handGun } from "../coat/next-coat";
import type { Side } from "../record/kinds";
import { colourWait } from "./colour-wait";
import { COOL_S, cureOf, readyAt } from "../coat/cure";
import { coatHolds, paperHolds, softHolds } from "./holds";
import { airNow, nextWait } from "../coat/next-wait";
import type { StepHold } from "./step-hold";
import { ofClearAlone } from "../models/defects/kinds";
import { isTurned } from "../panel/wet-build";
import { type CoatForecast, type CourseStep, type StepDraft, inOrder, stepDraft } from "./steps";

export interface CourseInput extends CoatsAsked {
  finish: Finish;
  /** Without it waits that have not begun are left open: who only asks for what is next needs no forecast. */
  forecast?: boolean;
}

const MS = 1000;
/** Reading a panel, and handling beside the passes of a coat: common practice. */
const READ_S = 300;
const HANDLING_S = 120;

/**
 * A panel's course: every step from what lies below the clear to the customer, with its window, the reason of it and what it takes. A pure function
 * of what was logged and of now: the past is the ledger's, the rest a forecast that is made anew with every entry. @throws RangeError
 */
export function courseOf(input: CourseInput): CourseStep[] {
  const { brief, facts } = input;
  const state: Working = {
    ...input,
    past: pastSpraying(input),
    cursor_ms: input.now_ms,
    volumes: volumesOf(input),
    soft: softHolds(facts),
    rows: input.forecast === false ? NO_ROWS : rowsOf(input),
  };
  const faces = facesOf(brief);
  const drafts: StepDraft[] = [...before(state)];
  faces.forEach((side, i) => {
    if (i > 0) drafts.push(...turning(state));
    drafts.push(
      ...coatsOfFace(
        state,
        side,
        drafts.every((d) => d.kind !== "turn" || d.done),
      ),
    );
  });
  drafts.push(...curing(state), ...afterwards(state));
  return inOrder(facts.handedOver ? drafts.map((d) => (d.done || d.optional ? d : { ...d, missed: true })) : drafts);
}

/** The panel is worked on past its spraying: coats that nobody logged are not to come any more. */
function pastSpraying({ brief, facts, way }: CourseInput): boolean {
  if (facts.coats.length >= brief.coatsPlanned) return false;
  if (facts.handedOver) return true;
  const newest = newestCoat(facts);
  if (!newest) return facts.plan !== null || facts.defects.some((d) => ofClearAlone(d.body.kind)) || facts.spots.some((s) => s.latest);
  const between = facts.coats.length > 0 && plannedCoat(way, facts.coats.length).sandAfter;
  return !between && facts.plan !== null && facts.plan.seq > newest.entry.seq;
}

interface Working extends CourseInput {
  past: boolean;
  /** When the hand is free for what comes next, by the forecast. */
  cursor_ms: number;
  volumes: readonly CoatVolume[];
  /** A film marked as soft. */
  soft: readonly StepHold[];
  /** The coats to come of each face, by their owner; empty where the model does not reach. */
  rows: Readonly<Record<Side, readonly CoatAhead[]>>;
}

const volumesOf = (input: CourseInput): CoatVolume[] =>
  coatVolumes(input.way, { outline: input.brief.shape.outline, gun: handGun(input).settings, coats: input.brief.coatsPlanned });

const NO_ROWS = { back: [], front: [] } as const;

function rowsOf(input: CourseInput): Working["rows"] {
  const faces = facesToCome(input);
  const of = (side: Side) => (faces.includes(side) ? (coatsAhead(input, side) ?? []) : []);
  return { back: of("back"), front: of("front") };
}

const rowOf = ({ rows }: Pick<Working, "rows">, side: Side, number: number): CoatAhead | undefined =>
  rows[side].find((r) => r.number === number);

function before(w: Working): StepDraft[] {
  const { brief, facts, way, past } = w;
  const sprayed = coatsOn(facts) > 0;
  const read = facts.spots.filter((s) => s.films.before);
  const gauge = !noGaugeReads(brief.substrate);
  const pot = facts.mix;
  const colour = colourWait(facts);
  return [
    stepDraft("prepare", "prepare", {
      done: facts.under.length > 0 || facts.preflight !== null,
      done_ms: facts.under.at(-1)?.at_ms ?? facts.preflight?.at_ms ?? null,
      optional: true,
      why: "surface",
      grit: way.lastPaper,
    }),
    stepDraft("colour", "colour", {
      done: facts.colourCoats.length > 0 || facts.under.some((u) => u.body.step === "base"),
      done_ms: facts.colourCoats.at(-1)?.at_ms ?? null,
      number: facts.colourCoats.length || null,
      optional: true,
      from_ms: colour?.colour_ms ?? null,
      why: "colour",
    }),
    stepDraft("before", "readBefore", {
      done: read.length > 0,
      done_ms: null,
      missed: (sprayed || past) && read.length === 0,
      optional: !gauge,
      why: "layers",
      duration_s: READ_S,
    }),
    stepDraft("mix", "mix", {
      done: pot !== null,
      done_ms: pot?.at_ms ?? null,
      optional: true,
      why: "pot",
      volume_m3: w.forecast === false ? null : (inRange(() => litresToCome(w))?.toMix_m3 ?? null),
    }),
  ];
}

const reasonOf: Record<CoatWait["by"], { why: CourseStep["why"]; source: CourseStep["source"] }> = {
  sheet: { why: "sheet", source: "product-sheet" },
  way: { why: "way", source: "common-practice" },
  run: { why: "run", source: "orchard-flow" },
  grip: { why: "strings", source: "orchard-flow" },
  cure: { why: "cure", source: "product-sheet" },
};

/** The coats of one face with the waits and the flatting between them. */
function coatsOfFace(w: Working, side: Side, faceUp: boolean): StepDraft[] {
  const { brief, facts, way, now_ms } = w;
  const on = coatsOf(facts, side);
  const of = Math.max(brief.coatsPlanned, on.length);
  const steps: StepDraft[] = [];
  const colour = side === (brief.sides === 2 ? "back" : "front") ? colourWait(facts) : null;
  // Before its first coat: by the colour below it; of the back where the front was sprayed first, by that.
  let window: Window = (on.length === 0 && side === "back" ? windowNow(w, side) : null) ?? {
    from_ms: colour?.clear_ms ?? null,
    best_ms: null,
    latest_ms: colour?.scuff_ms ?? null,
    late: colour ? "scuff" : null,
    why: colour ? "colour" : "settled",
    source: "common-practice",
  };
  for (let number = 1; number <= of; number++) {
    const coat = on[number - 1];
    const next = on[number];
    const row = rowOf(w, side, number);
    const { volume_m3, time_s } = row ?? w.volumes[Math.min(number, w.volumes.length) - 1]!;
    const duration_s = row?.time_s ?? coatTime_s(facts, { time_s });
    const start_ms = Math.max(w.cursor_ms, window.from_ms ?? 0);
    steps.push(
      stepDraft(`${side} ${number}`, "coat", {
        ...window,
        // Of the next coat the window's own beginning; of those after it, when the forecast has the hand free.
        from_ms: coat ? null : number === on.length + 1 && faceUp ? window.from_ms : start_ms,
        side,
        number,
        of,
        missed: w.past && !coat,
        done: coat !== undefined,
        done_ms: coat?.entry.at_ms ?? null,
        duration_s,
        volume_m3,
        coat: coat || !row ? null : forecastOf(row),
        holds: number === on.length + 1 && !w.past ? coatHolds(w) : [],
      }),
    );
    const end_ms = coat ? coat.entry.at_ms : start_ms + duration_s * MS;
    if (!coat) w.cursor_ms = end_ms;
    if (number === of) break;
    const planned = plannedCoat(way, number);
    const wait = next ? waited(end_ms, next, duration_s) : windowAfter(w, { side, number, last: number === on.length, end_ms });
    const over = next !== undefined || (coat !== undefined && wait.from_ms !== null && wait.from_ms <= now_ms);
    steps.push(
      stepDraft(`${side} ${number} ${planned.sandAfter ? "cure" : "flash"}`, planned.sandAfter ? "cureToSand" : "flash", {
        ...wait,
        side,
        number,
        missed: w.past,
        done: over,
        done_ms: over ? wait.from_ms : null,
        duration_s: wait.from_ms === null ? null : (wait.from_ms - end_ms) / MS,
      }),
    );
    window = wait;
    if (planned.sandAfter && side === "front") {
      const flat = coat && facts.builds.find((b) => b.coats.includes(coat))?.thinning.at(-1);
      steps.push(
        stepDraft(`${side} ${number} flat`, "flatten", {
          number,
          missed: w.past,
          done: flat !== undefined || next !== undefined,
          done_ms: flat?.at_ms ?? null,
          from_ms: wait.from_ms,
          why: "flat",
          duration_s: FLATTEN_S,
          holds: flat === undefined && next === undefined ? paperHolds(facts) : [],
          grit: way.flatten.grit,
        }),
      );
      if (!next) w.cursor_ms = Math.max(w.cursor_ms, wait.from_ms ?? 0) + (flat ? 0 : FLATTEN_S * MS);
      window = { ...wait, from_ms: null, best_ms: null, latest_ms: null, late: null, why: "flat", source: "common-practice" };
    }
  }
  return steps;
}

type Window = Pick<StepDraft, "from_ms" | "best_ms" | "latest_ms" | "late" | "why" | "source">;
const SETTLED: Window = { from_ms: null, best_ms: null, latest_ms: null, late: null, why: "settled", source: "common-practice" };

/** The window before the next coat of all, by the one wait; null where this face is not the next, or nothing is on yet. */
function windowNow(w: Working, side: Side): Window | null {
  const newest = newestCoat(w.facts);
  if (!newest || nextSide(w.facts, w.brief) !== side) return null;
  const now = nextWait(w);
  if (!now) return { ...SETTLED, from_ms: newest.entry.at_ms }; // sanded flat since: it waits for nothing
  const reason = now.window ? reasonOf[now.window.by] : { why: "turned" as const, source: "product-sheet" as const };
  const grip = now.late === "grip" && now.window?.by === "sheet";
  return {
    from_ms: now.least_ms,
    best_ms: now.best_ms,
    latest_ms: now.latest_ms,
    late: now.late,
    ...(now.window?.setsFirst
      ? { why: "set" as const, source: "orchard-flow" as const }
      : grip
        ? { ...reason, why: "grip" as const }
        : reason),
  };
}

const forecastOf = ({ gun, zone, dry_m, u_dry_m, runChance, sagLocal_m }: CoatAhead): CoatForecast => ({
  gun,
  zone,
  dry_m,
  u_dry_m,
  runChance,
  sagLocal_m,
});

/** The wait between two coats that are on: as long as it was. */
const waited = (end_ms: number, { entry }: CoatState, usual_s: number): Window => ({
  ...SETTLED,
  from_ms: Math.max(end_ms, entry.at_ms - (entry.body.duration_s ?? usual_s) * MS),
});

/** The window after a coat: the one wait where the next of all follows it, else the way's own with the gun in the hand. */
function windowAfter(w: Working, { side, number, last, end_ms }: { side: Side; number: number; last: boolean; end_ms: number }): Window {
  const now = last ? windowNow(w, side) : null;
  if (now) return now;
  const planned = rowOf(w, side, number)?.wait;
  if (!planned) return { ...SETTLED, from_ms: end_ms };
  const ms = (s: number) => (Number.isFinite(s) ? end_ms + s * MS : null);
  return {
    from_ms: end_ms + planned.least_s * MS,
    best_ms: ms(planned.best_s),
    latest_ms: ms(planned.latest_s),
    late: planned.late,
    ...reasonOf[planned.by],
  };
}

/** Until the part may be touched, and turning it over. */
function turning(w: Working): StepDraft[] {
  const { brief, facts, now_ms, sheet } = w;
  const last = facts.backCoats.length >= brief.coatsPlanned ? facts.backCoats.at(-1) : undefined;
  const front = facts.coats.length > 0;
  const turned = front || (last !== undefined && isTurned(facts));
  const wait = last && !front ? nextWait(w) : null;
  const free_ms = last?.entry.at_ms ?? w.cursor_ms;
  const bears_ms = wait?.least_ms ?? free_ms + turnAfter_s(sheet, airNow(w)) * MS;
  // Turned over sooner it bore it.
  const from_ms = turned && facts.turned ? Math.min(bears_ms, facts.turned.at_ms) : bears_ms;
  const over = turned || (last !== undefined && from_ms <= now_ms);
  if (!front) w.cursor_ms = Math.max(w.cursor_ms, from_ms);
  return [
    stepDraft("settle", "settle", {
      from_ms,
      missed: w.past,
      done: over,
      done_ms: over ? from_ms : null,
      why: "turned",
      source: "product-sheet",
      duration_s: Math.max(0, from_ms - free_ms) / MS,
    }),
    stepDraft("turn", "turn", {
      from_ms,
      missed: w.past,
      done: turned,
      done_ms: facts.turned?.at_ms ?? null,
      why: "turned",
      duration_s: HANDLING_S,
    }),
  ];
}

/** After the last coat: air before heat, heat, cooling, and cure until it bears work. */
function curing(w: Working): StepDraft[] {
  const { brief, facts, sheet, finish, now_ms } = w;
  const on = facts.coats.length >= brief.coatsPlanned || w.past ? (facts.coats.at(-1) ?? null) : null;
  const unknown = w.past && !on; // nobody logged its clear
  const matte = finish === "matte";
  const purge_s = airBeforeHeat_s(w);
  const end_ms = on?.entry.at_ms ?? w.cursor_ms;
  const heat_ms = end_ms + purge_s * MS;
  const cure = on ? cureOf(sheet, facts, now_ms) : null;
  const baked = facts.bakes.at(-1) ?? null;
  const heated = on !== null && (baked !== null || facts.baking !== null);
  const own_ms = end_ms + w.way.correctAfter_s * MS;
  const ready_ms = cure ? readyAt(cure, w) : end_ms + bearsAfter_s(sheet, { ...w, air_K: airNow(w) }) * MS;
  const waits = !matte && ready_ms === own_ms;
  const hard = cure !== null && ready_ms <= now_ms && w.soft.length === 0;
  w.cursor_ms = unknown ? 0 : ready_ms;
  const bake_ms = facts.baking && sheet.bake ? facts.baking.at_ms + sheet.bake.time_s * MS : null;
  const steps: StepDraft[] = [
    stepDraft("purge", "purge", {
      optional: !matte,
      missed: unknown,
      done: on !== null && (heated || heat_ms <= now_ms),
      done_ms: on && heat_ms <= now_ms ? heat_ms : null,
      from_ms: heat_ms,
      why: "solvent",
      duration_s: purge_s,
    }),
  ];
  if (sheet.bake)
    steps.push(
      stepDraft("bake", "bake", {
        optional: true,
        done: baked !== null,
        done_ms: baked?.at_ms ?? null,
        from_ms: bake_ms ?? heat_ms,
        missed: unknown || (hard && !heated),
        why: "cure",
        source: "product-sheet",
        duration_s: sheet.bake.time_s,
      }),
      stepDraft("cool", "cool", {
        // Out of the heat it is what the hand waits for; before that the bake may be left out, and this with it.
        optional: baked === null,
        done: baked !== null && baked.at_ms + COOL_S * MS <= now_ms,
        done_ms: null,
        from_ms: (baked?.at_ms ?? (bake_ms ?? heat_ms) + sheet.bake.time_s * MS) + COOL_S * MS,
        missed: unknown || (hard && !heated),
        why: "warm",
        duration_s: COOL_S,
      }),
    );
  steps.push(
    stepDraft("cure", "cure", {
      missed: unknown,
      done: hard,
      done_ms: hard ? ready_ms : null,
      from_ms: ready_ms,
      why: waits ? "way" : "hardness",
      source: waits ? "common-practice" : cure && cure.from !== "sheet" ? "job-record" : "product-sheet",
      holds: w.soft,
      duration_s: (ready_ms - end_ms) / MS,
    }),
  );
  return steps;
}

/** Reading, looking, correcting (never in matte), reading again, handing over. */
function afterwards(w: Working): StepDraft[] {
  const { brief, facts, finish } = w;
  const { plan, stepsDone } = facts;
  const from_ms = w.cursor_ms > 0 ? w.cursor_ms : null;
  const read = (phase: "after" | "recheck") => facts.spots.filter((s) => s.films[phase]).length;
  const over = facts.handedOver !== null;
  const steps: StepDraft[] = [
    stepDraft("after", "readAfter", {
      done: read("after") + read("recheck") > 0,
      optional: noGaugeReads(brief.substrate),
      from_ms,
      why: "hardness",
      duration_s: READ_S,
      holds: w.soft,
    }),
    stepDraft("inspect", "inspect", {
      done: isLookedOver(facts),
      optional: true,
      from_ms,
      why: "settled",
    }),
  ];
  if (finish !== "matte") {
    const wanted = plan?.body.steps.length ?? null;
    const finished = wanted !== null && stepsDone.length >= wanted;
    steps.push(
      stepDraft("correct", "correct", {
        // Looked over with nothing found, and nothing planned: there is nothing to put right.
        optional: plan === null && facts.defects.length === 0 && isLookedOver(facts) && finish !== "flat",
        number: wanted === null ? null : Math.min(wanted, stepsDone.length + 1),
        of: wanted,
        done: finished,
        done_ms: finished ? (stepsDone.at(-1)?.at_ms ?? null) : null,
        from_ms,
        why: "least",
        holds: finished ? [] : paperHolds(facts),
        duration_s: plan ? 60 * plan.body.steps.slice(stepsDone.length).reduce((a, s) => a + s.minutes, 0) : null,
      }),
      stepDraft("again", "measureAgain", {
        done: read("recheck") > 0,
        optional: plan === null || noGaugeReads(brief.substrate),
        from_ms,
        why: "least",
        duration_s: READ_S,
      }),
    );
  }
  steps.push(stepDraft("hand over", "handOver", { done: over, done_ms: facts.handedOver?.at_ms ?? null, from_ms, why: "settled" }));
  return steps;
}
