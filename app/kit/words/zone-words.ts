import type { PlanZone, ZoneKind } from "#core/judge/zone-setting";
import { CUT_GUARD_M, HAND_LEVELS, LINE_STRIP_M } from "#core/judge/limits";
import type { EntryOf } from "#core/record/entry";
import type { PlanStep } from "#core/record/bodies";
import { stepName } from "#core/models/correction/schools";
import { show, showChance, showSpan, showWithUncertainty } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Working } from "~/kit/ui/figure";
import { line, withU } from "./lines";
import { areaText } from "./area-text";

const ONE: Record<ZoneKind, string> = { run: "Run", spot: "Nib", flat: "Flat", line: "Body lines", edge: "Rim" };
const MANY: Partial<Record<ZoneKind, string>> = { run: "runs", spot: "nibs" };

/** "2 runs", "5 nibs", "Flat". */
export function zoneName({ kind, sections, elsewhere, filled }: Pick<PlanZone, "kind" | "sections" | "elsewhere" | "filled">): string {
  const many = filled ? "places" : MANY[kind];
  return `${many && sections > 1 ? `${sections} ${many}` : filled ? "Place" : ONE[kind]}${elsewhere ? " elsewhere" : ""}`;
}

/** "left under tape", "by hand", "machine, 4 sections". */
export function zoneWay({ kind, way, sections }: PlanZone): string {
  if (way === "left") return "left under tape";
  if (kind === "run") return "hard block, on the run only";
  if (kind === "spot") return "small pad, on the spot only";
  if (way === "hand") return kind === "flat" ? "block by hand" : "fingertips, fine paper";
  return `machine, ${sections} ${sections === 1 ? "section" : "sections"}`;
}

/** "P1500 → P3000 ×3 → compound → polish". */
export const chainText = ({ chain }: PlanZone): string =>
  chain.map((s) => `${stepName(s.use).replace(/ (hard|medium|soft)$/, "")}${s.passes > 1 ? ` ×${s.passes}` : ""}`).join(" → ");

/** "machine…, wet, 3 times over · 3.4 ± 0.8 µm · 12 min". */
export function stepFacts(s: PlanStep, units: UnitPreferences): string {
  const off = showWithUncertainty("film", s.removal_m, s.u_m, units);
  const told = /\b(wet|dry)\b/.test(s.tool);
  return [
    [s.tool, !told && s.wet !== null ? (s.wet ? "wet" : "dry") : null, s.passes > 1 ? `${s.passes} times over` : null]
      .filter(Boolean)
      .join(", "),
    s.removal_m > 0 ? `${off.text} ${off.unit}${s.zone === "panel" ? "" : " there"}` : null,
    s.minutes > 0 ? `${Math.max(1, Math.round(s.minutes))} min` : null,
  ]
    .filter(Boolean)
    .join(" · ");
}

/** From here on a gloss meter tells papers apart. */
const LEAST_GLOSS_GU = 4;

/** "Look for: no coarser scratch left (about 12 GU at 60°)." */
export function lookForWords({ lookFor, gloss60_GU }: Pick<PlanStep, "lookFor" | "gloss60_GU">): string {
  const gloss = gloss60_GU !== null && gloss60_GU > LEAST_GLOSS_GU ? ` (about ${Math.round(gloss60_GU)} GU at 60°)` : "";
  return `Look for: ${lookFor.charAt(0).toLowerCase()}${lookFor.slice(1)}${gloss}.`;
}

export function zoneWorking(z: PlanZone, units: UnitPreferences): Working {
  const formula: Record<ZoneKind, string> = {
    run: "The run school's own loss beside the run (how far its backing bends round it), then what the steps between and the panel's sanding steps take off there.",
    spot: "A small hard pad on the spot, then the panel's sanding steps over it. Each nib is judged at its own place where it was placed one by one.",
    flat: "The sanding steps of the method: each step goes on until the marks of the one before are gone; the first also takes the texture.",
    line: `Fine soft paper along the line, then the soft ones of the sanding steps. Fingertips follow the waves: ${100 * HAND_LEVELS} % of the texture is levelled.`,
    edge: "As along a body line where it is worked; paper bites up to half as much again at the very edge, which the verdict counts.",
  };
  return {
    title: zoneName(z),
    formula: `${formula[z.kind]} Left = there now less what comes off; uncertainties add in squares. The chance is the judge's own, of the same question as the verdict: the flat's has body lines and rim in it, a run's or nib's is of its worst place.`,
    inputs: [
      { name: "area", shown: areaText(z.area_m2, units) },
      ...(z.now ? [withU("clear there now", "film", z.now.clear_m, z.now.u_m, units)] : []),
      withU("comes off", "film", z.removal.removal_m, z.removal.u_m, units),
      ...(z.left ? [withU("left", "film", z.left.clear_m, z.left.u_m, units)] : []),
      line("guard against cutting", "film", CUT_GUARD_M, units),
      ...z.chain.map((s) => ({
        name: `${stepName(s.use)}: finds, clears`,
        shown: `${show("film", s.finds_m, units).text}, ${show("film", s.clears_m, units).text} ${units.film}`,
      })),
      ...(z.kind === "line" ? [line("strip on either side", "length", LINE_STRIP_M, units)] : []),
    ],
    sources: ["fepa-43", "common-practice", "yakamoz-default", "matern-kriging"],
    changesMost:
      z.kind === "run" ? "The backing: anything that bends bites the film beside the run." : "The coarsest paper and its backing.",
  };
}

/** Chance shown in a zone; a dash where nothing comes off or no reading tells it. */
export const zoneChance = ({ kind, way }: Pick<PlanZone, "kind" | "way">, chance: number | null): string => {
  if (chance !== null) return showChance(chance);
  return way !== "left" && (kind === "line" || kind === "edge") ? "with the flat" : "–";
};

/** What really happened in a step: time, what a mark said, gloss. */
export function doneWords({ body }: EntryOf<"step">, units: UnitPreferences): string {
  const off = showWithUncertainty("film", body.removal_m, body.u_m, units);
  return [
    body.duration_s ? `done in ${showSpan(body.duration_s)}` : "done",
    body.measured ? `${off.text} ${off.unit} with what its mark says` : null,
    body.gloss60_GU !== null ? `${Math.round(body.gloss60_GU)} GU at 60°` : null,
  ]
    .filter(Boolean)
    .join(", ");
}
