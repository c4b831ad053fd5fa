import { useCallback, useMemo } from "react";
import { TEXTURE_LIMITS } from "#core/models/flow/flow-advice";
import type { FlowCoat } from "#core/models/flow/simulate-coats";
import { polygonArea } from "#core/kernel/geometry/geometry";
import { SHEET_K, flashPoints } from "#core/models/product/sheet";
import { timeAtTemperature } from "#core/models/product/time-at-temperature";
import { FlowDesk } from "./window.desk";
import { nextCoat } from "#core/panel/next-coat";
import { houseWay } from "#core/models/ways/house-ways";
import { TextureRating } from "~/kit/panel/texture-rating";
import { SprayTabs } from "./tabs";
import { usePanel } from "~/kit/panel/use-panel";

const MS = 1000;

export default function PanelWindow() {
  const { view, base, setPreview } = usePanel();
  const { state, panel, product, job } = view;
  const { sheet } = product;
  const climate = state.climate?.body;
  const air_K = climate?.air_K ?? SHEET_K;
  const flash_s = timeAtTemperature(flashPoints(sheet), air_K).time_s;
  const laid = useMemo(
    () =>
      state.coats.map(({ entry }, i): FlowCoat => {
        const next = state.coats[i + 1];
        return { gun: entry.body.settings, flash_s: next ? Math.max(0, (next.entry.at_ms - entry.at_ms) / MS) : flash_s };
      }),
    [state.coats, flash_s],
  );
  const coatNumber = laid.length > 0 ? laid.length + 1 : Math.min(2, panel.coatsPlanned);
  const under_m = state.layers.filter((l) => l.tone !== "clear").reduce((a, l) => a + l.thickness_m, 0);
  const onDry = useCallback(
    (dry_m: number | null) => setPreview(dry_m === null ? {} : { coat: { dry_m, u_m: 0.3 * dry_m, name: `coat ${coatNumber}` } }),
    [setPreview, coatNumber],
  );
  return (
    <>
      <SprayTabs base={base} />
      <p className="small-label">
        Coat {coatNumber} of {panel.coatsPlanned}, {sheet.name}
        {laid.length === 0 && coatNumber > 1 && ", coat 1 taken as the same"}
      </p>
      <FlowDesk
        key={`${laid.length} ${state.gunSet?.id ?? ""}`}
        sheet={sheet}
        gun={nextCoat(state, houseWay(job.wayId), view.panel).settings}
        laid={laid}
        coatNumber={coatNumber}
        air_K={air_K}
        material_K={climate?.material_K ?? null}
        reducer={state.coats.at(-1)?.entry.body.reducer ?? sheet.reducerMin}
        flash_s={flash_s}
        tilt_rad={panel.tilt_rad}
        textureLimit={TEXTURE_LIMITS[job.finish]}
        area_m2={polygonArea(panel.shape.outline)}
        under_m={under_m}
        shop={view.shopFactors}
        neighbour={state.texture.findLast((t) => t.body.role === "target")?.body.rating ?? null}
        onDry={onDry}
      />
      <div className="mt-6">
        <TextureRating of="target" />
      </div>
    </>
  );
}
