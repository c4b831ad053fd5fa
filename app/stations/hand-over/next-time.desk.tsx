import { More } from "~/kit/ui/more";
import { yearDayText } from "~/kit/words/when";
import { Link, useFetcher } from "react-router";
import { CAUSES, type Cause } from "#core/models/defects/causes";
import { CALIBRATED_FROM, enoughResults } from "#core/models/flow/run-calibration";
import { runChance, sagAtEdge } from "#core/models/flow/run-chance";
import { brier, reliability } from "#core/kernel/stats/reliability";
import { type SprayedPanel, lastGood, repeatedCauses, toldPanels } from "#core/panel/next-time";
import { show, showFilm } from "#core/kernel/units/format";
import type { Quantity } from "#core/kernel/units/quantities";
import type { FormAnswer } from "~/kit/form/answer";
import { useUnits } from "~/kit/root/use-root";
import { usePanel } from "~/kit/panel/use-panel";
import { SettingsChart } from "./settings-chart";
import { InUnits } from "~/kit/ui/in-units";

/** What to set next time: settings against results of the shop's own jobs, the last good ones, causes that came back. */
export function NextTimeDesk({ panels }: { panels: readonly SprayedPanel[] }) {
  const { view, base } = usePanel();
  const units = useUnits();
  const { product, state } = view;
  const air_K = state.climate?.body.air_K ?? null;
  const own = panels.filter((p) => p.productId === product.id);
  const near = lastGood(panels, product.id, air_K);
  const good = near ?? lastGood(panels, product.id, null);
  const repeated = repeatedCauses(panels);
  const value = (q: Quantity, si: number) => `${show(q, si, units).text}\u00a0${show(q, si, units).unit}`;
  return (
    <>
      <h2 className="max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
        {good ? (
          <>
            {product.sheet.name} last came out well{air_K !== null && near ? ` near ${value("temperature", air_K)}` : ""} on the{" "}
            <em className="text-glow-ink not-italic">{good.what}.</em>
          </>
        ) : (
          `${product.sheet.name} has not come out well here yet: nothing to start from.`
        )}
      </h2>
      {good && (
        <div className="mt-4 flex flex-wrap items-center gap-x-8 gap-y-3">
          <dl className="flex flex-wrap gap-x-8 gap-y-2 [&_dd]:text-[21px] [&_dd]:font-semibold [&_dt]:text-[13px] [&_dt]:text-ink2">
            <Item label="distance" value={value("length", good.settings.distance_m)} />
            <Item label="hand" value={value("speed", good.settings.handSpeed_m_s)} />
            <Item label="fluid" value={value("fluidRate", good.settings.fluidRate_m3_s)} />
            <Item label="at the gun" value={value("pressure", good.settings.pressure_Pa)} />
            <Item label="overlap" value={`${Math.round(100 * good.settings.overlap)} %`} />
            <Item label="wet" value={`${showFilm(good.wet_m, units).text} ${units.film}`} />
            <Item label="air" value={good.air_K === null ? "not logged" : value("temperature", good.air_K)} />
            <Item label="on" value={yearDayText(good.at_ms)} />
          </dl>
          <TakeOver panelId={good.panelId} />
        </div>
      )}
      <section className="mt-7" aria-labelledby="chart-title">
        <h3 id="chart-title" className="text-lg font-semibold">
          Settings and results, {product.sheet.name}
        </h3>
        {own.length > 0 ? (
          <SettingsChart panels={own} here_K={air_K} />
        ) : (
          <p className="text-ink2">No panel has been sprayed with it yet.</p>
        )}
      </section>
      <section className="mt-6" aria-labelledby="again-title">
        <h3 id="again-title" className="text-lg font-semibold">
          What keeps coming back
        </h3>
        {repeated.length > 0 ? (
          <ul className="border-t border-hair">
            {repeated.map((r) => (
              <li key={r.id} className="border-b border-hair py-2">
                <b className="font-semibold">{(CAUSES[r.id] as Cause).name}</b> <span className="text-ink2">{r.times} times.</span>{" "}
                <InUnits>{(CAUSES[r.id] as Cause).change}</InUnits>.
              </li>
            ))}
          </ul>
        ) : (
          <p className="text-ink2">No cause has been settled twice yet. The final word is given under Causes.</p>
        )}
      </section>
      <Calibrated panels={panels} />
      <p className="mt-6">
        <Link to={`${base}/hand-over`} className="press">
          Back to the report
        </Link>
      </p>
    </>
  );
}

/** What was said of a run before the coat, and what came of it, by tenths; how far the shop's own percentage is. */
function Calibrated({ panels }: { panels: readonly SprayedPanel[] }) {
  const told = toldPanels(panels);
  const said = told.map((t) => ({ probability: runChance(sagAtEdge(t.sagLocal_m)), right: t.ran }));
  const peel = told.map((t) => ({ probability: t.peelChance, right: t.peeled }));
  const ran = told.filter((t) => t.ran).length;
  const { logs, ofEach } = CALIBRATED_FROM;
  const enough = enoughResults(told);
  return (
    <section className="mt-6" aria-labelledby="said-title" data-testid="reliability">
      <h3 id="said-title" className="text-lg font-semibold">
        What was said of runs, and what came of it
      </h3>
      <More
        label={told.length === 0 ? "No result told yet" : `${told.length} ${told.length === 1 ? "result" : "results"} told, ${ran} ran`}
      >
        <p className="max-w-[70ch] text-ink2">
          {told.length === 0
            ? "No result has been told yet: one tap on Hand over tells it."
            : `${told.length} ${told.length === 1 ? "result" : "results"} told: ${ran} ran, ${told.filter((t) => t.peeled).length} peeled. Brier score ${brier(said).toFixed(2)} for runs, ${brier(peel).toFixed(2)} for peel; 0 is always right, 0.25 a coin.`}{" "}
          {enough
            ? "Enough: a run's chance is told as this shop's own percentage."
            : `A percentage takes the place of the word from ${logs} results on, ${ofEach} runs and ${ofEach} without among them.`}
        </p>
      </More>
      {said.length > 0 && (
        <table className="mt-2 text-left [&_td]:py-1 [&_td]:pr-6">
          <thead className="small-label border-b border-hair">
            <tr>
              <th className="pr-6">Said, before any tuning</th>
              <th className="pr-6">Panels</th>
              <th>Ran</th>
            </tr>
          </thead>
          <tbody>
            {reliability(said).map((t) => (
              <tr key={t.from} className="border-b border-hair">
                <td>
                  {Math.round(100 * t.from)} to {Math.round(100 * t.from) + 10} in 100
                </td>
                <td>{t.n}</td>
                <td>{Math.round(t.right * t.n)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

const Item = ({ label, value }: { label: string; value: string }) => (
  <div>
    <dt>{label}</dt>
    <dd>{value}</dd>
  </div>
);

function TakeOver({ panelId }: { panelId: string }) {
  const fetcher = useFetcher<FormAnswer>();
  return (
    <fetcher.Form method="post">
      <input type="hidden" name="panelId" value={panelId} />
      <button className="press" data-kind="main" disabled={fetcher.state !== "idle"}>
        Use for the next coat
      </button>
    </fetcher.Form>
  );
}
