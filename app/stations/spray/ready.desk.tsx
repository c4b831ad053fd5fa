import { useState } from "react";
import { useFetcher } from "react-router";
import { dewPointMargin } from "#core/models/climate/dew-point";
import { PREFLIGHT, climateChecks, stillCounts } from "#core/models/prep/preflight";
import { show } from "#core/kernel/units/format";
import { useUnits } from "~/kit/root/use-root";
import { ClimatePanel } from "./climate-panel";
import { SprayTabs } from "./tabs";
import { ScrollRegion } from "~/kit/ui/scroll-region";
import { Tag } from "~/kit/ui/tag";
import type { Route } from "./+types/ready.route";
import { usePanel } from "~/kit/panel/use-panel";
import { useNow } from "~/kit/shell/now";
import { readySentence } from "./ready.words";
import type { FormAnswer } from "~/kit/form/answer";

/** Before the gun is filled: today's climate against what the product wants, and what only a person can look at. */
const TONES = { good: "text-glow-ink", look: "text-amber-ink", stop: "text-stop-ink" } as const;

export function ReadyDesk({ loaderData: { fromJob, log } }: Pick<Route.ComponentProps, "loaderData">) {
  const { view, base } = usePanel();
  const fetcher = useFetcher<FormAnswer>();
  const now_ms = useNow();
  const read = view.state.climate;
  const climate = read?.body ?? null;
  const checks = climate ? climateChecks(climate, view.product.sheet) : [];
  const { preflight } = view.state;
  const expired = preflight !== null && !stillCounts(preflight.at_ms, now_ms);
  // What holds for the whole job is remembered from its other panels; a tick stands for one stay in the booth.
  const kept = preflight && !expired ? preflight.body.ticks : fromJob;
  // Ticked at once; what the server holds takes over when nothing is on its way.
  const key = `${preflight?.id ?? ""} ${expired} ${fromJob.join()}`;
  const [ticks, setTicks] = useState<readonly string[]>(kept);
  const [seen, setSeen] = useState(key);
  if (seen !== key && fetcher.state === "idle") {
    setSeen(key);
    setTicks(kept);
  }
  const left = PREFLIGHT.filter((p) => !ticks.includes(p.id));
  const sentence = readySentence({ checks, read_ms: read?.at_ms ?? null, left: left.length, standing: view.standing, now_ms });
  const toggle = (id: string, on: boolean) => {
    const form = new FormData();
    form.set("intent", "preflight");
    const now = on ? [...ticks, id] : ticks.filter((x) => x !== id);
    setTicks(now);
    for (const t of now) form.append("ticks", t);
    void fetcher.submit(form, { method: "post" });
  };
  return (
    <>
      <SprayTabs base={base} />
      <h2
        className="min-h-[2.24em] max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight"
        data-testid="ready-sentence"
      >
        {sentence.before} <em className={`not-italic ${TONES[sentence.tone]}`}>{sentence.main}</em> {sentence.after}
      </h2>
      <div className="mt-4 grid gap-x-10 gap-y-8 xl:grid-cols-[1fr_1.1fr]">
        <div className="space-y-5">
          <ClimatePanel action={`${base}/spray/ready`} />
          <ul className="border-t border-hair" aria-label="Climate against the product">
            {checks.map((c) => (
              <li key={c.id} className="flex items-center justify-between gap-3 border-b border-hair py-2">
                <span>
                  {c.what}
                  <span className="block text-[13px] text-ink2">{c.why}</span>
                </span>
                <Tag kind={c.state}>{c.state === "good" ? "good" : c.state === "caution" ? "look again" : "not now"}</Tag>
              </li>
            ))}
          </ul>
          {log.length > 1 && <ClimateSoFar {...{ log }} />}
        </div>
        <ToLookAt {...{ ticks, toggle }} />
      </div>
      <p className="mt-6 max-w-[75ch] text-[13px] text-ink2">
        Never in fog, never in rain with unheated intake air. Ventilated, nothing near that can ignite, not below living rooms; the
        product&rsquo;s sheet and local rules come first.
      </p>
    </>
  );
}

/** The climate as it was logged. */
function ClimateSoFar({ log }: { log: Route.ComponentProps["loaderData"]["log"] }) {
  const units = useUnits();
  return (
    <details>
      <summary className="min-h-11 cursor-pointer content-center font-semibold">Climate so far, {log.length} times</summary>
      <ScrollRegion label="Climate so far">
        <table className="w-full text-left [&_td]:py-1 [&_td]:pr-3">
          <thead className="small-label">
            <tr>
              <th>When</th>
              <th>Air</th>
              <th>Part</th>
              <th>Material</th>
              <th>Humidity</th>
              <th>Above dew point</th>
            </tr>
          </thead>
          <tbody>
            {log.map((l) => {
              const margin = dewPointMargin({ air_K: l.air_K, part_K: l.part_K ?? l.air_K, relativeHumidity: l.relativeHumidity });
              return (
                <tr key={l.id}>
                  <td>
                    {l.at} {l.simulated && <Tag kind="simulated">simulated</Tag>}
                  </td>
                  <td>{show("temperature", l.air_K, units).text}</td>
                  <td>{show("temperature", l.part_K, units).text}</td>
                  <td>{show("temperature", l.material_K, units).text}</td>
                  <td>{show("share", l.relativeHumidity, units, 0).text} %</td>
                  <td>{show("temperatureDifference", margin.margin_K, units).text}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </ScrollRegion>
    </details>
  );
}

/** What is looked at before the gun is filled. */
function ToLookAt({ ticks, toggle }: { ticks: readonly string[]; toggle: (id: string, on: boolean) => void }) {
  return (
    <ul className="border-t border-hair" aria-label="To look at">
      {PREFLIGHT.map((p) => (
        <li key={p.id} className="border-b border-hair">
          <label className="flex min-h-11 cursor-pointer items-center gap-3 py-1.5">
            <input
              type="checkbox"
              checked={ticks.includes(p.id)}
              onChange={(e) => toggle(p.id, e.target.checked)}
              className="size-6 shrink-0 accent-[var(--glow-ink)]"
            />
            <span>
              {p.what}
              <span className="block text-[13px] text-ink2">
                {p.why}
                {p.scope === "job" && "; kept for the whole job"}
              </span>
            </span>
          </label>
        </li>
      ))}
    </ul>
  );
}
