import { DEFAULT_TAPE_M } from "#core/judge/limits";
import { usualChoice } from "#core/judge/questions";
import type { PlanQuestion } from "#core/judge/plan-for";
import { textureOf } from "#core/judge/texture";
import { openFills } from "#core/judge/zone-places";
import type { ZoneChoice } from "#core/judge/zone-setting";
import { keysOf } from "#core/kernel/keys";
import { COVERAGE } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { parseQuantity } from "#core/kernel/units/parse";
import { CORRECTION_SCHOOL_IDS } from "#core/models/correction/schools";
import { RUN_SCHOOLS, type RunSchool } from "#core/models/correction/run-work";
import { PANEL_PARTS, type PanelPart } from "#core/record/kinds";
import type { PanelView } from "#server/views/panel-view";
import { NO_RUN_SCHOOL } from "./plan-address";
import { initial } from "~/kit/form/initial";

const RUN_SCHOOL_IDS = keysOf<RunSchool>(RUN_SCHOOLS);
export const PARTS = keysOf<PanelPart>(PANEL_PARTS);

/** The fields of a plan, as texts. */
export type PlanFields = Record<keyof ReturnType<typeof planFields>, string>;

/** What the fields of a plan begin with. @param asked what the address asks for */
export function planFields(view: PanelView, units: UnitPreferences, asked: (name: string) => string | null) {
  const { texture } = textureOf(view.state);
  const usual = usualChoice(view);
  return {
    schoolId: CORRECTION_SCHOOL_IDS.find((id) => id === asked("school")) ?? usual.schoolId,
    runSchool: asked("run") === NO_RUN_SCHOOL ? "" : (RUN_SCHOOL_IDS.find((id) => id === asked("run")) ?? "block"),
    edges: "left",
    lines: "hand",
    part: PARTS.find((part) => part === asked("part")) ?? "",
    fill: asked("fill") === "yes" ? "yes" : "",
    texture: initial("film", texture.peakToValley_m, units),
    uTexture: initial("film", COVERAGE * texture.u_m, units),
    wanted: initial("film", usual.texture.wanted_m ?? 0, units),
    tape: initial("length", DEFAULT_TAPE_M, units),
  };
}

/** The ways that are chosen in the fields; what cannot be done on this panel is not. */
export const planWays = (typed: PlanFields, { state }: Pick<PanelView, "state">) => ({
  schoolId: typed.schoolId,
  runSchool: RUN_SCHOOL_IDS.find((id) => id === typed.runSchool) ?? null,
  edges: typed.edges === "hand" ? ("hand" as const) : ("left" as const),
  lines: typed.lines === "left" ? ("left" as const) : ("hand" as const),
  part: PARTS.find((p) => p === typed.part) ?? null,
  fill: typed.fill === "yes" && openFills(state).length > 0,
});

/** What the fields of a plan say; null while a figure in them is not understood. */
export function planChoice(typed: PlanFields, units: UnitPreferences, view: PanelView): ZoneChoice | null {
  const film = (text: string) => parseQuantity("film", text, units.film);
  const [texture, u, wanted] = [film(typed.texture), film(typed.uTexture), film(typed.wanted)];
  const tape = parseQuantity("length", typed.tape, units.length);
  if (!texture.ok || !u.ok || !wanted.ok || !tape.ok) return null;
  return {
    ...planWays(typed, view),
    texture: { peakToValley_m: texture.si, u_m: u.si / COVERAGE, wanted_m: wanted.si },
    tape_m: tape.si,
    floor_m: view.floor_m,
    habits: view.job.way.bench,
    shop: view.shopRemoval,
  };
}

/** The question that Correct opens with. */
export function firstPlan(view: PanelView, units: UnitPreferences): PlanQuestion | null {
  const choice = planChoice(
    planFields(view, units, () => null),
    units,
    view,
  );
  return choice && { brief: view.panel, state: view.state, choice };
}
