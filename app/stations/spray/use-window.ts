import { inRange } from "#core/kernel/guard";
import { useDraft } from "~/kit/draft/use-draft";
import { useDeferredValue, useMemo } from "react";
import { cheapestChanges, flowReasons, flowVerdict, nearestSlip, zoneVerdicts } from "#core/models/flow/flow-advice";
import type { WindowAhead } from "#core/coat/window-ahead";
import { FLOW_PAIRS, type FlowSetting, movedWith, wetOf } from "#core/models/flow/flow-window";
import type { FlowCoat, ShopFactors } from "#core/models/flow/simulate-coats";
import type { ProductSheet } from "#core/models/product/sheet";
import { needleFlow } from "#core/models/spray/needle-flow";
import type { ActivatorSpeed } from "#core/models/spray/constants";
import { withTexture } from "#core/models/flow/reflection";
import { readFlow } from "./window.form";
import { initial } from "~/kit/form/initial";
import { useUnits } from "~/kit/root/use-root";
import { later as fetchedLater, useLater } from "~/kit/root/later";

/** The settings as they are typed, and what the model is asked. */
export function useWindowSettings({
  start,
  sheet,
  coatNumber,
  shop,
}: {
  start: Pick<WindowAhead, "conditions" | "coats" | "laid">;
  sheet: ProductSheet;
  coatNumber: number;
  shop: ShopFactors | undefined;
}) {
  const units = useUnits();
  const own = start.coats.at(-1)!;
  const { gun } = own;
  const { air_K, material_K, speed, reducer } = start.conditions;
  const flash_s = start.coats.at(-2)?.flash_s ?? sheet.flashMin_s;
  const draft = useDraft(
    `window ${sheet.name} ${coatNumber}`,
    {
      fluid: initial("fluidRate", gun.fluidRate_m3_s, units),
      pressure: initial("pressure", gun.pressure_Pa, units),
      distance: initial("length", gun.distance_m, units),
      speed: initial("speed", gun.handSpeed_m_s, units),
      overlap: initial("share", gun.overlap, units),
      air: initial("temperature", air_K, units),
      material: initial("temperature", material_K, units),
      reducer: initial("share", reducer, units),
      flash: initial("duration", flash_s, units),
      hardener: speed,
      pair: "0",
      /** Whether the fluid was measured before more reducer went in, or with it. */
      measured: "before",
    },
    { fluid: "fluidRate", pressure: "pressure", distance: "length", speed: "speed", air: "temperature", material: "temperature" },
  );
  // The fields follow the hand; the model, some milliseconds of work, follows the fields.
  const seen = useDeferredValue(useMemo(() => ({ typed: draft.typed, units }), [draft.typed, units]));
  const { typed } = seen;
  const hardener: ActivatorSpeed = typed.hardener === "slow" || typed.hardener === "fast" ? typed.hardener : "medium";
  const pairIndex = Number(typed.pair);
  const pair = FLOW_PAIRS[pairIndex]!;
  const parsed = useMemo(() => readFlow(seen.typed, seen.units), [seen]);
  // What is thinned flows more through the needle as it stands.
  const needle = useMemo(() => {
    if (!parsed.success) return 1;
    const { reducer: then, material, air } = parsed.data;
    return needleFlow(reducer, then, { volumeSolids: sheet.volumeSolids, material_K: material ?? air });
  }, [parsed, reducer, sheet.volumeSolids]);
  const thinner = typed.measured === "with" ? 1 : needle;
  const setting = useMemo((): FlowSetting | null => {
    if (!parsed.success) return null;
    const v = parsed.data;
    const now: FlowCoat = {
      gun: {
        ...gun,
        fluidRate_m3_s: v.fluid * thinner,
        pressure_Pa: v.pressure,
        distance_m: v.distance,
        handSpeed_m_s: v.speed,
        overlap: v.overlap,
      },
      reducer: v.reducer,
      flash_s: 0,
    };
    // What lies there stays as it is; coats before it that are to come are out of the same hand.
    const before = start.coats.slice(0, -1).map((c, i) => (i < start.laid ? c : movedWith(c, own, now)));
    return {
      conditions: { ...start.conditions, speed: hardener, air_K: v.air, material_K: v.material, reducer: v.reducer },
      coats: [...before.map((c, i) => (i === before.length - 1 ? { ...c, flash_s: v.flash } : c)), now],
      ...(shop ? { shop } : {}),
    };
  }, [parsed, thinner, gun, start, own, hardener, shop]);
  return { setting, parsed, draft, thinner, flash_s, pair, pairIndex, reducer, needle, hardener };
}

/** What comes of the settings, and what surrounds them a frame later. */
export function useWindowOutcome({
  setting,
  textureLimit,
  u_filmLog,
  neighbour,
}: {
  setting: FlowSetting | null;
  textureLimit: number;
  u_filmLog: number | undefined;
  neighbour: number | null | undefined;
}) {
  // The verdict follows the hand; what surrounds it may come a frame later.
  const worked = useMemo(
    () => setting && inRange(() => ({ verdict: flowVerdict(setting, textureLimit, u_filmLog), wet_m: wetOf(setting) })),
    [setting, textureLimit, u_filmLog],
  );
  const drawings = useLater(DRAWINGS, true);
  const later = useDeferredValue(setting);
  const around = useMemo(
    () =>
      later &&
      inRange(() => ({
        slip: nearestSlip(later, textureLimit),
        zones: zoneVerdicts(later, textureLimit),
        changes: cheapestChanges(later, textureLimit),
        reasons: flowReasons(later, flowVerdict(later, textureLimit)),
      })),
    [later, textureLimit],
  );
  const calm = useDeferredValue(worked?.verdict.result ?? null);
  const beside = useMemo(() => (calm && neighbour != null ? withTexture(calm, neighbour) : null), [calm, neighbour]);
  return { worked, around, drawings, beside, later };
}

export type WindowSettings = ReturnType<typeof useWindowSettings>;

export type WindowOutcome = ReturnType<typeof useWindowOutcome>;

/** The pictures follow the sentence and the settings. */
export const DRAWINGS = fetchedLater(() => import("./window-drawings"));
