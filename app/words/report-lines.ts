import { clearBeforeWork, clearSummary, removedAtSpots } from "#core/ledger/clear-summary";
import { CAUSES, type Cause } from "#core/defects/causes";
import { correctionSchool } from "#core/correction/schools";
import { DEFECTS } from "#core/ledger/kinds";
import { placeInWords } from "#core/panel/shapes";
import { show, showChance, showWithUncertainty } from "#core/units/format";
import type { UnitPreferences } from "#core/units/quantities";
import { FINISHES, houseWay } from "#core/ways/house-ways";
import type { PanelView } from "#server/views/panel-view";
import { VERDICT_WORDS } from "./verdict";
import { doneWords } from "./zone-words";

export interface ReportLine {
  label: string;
  value: string;
}
const DAY_S = 86_400;

/** For whom a report is: the customer reads what there is and what was done, the shop's file also how and why. */
export const REPORT_READERS = { shop: "For the shop's file", customer: "For the customer" } as const;
export type ReportReader = keyof typeof REPORT_READERS;
export const reportReader = (text: string | null): ReportReader => (text === "customer" ? "customer" : "shop");

/** What the report says, line by line: the page and the PDF print the same. */
export function reportLines(
  { job, panel, product, state, floor_m }: PanelView,
  units: UnitPreferences,
  reader: ReportReader = "shop",
): ReportLine[] {
  const clear = clearSummary(state);
  const removed = removedAtSpots(state);
  const plan = state.plan?.body;
  const film = (m: number, u: number) => `${showWithUncertainty("film", m, u, units).text} ${units.film}`;
  const rated = state.texture.findLast((t) => t.body.role === "part");
  const gloss = state.gloss.findLast((g) => g.body.role === "part");
  const words = state.causes.flatMap((c) =>
    c.body.causeId ? [`${DEFECTS[c.body.kind].name.toLowerCase()}: ${(CAUSES[c.body.causeId] as Cause).name.toLowerCase()}`] : [],
  );
  const line = (label: string, value: string | null): ReportLine[] => (value === null ? [] : [{ label, value }]);
  const forShop = (label: string, value: string | null) => (reader === "shop" ? line(label, value) : []);
  const before = clearBeforeWork(state);
  const polished = state.stepsDone.findLast((s) => s.body.gloss60_GU !== null)?.body.gloss60_GU ?? null;
  return [
    ...line("Finish", `${FINISHES[job.finish]}, ${houseWay(job.wayId).name.toLowerCase()}`),
    ...line("Clear", `${product.sheet.name}, ${state.coats.length} of ${panel.coatsPlanned} coats`),
    ...line("Clear before the work, mean", before ? film(before.mean_m, before.u_m) : null),
    ...line("Film of clear, mean", clear ? film(clear.mean_m, clear.u_spot_m) : "not measured"),
    ...line(
      "Thinnest spot read",
      clear ? `${film(clear.thinnest.clear_m, clear.thinnest.u_m)}, ${placeInWords(clear.thinnest.at, panel.shape)}` : "not measured",
    ),
    ...line("Floor kept to", `${show("film", floor_m, units).text} ${units.film}`),
    ...line("How it was found", clear ? (clear.inferred ? "inferred from the total, not measured" : "after clear less before clear") : "–"),
    ...line("Texture by eye", rated ? `${rated.body.rating.toFixed(1)} on the scale 1 glass to 5 heavy` : null),
    ...line(
      "Gloss",
      gloss
        ? `${(gloss.body.readings.reduce((a, r) => a + r.gloss_GU, 0) / gloss.body.readings.length).toFixed(0)} GU at ${gloss.body.angle}°`
        : null,
    ),
    ...line("Gloss after the last step read", polished === null ? null : `${polished.toFixed(0)} GU at 60°`),
    ...line(
      "Defects noted",
      state.defects.length
        ? state.defects.map((d) => `${d.body.count > 1 ? `${d.body.count} × ` : ""}${DEFECTS[d.body.kind].name.toLowerCase()}`).join(", ")
        : "none",
    ),
    ...forShop("What caused them", words.length ? words.join("; ") : null),
    ...line(
      "Corrected by",
      plan ? `${correctionSchool(plan.schoolId).name}, ${state.stepsDone.length} of ${plan.steps.length} steps` : "not corrected",
    ),
    ...forShop("Passes more than planned", state.extraPasses.length ? String(state.extraPasses.length) : null),
    ...line("Cut through", state.through ? "yes: stopped there, to be repainted" : null),
    ...line(
      "Taken off, forecast",
      plan ? `${film(plan.removal_m, plan.u_removal_m)}${plan.steps.some((s) => s.zone === "panel") ? "" : ", at the spots only"}` : null,
    ),
    ...forShop(
      "Verdict when planned",
      plan ? `${VERDICT_WORDS[plan.verdict].word}; cutting through ${showChance(plan.cutChance ?? NaN)}` : null,
    ),
    ...forShop(
      "Steps done",
      state.stepsDone.length ? state.stepsDone.map((s) => `${s.body.name} (${doneWords(s, units)})`).join("; ") : null,
    ),
    ...forShop(
      "Coats as logged",
      state.coats.length
        ? state.coats
            .map(({ entry: { body } }) => {
              const { fluidRate_m3_s, distance_m, handSpeed_m_s } = body.settings;
              const [fluid, far, hand] = [
                show("fluidRate", fluidRate_m3_s, units),
                show("length", distance_m, units),
                show("speed", handSpeed_m_s, units),
              ];
              return `${body.number}: ${body.role}, ${fluid.text} ${fluid.unit}, ${far.text} ${far.unit}, ${hand.text} ${hand.unit}`;
            })
            .join("; ")
        : null,
    ),
    ...line("Taken off, measured", removed.length ? removed.map((r) => `${r.name}: ${film(r.removal_m, r.u_m)}`).join("; ") : null),
    ...line(
      "No wax for",
      product.sheet.wax_s ? `${Math.round(product.sheet.wax_s / DAY_S)} days, by the product's sheet` : "60 to 90 days (common practice)",
    ),
  ];
}

/** What stands under every report. */
export const REPORT_FOOT =
  "± is one standard uncertainty at a spot. Film figures are worked out from gauge readings; they are no guarantee. Wash by hand with plenty of water for the first weeks; the product's sheet goes first.";
