import { useCallback, useMemo } from "react";
import { useSearchParams } from "react-router";
import { TEXTURE_LIMITS } from "#core/models/flow/constants";
import type { FlowCoat } from "#core/models/flow/simulate-coats";
import { wetBuild } from "#core/panel/wet-build";
import { tiltOf } from "#core/panel/logged-setting";
import { SHEET_K, flashLeastAt } from "#core/models/product/sheet";
import { FlowDesk } from "./window.desk";
import { coatsOn, nextCoat } from "#core/panel/next-coat";
import { TextureRating } from "~/kit/panel/texture-rating";
import { SprayTabs } from "./tabs";
import { serverContext } from "#server/running";
import { loadRunCalibration } from "#server/views/calibration-view";
import type { Route } from "./+types/window.route";
import { neighbourOf } from "#core/panel/neighbour";
import { usePanel } from "~/kit/panel/use-panel";

const MS = 1000;

export async function loader() {
  return { calibration: await loadRunCalibration(await serverContext()) };
}

export default function PanelWindow({ loaderData: { calibration } }: Route.ComponentProps) {
  const [params] = useSearchParams();
  const { view, base, setPreview } = usePanel();
  const { state, panel, product, job } = view;
  const { sheet } = product;
  const climate = state.climate?.body;
  const air_K = climate?.air_K ?? SHEET_K;
  const flash_s = flashLeastAt(sheet, air_K).time_s;
  const coat = nextCoat(state, job.way, panel);
  const below = wetBuild(state, coat.side);
  const laid = useMemo(
    () =>
      below.map(({ entry }, i): FlowCoat => {
        const next = below[i + 1];
        return { gun: entry.body.settings, flash_s: next ? Math.max(0, (next.entry.at_ms - entry.at_ms) / MS) : flash_s };
      }),
    [below, flash_s],
  );
  // Before anything is sprayed the second coat is the one that may run: the first is taken as the same.
  const first = coatsOn(state) === 0;
  const coatNumber = first ? Math.min(2, panel.coatsPlanned) : coat.number;
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
        {first && coatNumber > 1 && ", coat 1 taken as the same"}
      </p>
      <FlowDesk
        key={`${coat.loggedAs} ${state.gunSet?.id ?? ""}`}
        sheet={sheet}
        gun={coat.settings}
        laid={laid}
        coatNumber={coatNumber}
        first={first}
        air_K={air_K}
        material_K={climate?.material_K ?? null}
        reducer={state.coats.at(-1)?.entry.body.reducer ?? sheet.reducerMin}
        flash_s={flash_s}
        tilt_rad={tiltOf(state, panel)}
        textureLimit={TEXTURE_LIMITS[job.finish]}
        outline={panel.shape.outline}
        trigger={job.way.trigger}
        under_m={under_m}
        shop={view.shopFactors}
        u_filmLog={view.shopFilm.u_log}
        calibration={calibration}
        proposed={params.get("try")}
        neighbour={neighbourOf(state)?.rating ?? null}
        onDry={onDry}
      />
      <div className="mt-6">
        <TextureRating of="target" />
      </div>
    </>
  );
}
