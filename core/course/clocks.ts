import type { ClockKind } from "../models/clock/clock-state";
import type { Finish } from "../models/ways/terms";
import { airBeforeHeat_s } from "../models/ways/after-last-coat";
import { softFilm } from "../panel/fault-holds";
import { COOL_S, cureOf, readyAt } from "../coat/cure";
import { layerWait } from "../coat/layer-wait";
import { type CourseAsked, nextWait } from "../coat/next-wait";

/** What a clock in the strip counts down to: a wait of the course as it stands. */
export interface CourseClock {
  kind: Exclude<ClockKind, "pot" | "stir">;
  /** The entry that started it. */
  entryId: string;
  /** What follows it. */
  then: "coat" | "colour" | "flatten" | "turn" | "heat" | "cool" | "read" | "work" | "touch";
  number: number | null;
  started_ms: number;
  due_ms: number;
  late_ms: number | null;
}

const MS = 1000;
const THEN = { flash: "coat", sand: "flatten", turn: "turn" } as const;

/** The clocks that run on a panel by what was logged; none before its first coat and once it is handed over. */
export function clocksOf(asked: CourseAsked & { finish: Finish; now_ms: number }): CourseClock[] {
  const { brief, facts, sheet, finish, now_ms } = asked;
  if (facts.handedOver) return [];
  const wait = nextWait(asked);
  // The front is on, and its back is still to come: it is turned then, and cures meanwhile.
  const frontOn = facts.coats.length >= brief.coatsPlanned;
  const waits: CourseClock[] = wait
    ? [
        {
          kind: wait.what === "flash" || frontOn ? "flash" : "cure",
          entryId: wait.coat.entry.id,
          then: THEN[wait.what],
          number: wait.coat.entry.body.number,
          started_ms: wait.from_ms,
          due_ms: wait.least_ms,
          late_ms: wait.latest_ms,
        },
      ]
    : [];
  if (wait && !frontOn) return waits;
  const colour = wait ? null : layerWait(asked);
  if (colour?.planned && colour.next === null)
    return [
      {
        kind: "flash",
        entryId: colour.coat.entry.id,
        then: "coat",
        number: null,
        started_ms: colour.coat.entry.at_ms,
        due_ms: colour.over_ms,
        late_ms: colour.scuff_ms,
      },
    ];
  if (colour)
    return [
      {
        kind: "flash",
        entryId: colour.coat.entry.id,
        then: "colour",
        number: facts.colourCoats.length,
        started_ms: colour.coat.entry.at_ms,
        due_ms: colour.next_ms,
        late_ms: null,
      },
    ];
  const last = facts.coats.at(-1);
  if (!last || !frontOn) return [];
  const clock = (
    kind: CourseClock["kind"],
    then: CourseClock["then"],
    o: { entryId: string; started_ms: number; due_ms: number },
  ): CourseClock => ({
    kind,
    then,
    number: null,
    late_ms: null,
    ...o,
  });
  const { id: entryId, at_ms } = last.entry;
  const matte = finish === "matte";
  const ready_ms = readyAt(cureOf(sheet, facts, now_ms)!, asked);
  const bake = facts.bakes.at(-1);
  const clocks: CourseClock[] = [];
  if (facts.baking && sheet.bake) {
    const { id, at_ms: on_ms } = facts.baking;
    clocks.push(clock("bake", "cool", { entryId: id, started_ms: on_ms, due_ms: on_ms + sheet.bake.time_s * MS }));
  } else if (bake) clocks.push(clock("cool", "read", { entryId: bake.id, started_ms: bake.at_ms, due_ms: bake.at_ms + COOL_S * MS }));
  // Once it is hard nobody puts it in the heat any more.
  else if ((sheet.bake || matte) && ready_ms > now_ms)
    clocks.push(clock("purge", "heat", { entryId, started_ms: at_ms, due_ms: at_ms + airBeforeHeat_s(asked) * MS }));
  // A film marked as soft is ready at no hour that anybody knows.
  if (!softFilm(facts)) clocks.push(clock("cure", matte ? "touch" : "work", { entryId, started_ms: at_ms, due_ms: ready_ms }));
  // Once somebody has read it or plans its work, a wait that is over is nobody's any more.
  const worked = facts.plan !== null || facts.spots.some((s) => s.films.after || s.films.recheck);
  return [...waits, ...clocks.filter((c) => !worked || c.due_ms > now_ms)];
}
