import { turnAfter_s } from "../models/ways/after-last-coat";
import type { CoatWait } from "../models/ways/wait-after";
import { plannedCoat } from "../models/ways/way";
import type { CoatVolume } from "../models/spray/coat-over";
import { FLATTEN_S } from "../models/trade-limits";
import { coatVolumes } from "../models/ways/way-volumes";
import type { CoatState } from "../panel/builds";
import { coatsOf, facesOf, newestCoat, nextSide } from "../panel/coats-on";
import { isTurned } from "../panel/wet-build";
import { coatTime_s } from "../coat/coat-time";
import { type CoatAhead, type CoatsAsked, coatsAhead } from "../coat/coats-ahead";
import { facesToCome } from "../coat/litres";
import { handGun } from "../coat/next-coat";
import { airNow, nextWait } from "../coat/next-wait";
import type { Side } from "../record/kinds";
import { coatHolds, paperHolds } from "./holds";
import { type CoatForecast, type CourseStep, type StepDraft, stepDraft } from "./steps";

const MS = 1000;
/** Handling beside the passes of a coat: common practice. */
const HANDLING_S = 120;

/** The coats of one thing that is sprayed, clear or a layer below it, while its steps are worked out. */
export interface Coats extends CoatsAsked {
  past: boolean;
  /** When the hand is free for what comes next, by the forecast. */
  cursor_ms: number;
  volumes: readonly CoatVolume[];
  /** When the first of them may go on what lies below; null: at once. */
  below: Window | null;
  /** The coats to come of each face, by their owner; empty where the model does not reach. */
  rows: Readonly<Record<Side, readonly CoatAhead[]>>;
}

/** @param o where the hand is free from, whether all this is over, and what it goes on */
export const coatsToStep = (asked: CoatsAsked & { forecast?: boolean }, o: Pick<Coats, "past" | "cursor_ms" | "below">): Coats => ({
  ...asked,
  ...o,
  volumes: coatVolumes(asked.way, {
    outline: asked.brief.shape.outline,
    rows: asked.brief.rows,
    gun: handGun(asked).settings,
    coats: asked.brief.coatsPlanned,
  }),
  rows: asked.forecast === false ? NO_ROWS : rowsOf(asked),
});

const NO_ROWS = { back: [], front: [] } as const;

function rowsOf(asked: CoatsAsked): Coats["rows"] {
  const faces = facesToCome(asked);
  const of = (side: Side) => (faces.includes(side) ? (coatsAhead(asked, side) ?? []) : []);
  return { back: of("back"), front: of("front") };
}

const rowOf = ({ rows }: Pick<Coats, "rows">, side: Side, number: number): CoatAhead | undefined =>
  rows[side].find((r) => r.number === number);

const reasonOf: Record<CoatWait["by"], { why: CourseStep["why"]; source: CourseStep["source"] }> = {
  sheet: { why: "sheet", source: "product-sheet" },
  way: { why: "way", source: "common-practice" },
  run: { why: "run", source: "orchard-flow" },
  grip: { why: "strings", source: "orchard-flow" },
  cure: { why: "cure", source: "product-sheet" },
};

/** All coats of it, of a part with two faces back before front and turned between; `cursor_ms` moves on with them. */
export function coatSteps(w: Coats): StepDraft[] {
  const steps: StepDraft[] = [];
  facesOf(w.brief).forEach((side, i) => {
    if (i > 0) steps.push(...turning(w));
    steps.push(
      ...coatsOfFace(
        w,
        side,
        steps.every((d) => d.kind !== "turn" || d.done),
      ),
    );
  });
  return steps;
}

/** The coats of one face with the waits and the flatting between them. */
function coatsOfFace(w: Coats, side: Side, faceUp: boolean): StepDraft[] {
  const { brief, facts, way, now_ms } = w;
  const on = coatsOf(facts, side);
  const of = Math.max(brief.coatsPlanned, on.length);
  const steps: StepDraft[] = [];
  // Before its first coat: by what lies below it; of the back where the front was sprayed first, by that.
  const first = side === facesOf(brief)[0] ? w.below : null;
  let window: Window = (on.length === 0 && side === "back" ? windowNow(w, side) : null) ?? first ?? SETTLED;
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
        from_ms: coat ? null : number === on.length + 1 && faceUp ? notBefore(window.from_ms, w.below) : start_ms,
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

/** The next coat of all waits for what lies below it as well. */
const notBefore = (from_ms: number | null, below: Window | null): number | null =>
  below?.from_ms == null ? from_ms : Math.max(from_ms ?? -Infinity, below.from_ms);

export type Window = Pick<StepDraft, "from_ms" | "best_ms" | "latest_ms" | "late" | "why" | "source">;
export const SETTLED: Window = { from_ms: null, best_ms: null, latest_ms: null, late: null, why: "settled", source: "common-practice" };

/** The window before the next coat of all, by the one wait; null where this face is not the next, or nothing is on yet. */
function windowNow(w: Coats, side: Side): Window | null {
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
function windowAfter(w: Coats, { side, number, last, end_ms }: { side: Side; number: number; last: boolean; end_ms: number }): Window {
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
function turning(w: Coats): StepDraft[] {
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
