import type { UnitPreferences } from "#core/kernel/units/quantities";
import { recordEntry } from "#server/commands/record-entry";
import { spotPlanForm, stripForm } from "~/kit/readings/reading.form";
import { PHASES, type Phase } from "#core/record/kinds";
import { setSpotCount } from "#server/commands/spot-plan";
import type { ServerContext } from "#server/context";
import { takeStandInReadings } from "#server/devices/take-readings";
import type { PanelView } from "#server/views/panel-view";
import { type FormAnswer, answerForm, textOf } from "~/kit/form/answer";
import { inWords } from "~/kit/form/in-words.server";

/** What the reading desk sends beside its readings, from whichever page it stands on; null when the form is another's. */
export async function readingAction(
  ctx: ServerContext,
  { panelId, look }: { panelId: string; look: () => Promise<PanelView> },
  form: FormData,
  { by, units }: { by: string; units: UnitPreferences },
): Promise<FormAnswer | Awaited<ReturnType<typeof answerForm>> | null> {
  switch (textOf(form, "intent")) {
    case "stand-in": {
      const view = await look();
      const named = textOf(form, "phase");
      const phase: Phase = Object.hasOwn(PHASES, named) ? (named as Phase) : "after";
      const only = textOf(form, "spot");
      const unread = (name: string) => !view.state.spots.find((p) => p.name === name)?.films[phase];
      const spots = view.spotPlan.filter((s) => (only ? s.name === only : unread(s.name)));
      const template = textOf(form, "template") === "on";
      return inWords(async () => {
        const [entryId, ...also] = await takeStandInReadings(ctx, { panelId, phase, spots, count: view.readingsPerSpot, by, template });
        const message = spots.length === 1 ? `Spot ${spots[0]!.name} filled, simulated` : `${spots.length} spots filled, simulated`;
        return { ok: true, intent: "stand-in", message, errors: {}, ...(entryId ? { entryId, also } : {}) };
      });
    }
    case "strip":
      return answerForm(form, stripForm(units), async (body) => ({
        entryId: await recordEntry(ctx, { panelId, kind: "strip", body, by, clientKey: textOf(form, "formKey") || null }),
        message: "Strip stored",
      }));
    case "spots":
      return answerForm(form, spotPlanForm, async ({ count }) => ({ entryId: await setSpotCount(ctx, await look(), { count, by }) }));
    default:
      return null;
  }
}
