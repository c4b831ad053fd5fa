import { lightFormat } from "date-fns";
import { KEEPING } from "#core/models/product/container";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Container } from "#server/repos/container-repo";
import type { ShownField } from "~/kit/form/answer";
import { initial } from "~/kit/form/initial";

/** A can as its form starts, field by field. */
export const canTexts = (can: Pick<Container, "batch" | "left_m3" | "opened_ms" | "keeping">, units: UnitPreferences) => ({
  batch: can.batch,
  left: initial("volume", can.left_m3, units),
  opened: can.opened_ms === null ? "" : lightFormat(can.opened_ms, "yyyy-MM-dd"),
  keeping: can.keeping as string,
});

/** The same of what stands there now, after another window. */
export const canShown = (there: Container, units: UnitPreferences): Record<string, ShownField> => ({
  ...canTexts(there, units),
  keeping: { value: there.keeping, said: KEEPING[there.keeping].name },
});
