import { coatsAsked } from "#core/coat/asked";
import { layerWait } from "#core/coat/layer-wait";
import { nextAction } from "#core/course/steps";
import { inRange } from "#core/kernel/guard";
import { coatsOn } from "#core/panel/coats-on";
import { predictCoat } from "#core/panel/predict-coat";
import type { ServerContext } from "#server/context";
import { listClocks } from "#server/repos/clock-repo";
import { listShelf } from "#server/repos/product-repo";
import { listStandings } from "#server/repos/summary-repo";
import { loadBoothPlan } from "#server/views/booth-plan-view";
import { layerMixes } from "#server/views/mix-view";
import type { PanelView } from "#server/views/panel-view";
import { courseAt } from "~/course/course-at";
import { mixOpened } from "./mix-opened";
import { layersAt } from "~/stations/spray/layers-at";

type Say = (quantity: string, page: string, value: number | string | null | undefined) => void;
type Law = (name: string, holds: boolean) => void;

const TO_COME = ["now", "open", "next", "later"];

/** The coats below the clear: Below, course, header, lists, clock strip, mix, booth plan. */
export async function compareLayers(ctx: ServerContext, view: PanelView, say: Say, law: Law): Promise<void> {
  const { state, panel, job } = view;
  const now_ms = ctx.now_ms();
  const shelf = await listShelf(ctx.db);
  const below = layersAt(view, shelf, now_ms);
  const steps = courseAt(view, now_ms);
  const next = nextAction(steps);
  const clear = coatsOn(state) === 0 && steps.find((s) => s.kind === "coat")?.state !== "missed";

  const first = steps.find((s) => s.kind === "colour" && s.layer !== null && TO_COME.includes(s.state));
  if (clear && below.next && first) {
    const { coat, film, runs, layer } = below.next;
    const name = `next ${layer}`;
    say("layer that is next", "Below", `${layer} ${coat.number} ${coat.side}`);
    say("layer that is next", "Course", `${first.layer} ${first.number} ${first.side}`);
    say(`${name}: film`, "Below", film?.dry_m);
    say(`${name}: film`, "Course", first.coat?.dry_m);
    say(`${name}: its doubt`, "Below", film?.u_dry_m);
    say(`${name}: its doubt`, "Course", first.coat?.u_dry_m);
    say(`${name}: litres`, "Below", film?.volume_m3);
    say(`${name}: litres`, "Course", first.volume_m3);
    say(`${name}: its time`, "Below", film?.time_s);
    say(`${name}: its time`, "Course", first.duration_s);
    say(`${name}: chance of a run`, "Below", runs?.chance);
    say(`${name}: chance of a run`, "Course", first.coat?.runChance);
    const form = inRange(() => predictCoat(coat, below.next!.sheet, below.next!.sprayed));
    if (film) {
      say(`${name}: film`, "Coat form", form?.dry_m);
      say(`${name}: wet`, "Coat form", form?.wet_m);
      say(`${name}: wet`, "Below", film.wet_m);
    }
    if (below.wait) {
      say("the next coat below, not before", "Below", below.wait.next_ms);
      say("the next coat below, not before", "Course", first.from_ms);
      const clock = (await listClocks(ctx.db, now_ms, 500)).find((c) => c.panelId === panel.id && c.label.startsWith("colour"));
      say("the next coat below, not before", "Clock strip", clock?.due_ms);
    }
    if (next?.kind === "colour" && next.layer) {
      const row = (await listStandings(ctx.db, [job.id])).find((s) => s.panelId === panel.id)!.standing.action;
      for (const [page, action] of [
        ["Header", view.standing.action],
        ["Lists", row],
      ] as const) {
        say("layer that is next", page, `${action?.layer} ${action?.number} ${action?.side}`);
        if (below.wait) say("the next coat below, not before", page, action?.from_ms);
      }
    }
  }
  law("what is planned below is what is next below", !clear || (first !== undefined) === (below.next !== null));

  // When the clear goes on: course, booth plan, and what lies below once all of it is on.
  const coat = steps.find((s) => s.kind === "coat");
  const booth = await loadBoothPlan(ctx, job.id);
  const part = booth.problem.parts.find((p) => p.id === panel.id);
  if (clear && !state.spraying && state.below.length > 0 && part) {
    say("clear, not before", "Course", coat?.from_ms);
    say("clear, not before", "Booth plan", part.from_s === undefined ? null : booth.origin_ms + 1000 * part.from_s);
    const wait = layerWait(coatsAsked(view, now_ms));
    if (wait && below.next === null) say("clear, not before", "Below", below.wait?.over_ms);
  }

  for (const [name, mix] of Object.entries(layerMixes(view, now_ms))) {
    const rows = below.rows.filter((r) => r.product === name && r.planned && r.toMix_m3 !== null && r.toMix_m3 > 0);
    if (rows.length !== 1) continue; // of several layers out of one pot what stays in the gun is counted once
    const sheet = shelf.find((p) => p.sheet.name === name)!.sheet;
    if (!("ratio" in sheet)) continue;
    const worked = mixOpened(sheet, mix, panel.shape.outline);
    law("a mix of what lies below opens with figures that it accepts", worked !== null);
    if (!worked) continue;
    say(`to mix of ${name}`, "Below", rows[0]!.toMix_m3);
    say(`to mix of ${name}`, "Mix", worked.amount.ready_m3);
  }
}
