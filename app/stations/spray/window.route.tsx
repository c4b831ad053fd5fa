import { Suspense, lazy, useMemo, useState } from "react";
import { useSearchParams } from "react-router";
import { coatsAsked } from "#core/coat/asked";
import { windowAhead } from "#core/coat/window-ahead";
import { TEXTURE_LIMITS } from "#core/models/flow/constants";
import { filmDoubt } from "#core/models/spray/film-doubt";
import { neighbourOf } from "#core/panel/neighbour";
import { serverContext } from "#server/running";
import { loadRunCalibration } from "#server/views/calibration-view";
import { panelOr404 } from "~/kit/http/panel.server";
import { usePanel } from "~/kit/panel/use-panel";
import { usePreview } from "~/kit/panel/use-preview";
import { SprayTabs } from "./tabs";
import { FlowDesk } from "./window.desk";
import type { Route } from "./+types/window.route";

/** Below the window, drawn with the page: what it needs comes with the drawings. */
const TextureRating = lazy(() => import("./window-drawings").then((m) => ({ default: m.TextureRating })));

export async function loader({ params: { jobId, panelId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const [view, calibration] = await Promise.all([panelOr404(ctx, jobId, panelId), loadRunCalibration(ctx)]);
  return { ahead: windowAhead(coatsAsked(view, ctx.now_ms())), calibration };
}

/** Whether the panel's next coat runs or peels, as it would be sprayed today. */
export default function PanelWindow({ loaderData: { ahead, calibration } }: Route.ComponentProps) {
  const [params] = useSearchParams();
  const { view, base } = usePanel();
  const { state, panel, product, job, shopFilm } = view;
  const [dry_m, setDry] = useState<number | null>(null);
  usePreview(dry_m === null ? null : { coat: { dry_m, u_m: filmDoubt([dry_m], shopFilm.u_log), name: `coat ${ahead.number}` } });
  const before = ahead.number - 1;
  const part = useMemo(() => ({ outline: panel.shape.outline, rows: panel.rows }), [panel]);
  return (
    <>
      <SprayTabs base={base} />
      <p className="small-label">
        Coat {ahead.number} of {Math.max(ahead.number, panel.coatsPlanned)}, {product.sheet.name}
        {ahead.laid === 0 && ahead.coats.length > 1 && `, coat ${before} as the way has it`}
      </p>
      <FlowDesk
        key={`${ahead.number} ${ahead.laid} ${state.gunSet?.id ?? ""} ${state.mix?.id ?? ""}`}
        sheet={product.sheet}
        start={ahead}
        coatNumber={ahead.number}
        textureLimit={TEXTURE_LIMITS[job.finish]}
        part={part}
        trigger={job.way.trigger}
        under_m={state.layers.filter((l) => l.tone !== "clear").reduce((a, l) => a + l.thickness_m, 0)}
        shop={view.shopFactors}
        u_filmLog={shopFilm.u_log}
        calibration={calibration}
        proposed={params.get("try")}
        neighbour={neighbourOf(state)?.rating ?? null}
        onDry={setDry}
      />
      <div className="mt-6">
        <Suspense>
          <TextureRating of="target" />
        </Suspense>
      </div>
    </>
  );
}
