import { z } from "zod";
import { flatRemoval } from "#core/judge/flow-question";
import type { StepHold } from "#core/course/step-hold";
import { recordEntry } from "#server/commands/record-entry";
import {
  type Done,
  type Together,
  bakedTogether,
  cleanTogether,
  coatTogether,
  heatTogether,
  mixTogether,
  prepareTogether,
  turnTogether,
} from "#server/commands/together";
import { againstNow } from "#server/views/against-view";
import type { PanelView } from "#server/views/panel-view";
import type { Act } from "~/kit/form/act";
import { answerForm, textOf } from "~/kit/form/answer";
import { bakedForm, flattenForm, turnForm } from "~/kit/form/spray-entries";
import { sheetOr404 } from "~/kit/http/panel.server";
import { capital } from "~/kit/words/capital";
import { doneAgainst } from "~/kit/words/hold-name";
import { coatOnForm, mixInForm, preparedForm, togetherFields } from "./together.form";

/** What is done at a step of the course in one press, at this panel and at those that go along. */
export const courseAct: Act = async (ctx, { jobId, panelId, look }, form, { units, by }) => {
  const clientKey = textOf(form, "formKey") || null;
  const at = ({ step, panels }: { step: string; panels: readonly string[] }): Omit<Together, "said"> => ({
    ...{ jobId, step, by, clientKey },
    panelIds: [panelId, ...panels.filter((id) => id !== panelId)],
  });
  const told = ({ entryIds: [entryId, ...also], said }: Done) => ({
    ...(entryId ? { entryId } : {}),
    also,
    message: said,
  });
  const sayAll = (done: string) => ({ said: (views: readonly PanelView[]) => forAll(done, views) });
  const sayAgainst = (what: "coat" | "heat", done: (first: PanelView | undefined) => string) => ({
    said: (views: readonly PanelView[]) => doneAgainst(forAll(done(views[0]), views), against(views, what, ctx.now_ms()), ctx.now_ms()),
  });
  switch (textOf(form, "intent")) {
    case "coatOn":
      return answerForm(form, coatOnForm(units), async ({ handSpeed, turns, fluidRate, ...v }) => {
        const otherwise = {
          ...(handSpeed === null ? {} : { handSpeed_m_s: handSpeed }),
          ...(turns === null ? {} : { turns }),
          ...(fluidRate === null ? {} : { fluidRate_m3_s: fluidRate }),
        };
        return told(
          await coatTogether(ctx, { ...at(v), otherwise, ...sayAgainst("coat", (first) => `${coatName(first)} is on; its clock runs`) }),
        );
      });
    case "prepared":
      return answerForm(form, preparedForm, async ({ ticks, ...v }) =>
        told(await prepareTogether(ctx, { ...at(v), ticks, ...sayAll("Prepared") })),
      );
    case "mixIn":
      return answerForm(form, mixInForm(units), async ({ volume, ...v }) =>
        told(await mixTogether(ctx, { ...at(v), volume_m3: volume, ...sayAll("Mixed; the pot clock runs") })),
      );
    case "heatOn":
      return answerForm(form, z.object(togetherFields), async (v) => {
        return told(await heatTogether(ctx, { ...at(v), ...sayAgainst("heat", () => "Heat is on; its clock runs") }));
      });
    case "baked":
      return answerForm(
        form,
        z.object(togetherFields).and(bakedForm(units, await sheetOr404(ctx, panelId))),
        async ({ part, time, ...v }) =>
          told(await bakedTogether(ctx, { ...at(v), bake: { part_K: part, time_s: time }, ...sayAll("Baked; it cools now") })),
      );
    case "turn":
      return answerForm(form, z.object(togetherFields).and(turnForm), async ({ how, side, ...v }) =>
        told(await turnTogether(ctx, { ...at(v), how, side, ...sayAll("Turned") })),
      );
    case "clean":
      return answerForm(form, z.object(togetherFields), async (v) =>
        told(await cleanTogether(ctx, { ...at(v), ...sayAll("Looked over: nothing found") })),
      );
    case "flatten":
      return answerForm(form, flattenForm(units), async ({ grit, by: how, removal }) => {
        const { job, state, shopRemoval } = await look();
        const usual = flatRemoval(job.way.flatten, state, shopRemoval);
        const from = removal === null ? "forecast" : "told";
        const body = { grit, by: how, removal_m: removal ?? usual.removal_m, u_m: usual.u_m, from } as const;
        return {
          entryId: await recordEntry(ctx, { panelId, kind: "flatten", body, by, clientKey }),
          message: "Sanded flat; the next coat begins a new build",
        };
      });
    default:
      return null;
  }
};

/** "Coat 2", "Base 1": which coat comes next there. */
function coatName(view: PanelView | undefined): string {
  const action = view?.standing.action;
  return capital(action ? `${action.layer ?? "coat"} ${action.number ?? ""}`.trim() : "coat");
}

/** "Bonnet and door: coat 2 is on"; of one panel without its name. */
const forAll = (done: string, views: readonly PanelView[]): string =>
  views.length > 1 ? `${views.map((v) => v.panel.name).join(", ")}: ${done.charAt(0).toLowerCase()}${done.slice(1)}` : done;

/** What spoke against it, each thing once however many panels it holds. */
function against(views: readonly PanelView[], what: "coat" | "heat", now_ms: number): StepHold[] {
  const all = views.flatMap((v) => againstNow(v, what, now_ms));
  const seen = new Set<string>();
  return all.filter((h) => !seen.has(JSON.stringify(h)) && seen.add(JSON.stringify(h)));
}
