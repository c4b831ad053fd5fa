import { coatsAsked, nextAsked } from "#core/coat/asked";
import { coatsAhead } from "#core/coat/coats-ahead";
import { nextCoat } from "#core/coat/next-coat";
import { sprayedNow } from "#core/coat/setting";
import { windowAhead } from "#core/coat/window-ahead";
import { nextSide } from "#core/panel/coats-on";
import { predictCoat } from "#core/panel/predict-coat";
import { TEXTURE_LIMITS } from "#core/models/flow/constants";
import { flowVerdict } from "#core/models/flow/flow-advice";
import { CHANCE_WORDS } from "#core/models/flow/run-chance";
import { flowPlanOf } from "#core/judge/flow-question";
import { inRange } from "#core/kernel/guard";
import type { ServerContext } from "#server/context";
import { loadBoothPlan } from "#server/views/booth-plan-view";
import { mixSetting } from "#server/views/mix-view";
import { loadPlanAhead } from "#server/views/plan-ahead-view";
import type { PanelView } from "#server/views/panel-view";
import { courseAt } from "~/course/course-at";
import { wayPlan } from "~/stations/spray/coat-plan-at";

import { mixOpened } from "./mix-opened";

type Say = (quantity: string, page: string, value: number | string | null | undefined) => void;
type Law = (name: string, holds: boolean) => void;

const TO_COME = ["now", "open", "next", "later"];

/** The coats to come: course, coat plan, window, coat form, plan, mix, booth plan. */
export async function compareCoats(ctx: ServerContext, view: PanelView, say: Say, law: Law): Promise<void> {
  const { state, panel, job, product, shopFilm, shopFactors } = view;
  const { sheet } = product;
  const now_ms = ctx.now_ms();
  const side = nextSide(state, panel);
  const steps = courseAt(view, now_ms);
  const coming = steps.filter((s) => s.kind === "coat" && s.side === side && TO_COME.includes(s.state));
  const asked = coatsAsked(view, now_ms);
  const plan = wayPlan(view, job.way, now_ms);
  const rows = plan.rows.filter((r) => r.ahead);
  const promised = loadPlanAhead(view, now_ms);
  const booth = (await loadBoothPlan(ctx, job.id)).problem.parts.find((p) => p.id === panel.id);
  const mix = mixSetting(view, [], now_ms);
  const next = nextCoat(nextAsked(view));

  for (const step of coming) {
    const row = rows.find((r) => r.number === step.number);
    const name = `coat ${step.number} to come`;
    say(`${name}: film`, "Course", step.coat?.dry_m);
    say(`${name}: film`, "Coat plan", row?.dry_m);
    say(`${name}: its doubt`, "Course", step.coat?.u_dry_m);
    say(`${name}: its doubt`, "Coat plan", row?.u_dry_m);
    say(`${name}: chance of a run`, "Course", step.coat?.runChance);
    say(`${name}: chance of a run`, "Coat plan", row?.ahead?.runChance);
    if (step.number === next.number) {
      if (booth) {
        say(`${name}: its time`, "Course", step.duration_s);
        say(`${name}: its time`, "Booth plan", booth.spray_s);
      }
      const form = inRange(() =>
        predictCoat({ settings: next.settings, reducer: next.reducer }, sheet, sprayedNow(state, sheet), shopFilm),
      );
      if (row && next.zone === "whole") {
        say(`${name}: film`, "Coat form", form?.dry_m);
        say(`${name}: its doubt`, "Coat form", form?.u_dry_m);
        say(`${name}: wet`, "Coat form", form?.wet_m);
        say(`${name}: wet`, "Coat plan", row.wet_m);
      }
    }
  }
  const flash = steps.find(
    (s) => s.kind === "flash" && s.layer === null && s.side === side && s.state !== "done" && s.number! >= next.number,
  );
  /** The booth plan counts the coats of both faces in one row: the back's before the front's. */
  const inTurns = panel.sides === 2 && state.coats.length > 0 && state.backCoats.length < panel.coatsPlanned;
  if (flash && booth && !plan.fault && !inTurns) {
    say(`wait after coat ${flash.number}`, "Course", flash.duration_s);
    say(
      `wait after coat ${flash.number}`,
      "Booth plan",
      booth.waits?.[(side === "front" && panel.sides === 2 ? panel.coatsPlanned : 0) + flash.number! - 1]?.least_s,
    );
    say(`wait after coat ${flash.number}`, "Coat plan", rows.find((r) => r.number === flash.number)?.ahead?.wait?.least_s);
  }

  // Will it run? opens with the coat as the plan has it.
  const open = windowAhead(asked);
  const shown = rows.find((r) => r.number === open.number);
  const verdict = inRange(() => flowVerdict({ ...open, shop: shopFactors }, TEXTURE_LIMITS[job.finish], shopFilm.u_log));
  if (shown) {
    say(`coat ${open.number} to come: chance of a run`, "Window", verdict?.runChance);
    say(`coat ${open.number} to come: wet`, "Window", verdict?.result.coats.at(-1)?.deposit.wet_m);
    say(`coat ${open.number} to come: wet`, "Coat plan", shown.wet_m);
  }

  const flow = flowPlanOf(view)?.stage;
  law("a flow coat is told at no pace at which a run is not unlikely", !flow?.coat || flow.runChance! < CHANCE_WORDS.may);

  // All of them: film with its doubt, and what is to be mixed.
  if (side === "front" && rows.length > 0) {
    const end = plan.rows.at(-1)!;
    say("clear with all coats on", "Coat plan", end.clear_m);
    say("clear with all coats on", "Plan", promised.clear?.clear_m);
    say("its doubt with all coats on", "Coat plan", end.u_clear_m);
    say("its doubt with all coats on", "Plan", promised.clear?.u_m);
    law("doubt common to coats stays common", end.u_clear_m >= shopFilm.u_log * rows.reduce((a, r) => a + r.dry_m, 0) * (1 - 1e-9));
  }
  const pour = steps.find((s) => s.kind === "mix");
  if (coming.length > 0 && pour) {
    say("to mix", "Course", pour.volume_m3);
    say("to mix", "Plan", promised.litres.toMix_m3);
    const worked = mixOpened(sheet, mix, panel.shape.outline);
    law("a mix opens with figures that it accepts", worked !== null);
    if (worked) say("to mix", "Mix", worked.amount.ready_m3);
    const ahead = coatsAhead(asked, side);
    say("reducer of the mix", "Mix", mix.reducer);
    if (ahead?.[0]) say("reducer of the mix", "Coats' owner", ahead[0].reducer - (mix.faces[0]?.coats[0]?.more ?? 0));
  }
}
