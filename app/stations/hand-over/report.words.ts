import { partGloss } from "#core/panel/gloss-read";
import type { OutPoint } from "#core/record/kinds";
import { POINT_NAMES } from "./release-check.words";
import { DEFECT_KINDS } from "#core/models/defects/kinds";
import { type TakenOff, takenOff } from "#core/judge/taken-off";
import { removedAtSpots } from "#core/panel/removed-at-spots";
import { type HowKnown, isForetold } from "#core/judge/how-known";
import { CAUSES, type Cause } from "#core/models/defects/causes";
import { correctionSchool } from "#core/models/correction/schools";
import { placeInWords } from "#core/kernel/geometry/place-in-words";
import { show, showChance, showWithUncertainty, showFilm } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { FINISHES } from "#core/models/ways/terms";
import type { PanelView } from "#server/views/panel-view";
import { VERDICT_WORDS } from "~/kit/words/verdict";
import { doneWords } from "~/kit/words/zone-words";
import type { ReportLine, ReportReader } from "./report-reader";

const DAY_S = 86_400;

/** What the report says, line by line: the page and the PDF print the same. */
export function reportLines(
  { job, panel, product, state, floor_m }: PanelView,
  units: UnitPreferences,
  reader: ReportReader = "shop",
): ReportLine[] {
  const { mean, thinnest, beforeWork, inferred, how } = state.film;
  const removed = removedAtSpots(state);
  const plan = state.plan?.body;
  const foretold = isForetold(how);
  const film = (m: number, u: number) => `${showWithUncertainty("film", m, u, units).text} ${units.film}`;
  const rated = state.texture.findLast((t) => t.body.role === "part");
  const gloss = partGloss(state.gloss);
  const words = state.causes.flatMap((c) =>
    c.body.causeId ? [`${DEFECT_KINDS[c.body.kind].name.toLowerCase()}: ${(CAUSES[c.body.causeId] as Cause).name.toLowerCase()}`] : [],
  );
  const line = (label: string, value: string | null): ReportLine[] => (value === null ? [] : [{ label, value }]);
  const forShop = (label: string, value: string | null) => (reader === "shop" ? line(label, value) : []);
  const polished = state.stepsDone.findLast((s) => s.body.gloss60_GU !== null)?.body.gloss60_GU ?? null;
  return [
    ...line("Finish", `${FINISHES[job.finish]}, ${job.way.name.toLowerCase()}`),
    ...line("Clear", `${product.sheet.name}, ${coatWords(state.builds, panel.coatsPlanned)}`),
    ...line("Clear before the work, mean", beforeWork ? film(beforeWork.clear_m, beforeWork.u_m) : null),
    ...line(
      "Film of clear, mean",
      mean ? `${film(mean.clear_m, mean.u_m)}${foretold ? ", not measured on the part" : ""}` : "not measured",
    ),
    ...line(
      "Thinnest place",
      thinnest ? `${film(thinnest.clear_m, thinnest.u_m)}, ${placeInWords(thinnest.at, panel.shape)}` : "not measured",
    ),
    ...line("Minimum clear kept to", `${showFilm(floor_m, units).text} ${units.film}`),
    ...line("How it was found", how ? HOW_FOUND[inferred && !foretold ? "inferred" : how] : "–"),
    ...line("Texture by eye", rated ? `${rated.body.rating.toFixed(1)} on the scale 1 glass to 5 heavy` : null),
    ...line("Gloss", gloss && `${gloss.GU.toFixed(0)} GU at ${gloss.angle}°`),
    ...line("Gloss after the last step read", polished === null ? null : `${polished.toFixed(0)} GU at 60°`),
    ...line(
      "Defects noted",
      state.defects.length
        ? state.defects
            .map((d) => `${d.body.count > 1 ? `${d.body.count} × ` : ""}${DEFECT_KINDS[d.body.kind].name.toLowerCase()}`)
            .join(", ")
        : "none",
    ),
    ...forShop("What caused them", words.length ? words.join("; ") : null),
    ...line(
      "Corrected by",
      plan ? `${correctionSchool(plan.schoolId).name}, ${state.stepsDone.length} of ${plan.steps.length} steps` : "not corrected",
    ),
    ...forShop("Passes more than planned", state.extraPasses.length ? String(state.extraPasses.length) : null),
    ...forShop("Handed over against", pointsIn(state.handedOver?.body.against)),
    ...forShop("Not looked at before", pointsIn(state.handedOver?.body.notLooked)),
    ...line("Cut through", state.through ? "yes: stopped there, to be repainted" : null),
    ...line("Taken off, forecast", plan ? takenWords(takenOff(state), film) : null),
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

/** What the steps done took off: over the panel, and where runs and nibs were worked. */
function takenWords({ panel, place }: TakenOff, film: (m: number, u: number) => string): string {
  const said = [
    ...(panel ? [`${film(panel.removal_m, panel.u_m)} over the panel`] : []),
    ...(place ? [`${film(place.removal_m, place.u_m)} at ${panel ? "the place worked deepest" : "the places only"}`] : []),
  ];
  return said.length > 0 ? said.join("; ") : "nothing yet: none of its steps is done";
}

const HOW_FOUND: Record<HowKnown, string> = {
  measured: "after clear less before clear",
  "measured less removal": "after clear less before clear, less what was taken off since",
  "measured with coats since": "after clear less before clear, with the coats since as predicted",
  "by its neighbours": "after clear less before clear at other spots",
  inferred: "inferred from the total, not measured",
  "by a strip beside it": "on a metal strip sprayed beside it; no gauge reads on the part",
  forecast: "by forecast from the logged coats alone; no gauge reads on the part",
};

/** "2 of 2 coats"; over a sanded build: "3 coats, sanded, 2 more". */
function coatWords(builds: PanelView["state"]["builds"], planned: number): string {
  const [first, ...later] = builds.map((b) => b.coats.length);
  if (first === undefined) return `0 of ${planned} coats`;
  if (later.length === 0) return `${first} of ${planned} coats`;
  return `${first} coats${later.map((n) => `, sanded, ${n} more`).join("")}`;
}

const pointsIn = (points: readonly OutPoint[] = []): string | null =>
  points.length > 0 ? points.map((p) => POINT_NAMES[p].toLowerCase()).join(", ") : null;
