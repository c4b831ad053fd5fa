import { useMemo } from "react";
import type { ProductSheet } from "#core/models/product/sheet";
import { SHEET_K } from "#core/models/product/sheet-air";
import type { HouseWay } from "#core/models/ways/way";
import type { WayEffect } from "#core/models/ways/way-effect";
import type { DoorSetting } from "#core/coat/door-setting";
import { useDraft } from "~/kit/draft/use-draft";
import { readTyped } from "~/kit/form/read-typed";
import { initial } from "~/kit/form/initial";
import { useUnits } from "~/kit/root/use-root";
import { useRun } from "~/kit/run/use-run";

export interface SheetChoice {
  id: string;
  sheet: ProductSheet;
}
/** Under what ways are compared: a door with one clear on one day. What is typed here is a view, no form. */
export function useWaySetting(products: readonly SheetChoice[], finish: HouseWay["finish"] | null) {
  const units = useUnits();
  const fits = products.filter((p) => finish === null || (p.sheet.kind === "matte clear") === (finish === "matte"));
  const first = (fits[0] ?? products[0])?.id ?? "";
  const draft = useDraft(
    "compared",
    { product: first, air: initial("temperature", SHEET_K, units), hangs: "upright" },
    { air: "temperature" },
  );
  const { product, hangs } = draft.typed;
  const read = useMemo(
    () => readTyped(draft.typed, units, (r) => ({ air_K: r.quantity("air", "temperature", { min: 278.15, max: 313.15 }) })),
    [draft.typed, units],
  );
  const sheet = (products.find((p) => p.id === product) ?? products.find((p) => p.id === first))?.sheet ?? null;
  const air_K = read.success ? read.data.air_K : null;
  const setting = useMemo(
    (): DoorSetting | null => (sheet && air_K !== null ? { sheet, air_K, lying: hangs === "lying" } : null),
    [sheet, air_K, hangs],
  );
  return { draft, sheet, air_K, hangs, setting, errors: read.success ? {} : read.errors };
}

/** What each of some ways comes to there, worked out beside the page. */
export function useWayEffects(ways: readonly HouseWay[] | null, setting: DoorSetting | null) {
  const question = useMemo(() => (ways && setting ? { ways, setting } : null), [ways, setting]);
  const run = useRun("flow", "wayEffects", question);
  const effects: readonly (WayEffect | null)[] | null = run.result && ways && run.result.length === ways.length ? run.result : null;
  return { effects, busy: run.busy, fault: run.fault };
}
