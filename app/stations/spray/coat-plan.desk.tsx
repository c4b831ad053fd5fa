import { capital } from "~/kit/words/capital";
import type { RunCalibration } from "#core/models/flow/run-calibration";
import { coatMayRun } from "~/kit/words/flow-words";
import { timesAt } from "#core/models/product/sheet";
import { textureWords } from "~/kit/words/texture-words";
import { gunSource } from "~/kit/words/gun-words";
import { DraftForm } from "~/kit/draft/draft-form";
import { useDraft, type Widened, type Draft } from "~/kit/draft/use-draft";
import { Suspense, lazy, useMemo } from "react";
import { useFetcher, type FetcherWithComponents } from "react-router";
import { nextAsked } from "#core/coat/asked";
import { handGun } from "#core/coat/next-coat";
import { MOST_CLEAR_M, UNLOGGED_AIR_K } from "#core/models/trade-limits";
import type { HouseWay } from "#core/models/ways/way";
import { COAT_ZONES } from "#core/models/ways/terms";
import { show, showFilm, showWait, showWithUncertainty, type Shown } from "#core/kernel/units/format";
import { type PlannedCoatRow, likeliestToRun } from "#core/models/ways/plan-rows";
import type { PlanRow, WayPlan } from "./coat-plan-at";
import { later, useLater } from "~/kit/root/later";
import { useUnits } from "~/kit/root/use-root";
import { SprayTabs } from "./tabs";
import { WayChoice } from "~/kit/ways/way-choice";
import { FieldErrors } from "~/kit/ui/field";
import { WorkingButton } from "~/kit/ui/figure";
import { ScrollRegion } from "~/kit/ui/scroll-region";
import { Tag } from "~/kit/ui/tag";
import { waitWords } from "~/kit/words/wait-words";
import { coatPlanWorking } from "./coat-plan.words";
import type { Route } from "./+types/coat-plan.route";
import { usePanel } from "~/kit/panel/use-panel";
import { usePreview } from "~/kit/panel/use-preview";
import { useNow } from "~/kit/shell/now";
import { InUnits } from "~/kit/ui/in-units";
import type { FormAnswer } from "~/kit/form/answer";

const HOUR_S = 3600;

const MINUTE_MS = 60_000;

const FlowCoats = lazy(() => import("./window-drawings").then((m) => ({ default: m.FlowCoats })));

/** The models, for another way than the job's own. */
const models = later(() => import("./coat-plan-at"));

const TO_COME: WayPlan = { rows: [], toCome: { dry_m: 0, u_dry_m: 0 }, fault: "Working out this way.", setting: null };

/** The coats of a house way with this gun today: film after each, and how long to wait between. */
export function CoatPlanPageDesk({ loaderData }: Pick<Route.ComponentProps, "loaderData">) {
  const { view, base } = usePanel();
  const units = useUnits();
  const fetcher = useFetcher<FormAnswer>();
  const { job, panel, product, state, shopFactors } = view;
  const { sheet } = product;
  const draft = useDraft("way", { wayId: job.way.id }, {}, loaderData.version);
  const { plan, toCome, end, coats, hand, air_K, ways, way, own } = useWayPlan({ loaderData, draft });
  const { dry_m, u_dry_m } = plan.toCome;
  usePreview(
    dry_m > 0
      ? { coat: { dry_m, u_m: u_dry_m, name: toCome.length === 1 ? `coat ${toCome[0]!.number}` : `${toCome.length} coats` } }
      : null,
  );
  const total = end && showWithUncertainty("film", end.clear_m, end.u_clear_m, units);
  const worst = likeliestToRun(toCome);
  const { calibration } = loaderData;
  const danger = worst && coatMayRun(worst.number, worst, calibration);
  const setting = useMemo(
    () => plan.setting && { conditions: plan.setting.conditions, coats: plan.setting.build.slice(0, 3), shop: shopFactors },
    [plan.setting, shopFactors],
  );
  const part = useMemo(() => ({ outline: panel.shape.outline, rows: panel.rows }), [panel]);
  const under_m = state.layers.filter((l) => l.tone !== "clear").reduce((a, l) => a + l.thickness_m, 0);
  return (
    <>
      <SprayTabs base={base} />
      <Heading {...{ plan, total, coats, danger }} />
      {end && end.clear_m > MOST_CLEAR_M && (
        <p className="mb-1 font-medium text-amber-ink" data-testid="too-much-clear">
          More than {showFilm(MOST_CLEAR_M, units).text} {units.film} of clear in all: solvent stays in it.
        </p>
      )}
      <p className="text-ink2">
        With {gunSource(hand)}, {show("temperature", air_K, units).text} {units.temperature}, {sheet.name}.
      </p>
      <CoatsTable {...{ plan, loaderData }} />
      <div className="mt-2 flex flex-wrap items-center gap-3">
        {end && (
          <WorkingButton working={coatPlanWorking(plan.rows, sheet, units)} label="Show the working of the coat plan">
            <span className="font-semibold">How this was worked out</span>
          </WorkingButton>
        )}
        <span className="text-ink2">
          Sheet: {show("film", sheet.filmPerCoatMin_m, units).text} to {show("film", sheet.filmPerCoatMax_m, units).text} {units.film} a
          coat
        </span>
      </div>
      <Ways {...{ ways, way, draft, fetcher, own, coats }} />
      {setting && setting.coats.length > 0 && sheet.kind !== "matte clear" && (
        <Suspense>
          <FlowCoats
            setting={setting}
            part={part}
            trigger={way.trigger}
            under_m={under_m}
            sandAfter_h={sheet.sandAfter_s / HOUR_S}
            flash_s={timesAt(sheet, air_K).flashMin_s}
            u_filmLog={view.shopFilm.u_log}
          />
        </Suspense>
      )}
      <p className="mt-6 max-w-[75ch] text-[13px] text-ink2">
        Windows are the sheet&rsquo;s at this temperature; {showWait(sheet.flashMin_s)} <InUnits>at 20 °C.</InUnits> Too soon is the
        commonest fault. The run figure is a model set to common practice: a test panel decides.
      </p>
    </>
  );
}

/** The coats of the plan. */
function CoatsTable({ plan, loaderData }: { plan: WayPlan; loaderData: Route.ComponentProps["loaderData"] }) {
  const units = useUnits();
  const { calibration } = loaderData;
  return (
    <ScrollRegion label="Coats of the plan" className="mt-4">
      <table className="w-full text-left [&_td]:py-2 [&_td]:pr-3" data-testid="coat-plan">
        <thead className="small-label border-b border-hair">
          <tr>
            <th className="py-2">Coat</th>
            <th>Wet, {units.film}</th>
            <th>Dry, {units.film}</th>
            <th>Clear then, {units.film}</th>
            <th>Looks</th>
            <th>Then wait</th>
          </tr>
        </thead>
        <tbody>
          {plan.rows.map((r) => (
            <CoatRow key={r.number} {...{ r, calibration }} />
          ))}
        </tbody>
      </table>
    </ScrollRegion>
  );
}

/** The way that is looked at, with its coats. */
function useWayPlan({ loaderData, draft }: { loaderData: Route.ComponentProps["loaderData"]; draft: Draft<Widened<{ wayId: string }>> }) {
  const { view } = usePanel();
  const { job, panel, state } = view;
  const { wayId } = draft.typed;
  const ways = useMemo(() => [job.way, ...loaderData.ways.filter((w) => w.id !== job.way.id)], [job.way, loaderData.ways]);
  const way = ways.find((w) => w.id === wayId) ?? job.way;
  const own = way.id === job.way.id;
  const coats = own ? panel.coatsPlanned : way.coats.length;
  const air_K = state.climate?.body.air_K ?? UNLOGGED_AIR_K;
  const hand = useMemo(() => handGun(nextAsked(view)), [view]);
  const part = useLater(models, !own, true);
  const now_ms = Math.floor(useNow() / MINUTE_MS) * MINUTE_MS;
  const other = useMemo(() => (own ? null : (part?.wayPlan(view, way, now_ms) ?? null)), [own, part, view, way, now_ms]);
  const plan = own ? loaderData.plan : (other ?? TO_COME);
  const end = plan.rows.at(-1);
  const toCome = plan.rows.flatMap((r) => (r.ahead ? [{ ...r, ...r.ahead }] : []));
  return { plan, toCome, end, coats, hand, air_K, ways, way, own };
}

/** What the coats come to, in a sentence. */
function Heading({
  plan,
  total,
  coats,
  danger,
}: {
  plan: WayPlan;
  total: Shown | undefined;
  coats: number;
  danger: { text: string; tag: "good" | "caution" | "stop" } | null;
}) {
  return (
    <h2
      className="min-h-[2.24em] max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight"
      data-testid="coat-plan-sentence"
    >
      {plan.fault ? (
        plan.fault
      ) : total ? (
        <>
          {coats} {coats === 1 ? "coat lays" : "coats lay"}{" "}
          <em className="text-glow-ink not-italic">
            {total.text} {total.unit}
          </em>{" "}
          of clear.{" "}
          {!danger || danger.tag === "good" ? (
            "None is likely to run."
          ) : (
            <em className={`not-italic ${danger.tag === "stop" ? "text-stop-ink" : "text-amber-ink"}`}>
              {capital(danger.text)} at an edge.
            </em>
          )}
        </>
      ) : null}
    </h2>
  );
}

/** A coat of the plan with its wait. */
function CoatRow({ r, calibration }: { r: PlanRow; calibration: RunCalibration | null }) {
  const units = useUnits();
  return (
    <tr className="border-b border-hair">
      <td>
        <b className="font-semibold">{r.number}</b> {r.role}
        <span className="block text-[13px] text-ink2">
          {show("speed", r.gun.handSpeed_m_s, units).text} {show("speed", 0, units).unit}
        </span>
      </td>
      <td>{showFilm(r.wet_m, units).text}</td>
      <td>{r.zone === "whole" ? showWithUncertainty("film", r.dry_m, r.u_dry_m, units).text : COAT_ZONES[r.zone]}</td>
      <td className="font-semibold">{showWithUncertainty("film", r.clear_m, r.u_clear_m, units).text}</td>
      <td>
        {r.ahead ? textureWords(r.ahead.texture) : "on"}
        {r.ahead && <RunTag row={{ ...r, ...r.ahead }} calibration={calibration} />}
      </td>
      <td>
        {r.ahead?.wait ? (
          <>
            {waitWords(r.ahead.wait).main}
            <span className="block text-[13px] text-ink2">{waitWords(r.ahead.wait).note}</span>
          </>
        ) : r.ahead ? (
          "last coat"
        ) : (
          ""
        )}
      </td>
    </tr>
  );
}

/** The ways side by side. */
function Ways({
  ways,
  way,
  draft,
  fetcher,
  own,
  coats,
}: {
  ways: HouseWay[];
  way: HouseWay;
  draft: Draft<Widened<{ wayId: string }>>;
  fetcher: FetcherWithComponents<FormAnswer>;
  own: boolean;
  coats: number;
}) {
  return (
    <section className="mt-8" aria-labelledby="ways-title">
      <h3 id="ways-title" className="mb-2 text-lg font-semibold">
        House way
      </h3>
      <WayChoice ways={ways} value={way.id} onChange={(id) => draft.set("wayId", id)} />
      <DraftForm draft={draft} fetcher={fetcher} className="mt-3">
        <input type="hidden" name="intent" value="way" />
        <input type="hidden" name="wayId" value={way.id} />
        <button className="press" disabled={own || fetcher.state !== "idle"}>
          {own ? "This job's way" : `Spray this job so: ${coats} coats`}
        </button>
        <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
      </DraftForm>
    </section>
  );
}

/** Nothing stands out where a run is unlikely. */
function RunTag({
  row,
  calibration,
}: {
  row: Pick<PlannedCoatRow, "number" | "runChance" | "sagLocal_m">;
  calibration: RunCalibration | null;
}) {
  const { text, tag } = coatMayRun(row.number, row, calibration);
  if (tag === "good") return null;
  return (
    <span className="block">
      <Tag kind={tag}>{text}</Tag>
    </span>
  );
}
