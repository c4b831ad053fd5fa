import { showTimeOfDay } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { BoothRules } from "#server/repos/booth-plan-repo";
import type { ShownField } from "~/kit/form/answer";
import { initial } from "~/kit/form/initial";

const MS = 1000;

/** The rules as the form starts, field by field: what it shows, and what it is told of rules that another window has set. */
export function rulesTexts(
  { start_ms, rules }: Pick<BoothRules, "start_ms" | "rules">,
  midnight_ms: number,
  units: UnitPreferences,
): Record<"start" | "end" | "painters" | "places" | "mix" | "pots" | "carry", string> {
  const clock = (ms: number) => showTimeOfDay((ms - midnight_ms) / MS);
  return {
    start: clock(start_ms),
    end: rules.end_ms === null ? "" : clock(rules.end_ms),
    painters: String(rules.painters),
    places: String(rules.places),
    mix: initial("duration", rules.mix_s, units),
    pots: rules.potsMost === null ? "" : String(rules.potsMost),
    carry: initial("duration", rules.carryOut_s, units),
  };
}

/** The same of what stands there now, with the parts as the form names them; a part it has beyond them is named under the parts. */
export function rulesShown(there: BoothRules, midnight_ms: number, units: UnitPreferences): Record<string, ShownField> {
  const parts = there.parts.flatMap((p): [string, ShownField][] => [
    [`sides-${p.panelId}`, String(p.sides)],
    [`group-${p.panelId}`, { value: p.group ?? "", said: p.group ?? "none" }],
    [`spray-${p.panelId}`, initial("duration", p.spray_s, units)],
  ]);
  return { ...rulesTexts(there, midnight_ms, units), ...Object.fromEntries(parts) };
}
