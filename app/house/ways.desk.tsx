import type { RunCalibration } from "#core/models/flow/run-calibration";
import type { WayEffect } from "#core/models/ways/way-effect";
import { Link } from "react-router";
import type { HouseWay } from "#core/models/ways/way";
import { FINISHES } from "#core/models/ways/terms";
import { show, showWait, showWithUncertainty } from "#core/kernel/units/format";
import { useUnits } from "~/kit/root/use-root";
import { PageHeader } from "~/kit/shell/page-header";
import { WorkingButton } from "~/kit/ui/figure";
import { ScrollRegion } from "~/kit/ui/scroll-region";
import { Tag } from "~/kit/ui/tag";
import { coatMayRun } from "~/kit/words/flow-words";
import { textureWords } from "~/kit/words/texture-words";
import { WayCompared } from "./way-compared";
import { effectWorking } from "./way.words";
import { useWayEffects, useWaySetting } from "./use-way-setting";
import type { Route } from "./+types/ways.route";

const isOwn = (w: HouseWay) => w.source === "house-way";

/** Every house way with what it comes to: the shop's own first. */
export function WaysDesk({ loaderData: { ways, usualId, products, calibration } }: Pick<Route.ComponentProps, "loaderData">) {
  const units = useUnits();
  const asked = useWaySetting(products, null);
  const { effects, fault } = useWayEffects(ways, asked.setting);
  const own = ways.filter(isOwn).length;
  const on = `${asked.sheet?.name ?? "no clear"}, a door ${asked.hangs}`;
  return (
    <>
      <PageHeader title="House ways" note="How coats are laid here; a job takes one, and may differ">
        <Link className="press" to="/house">
          Back to House
        </Link>
      </PageHeader>
      <main className="max-w-[1180px] space-y-6 px-4 py-6 sm:px-6">
        <h2 className="max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
          {own === 0
            ? `${ways.length} ways of the trade. Take one as it is, or copy it and make it yours.`
            : `${own} ${own === 1 ? "way is" : "ways are"} this shop’s own, beside those of the trade.`}
        </h2>
        <WayCompared products={products} asked={asked} />
        {fault && <p className="font-medium text-stop-ink">{fault}</p>}
        <ScrollRegion label="House ways compared">
          <table className="w-full min-w-[860px] text-left [&_td]:py-2 [&_td]:pr-3" data-testid="ways">
            <thead className="small-label border-b border-hair">
              <tr>
                <th className="py-2">Way</th>
                <th>Clear, {units.film}</th>
                <th>Looks</th>
                <th>Runs?</th>
                <th>First to last</th>
                <th>{units.volume} for a door</th>
                <th>
                  <span className="sr-only">Open it</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {ways.map((w, i) => {
                const e = effects?.[i] ?? null;
                return (
                  <tr key={w.id} className="border-b border-hair" data-way={w.id}>
                    <td className="max-w-[24em]">
                      <b className="font-semibold">{w.name}</b> {isOwn(w) && <Tag kind="good">own</Tag>}{" "}
                      {w.id === usualId && <span className="text-ink2">usual here</span>}
                      <span className="block text-[13px] text-ink2">
                        {w.coats.length} {w.coats.length === 1 ? "coat" : "coats"} · {FINISHES[w.finish].toLowerCase()}. {w.goodFor}
                      </span>
                    </td>
                    <td className="font-semibold whitespace-nowrap">
                      {e ? (
                        <WorkingButton working={effectWorking(e, on, units, calibration)} label={`${w.name}: show the working`}>
                          {showWithUncertainty("film", e.clear_m, e.u_clear_m, units).text}
                        </WorkingButton>
                      ) : (
                        <span className="block min-h-11 text-ink2">{effects ? "outside the model" : "…"}</span>
                      )}
                    </td>
                    <td>{e && textureWords(e.texture)}</td>
                    <td>{e && <RunTag of={e} calibration={calibration} />}</td>
                    <td>{e && showWait(e.sprayed_s)}</td>
                    <td>{e && show("volume", e.volume_m3, units).text}</td>
                    <td>
                      <Link className="press" to={`/house/ways/${w.id}`}>
                        {isOwn(w) ? "Change" : "Look, copy"}
                        <span className="sr-only">: {w.name}</span>
                      </Link>
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </ScrollRegion>
      </main>
    </>
  );
}

/** Nothing stands out where a run is unlikely. */
function RunTag({ of, calibration }: { of: WayEffect; calibration: RunCalibration | null }) {
  const { text, tag } = coatMayRun(of.nearRun, of, calibration);
  return tag === "good" ? text : <Tag kind={tag}>{text}</Tag>;
}
