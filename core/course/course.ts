import { inRange } from "../kernel/guard";
import { plannedCoat } from "../models/ways/way";
import type { Finish } from "../models/ways/terms";
import { airBeforeHeat_s, bearsAfter_s } from "../models/ways/after-last-coat";
import { noGaugeReads } from "../panel/brief";
import { isLookedOver } from "../panel/looked";
import { coatsOn, isAllOn, newestCoat } from "../panel/coats-on";
import type { CoatsAsked } from "../coat/coats-ahead";
import { litresToCome } from "../coat/litres";
import { COOL_S, cureOf, readyAt } from "../coat/cure";
import { layerWait } from "../coat/layer-wait";
import { airNow } from "../coat/next-wait";
import { aroundOf } from "./around";
import { type Coats, coatSteps, coatsToStep } from "./coat-steps";
import { paperHolds, softHolds } from "./holds";
import { layerSteps } from "./layer-steps";
import type { StepHold } from "./step-hold";
import { ofClearAlone } from "../models/defects/kinds";
import { type CourseStep, type StepDraft, inOrder, nextAction, stepDraft } from "./steps";

export interface CourseInput extends CoatsAsked {
  finish: Finish;
  /** Without it waits that have not begun are left open: who only asks for what is next needs no forecast. */
  forecast?: boolean;
}

const MS = 1000;
/** Reading a panel: common practice. */
const READ_S = 300;

/**
 * A panel's course: every step from what lies below the clear to the customer, with its window, the reason of it and what it takes. A pure function
 * of what was logged and of now: the past is the ledger's, the rest a forecast that is made anew with every entry. @throws RangeError
 */
export function courseOf(input: CourseInput): CourseStep[] {
  const { facts } = input;
  const past = pastSpraying(input);
  const below = layerSteps(input, past);
  const state: Working = {
    ...input,
    ...coatsToStep(input, { past, cursor_ms: below.end_ms, below: below.over }),
    soft: softHolds(facts),
  };
  const drafts = [...before(state, below.steps), ...coatSteps(state), ...curing(state), ...afterwards(state)];
  const steps = inOrder(facts.handedOver ? drafts.map((d) => (d.done || d.optional ? d : { ...d, missed: true })) : drafts);
  if (input.forecast === false) return steps;
  const action = nextAction(steps);
  const atHand = (s: CourseStep) => s.id === action?.id || s.state === "now" || (s.state === "open" && s.kind === "prepare");
  return steps.map((s) => (atHand(s) ? { ...s, around: aroundOf(s, input) } : s));
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

interface Working extends CourseInput, Coats {
  /** A film marked as soft. */
  soft: readonly StepHold[];
}

/** @param layers what is planned below the clear */
function before(w: Working, layers: readonly StepDraft[]): StepDraft[] {
  const { brief, facts, way, past } = w;
  const sprayed = coatsOn(facts) > 0;
  const read = facts.spots.filter((s) => s.films.before);
  const gauge = !noGaugeReads(brief.substrate);
  const pot = facts.mix;
  const again = wantsFreshPot(w, sprayed);
  return [
    stepDraft("prepare", "prepare", {
      done: facts.under.length > 0 || facts.preflight !== null,
      done_ms: facts.under.at(-1)?.at_ms ?? facts.preflight?.at_ms ?? null,
      optional: true,
      why: "surface",
      grit: way.lastPaper,
    }),
    ...(layers.length > 0 ? layers : [colourLogged(w)]),
    stepDraft("before", "readBefore", {
      done: read.length > 0,
      done_ms: null,
      missed: (sprayed || past) && read.length === 0,
      optional: !gauge,
      why: "layers",
      duration_s: READ_S,
    }),
    stepDraft("mix", "mix", {
      done: pot !== null && !again,
      again,
      done_ms: pot?.at_ms ?? null,
      optional: true,
      why: "pot",
      volume_m3: w.forecast === false ? null : (inRange(() => litresToCome(w))?.toMix_m3 ?? null),
    }),
  ];
}

/** Coats are to come, and the pot that was mixed for them is over: a part turned the next day, a build that goes on after sanding flat. */
const wantsFreshPot = ({ facts, brief, past, now_ms }: Working, sprayed: boolean): boolean => {
  const newest = facts.pots.at(-1);
  return newest !== undefined && newest.until_ms <= now_ms && sprayed && !past && !isAllOn(facts, brief);
};

/** What was logged below the clear without a plan of it. */
const colourLogged = (w: Working): StepDraft =>
  stepDraft("colour", "colour", {
    done: w.facts.colourCoats.length > 0 || w.facts.under.some((u) => u.body.step === "base"),
    done_ms: w.facts.colourCoats.at(-1)?.at_ms ?? null,
    number: w.facts.colourCoats.length || null,
    optional: true,
    from_ms: layerWait(w)?.next_ms ?? null,
    why: "colour",
  });

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
