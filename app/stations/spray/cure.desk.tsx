import { useDraft, type Widened, type Draft } from "~/kit/draft/use-draft";
import { line as d3Line } from "d3-shape";
import { useMemo } from "react";
import { useFetcher, type FetcherWithComponents } from "react-router";
import {
  CURE_STAGES,
  PURGE_S,
  type BakePlan,
  bakeLog,
  boothAir,
  cureForecast,
  cureFromLog,
  type StageTime,
} from "#core/models/cure/bake-plan";
import { PART_LAG_S } from "#core/models/cure/cure-age";
import { SHEET_K } from "#core/models/product/sheet-air";
import { fromSi } from "#core/kernel/units/convert";
import { show, showWait } from "#core/kernel/units/format";
import { readBake } from "./bake.form";
import { initial } from "~/kit/form/initial";
import { useUnits } from "~/kit/root/use-root";
import { SprayTabs } from "./tabs";
import { StandIn } from "~/kit/shell/stand-in";
import { Toggle } from "~/kit/ui/toggle";
import { Field } from "~/kit/ui/field";
import { WorkingButton } from "~/kit/ui/figure";
import { StrikeButton } from "~/kit/shell/strike-button";
import { Tag } from "~/kit/ui/tag";
import { UnitsField } from "~/kit/ui/units-field";
import { cureSentence, cureWorking } from "./cure.words";
import { useNow } from "~/kit/shell/now";
import { usePanel } from "~/kit/panel/use-panel";
import { scaleLinear } from "~/kit/ui/linear-scale";
import { InUnits } from "~/kit/ui/in-units";
import type { FormAnswer } from "~/kit/form/answer";

/** When the clear may be taped, sanded, polished and waxed, in the air or after a bake. */
export function CureDesk() {
  const { view, base } = usePanel();
  const fetcher = useFetcher<FormAnswer>();
  const units = useUnits();
  const { sheet } = view.product;
  const { draft, errors, ready, matte, how, forecast, stages, plan } = useCurePlan();
  const now_ms = useNow();
  const standing = cureSentence(sheet, view.state, { planned: view.panel.coatsPlanned, job: view.job, now_ms });
  const field = (name: keyof typeof draft.typed, label: string, unit: string) => (
    <Field label={label} unit={unit} {...draft.field(name)} errors={errors[name]} />
  );
  return (
    <>
      <SprayTabs base={base} />
      <Heading {...{ standing, ready, matte, how }} />
      <div className="mt-2 mb-4 flex min-h-8 flex-wrap gap-2">
        {forecast?.warnings.map((w) => (
          <p key={w} className="font-medium text-amber-ink">
            <InUnits>{w}</InUnits>.
          </p>
        ))}
      </div>
      {standing && (
        <h3 className="mb-2 text-lg font-semibold">What if: {how === "bake" ? "with a bake" : "left in the air"}, from the last coat on</h3>
      )}
      <div className="grid gap-x-10 gap-y-6 xl:grid-cols-[1fr_1.1fr]">
        <div className="space-y-4">
          <Toggle
            label="How it dries"
            value={how}
            onChange={(v) => draft.set("how", v)}
            options={[
              { value: "air", name: "in the air" },
              { value: "bake", name: "bake it" },
            ]}
          />
          <div className="grid grid-cols-2 items-start gap-3 sm:grid-cols-3">
            {field("room", "Room", units.temperature)}
            {how === "bake" && (
              <>
                {field("air", "Booth air", units.temperature)}
                {field("purge", "Air before heat", "min")}
                {field("ramp", "Heating up takes", "min")}
                {field("hold", "Hold", "min")}
              </>
            )}
          </div>
          {forecast && <Stages {...{ stages }} />}
          {forecast && plan && (
            <WorkingButton working={cureWorking(forecast, plan, sheet, units)} label="Show the working of the ready times">
              <span className="font-semibold">How this was worked out</span>
            </WorkingButton>
          )}
        </div>
        {plan && how === "bake" && <Probe {...{ plan, fetcher, draft }} />}
        {how === "air" && (
          <p className="max-w-[48ch] text-ink2">
            {matte
              ? "Left in the air it keeps its gloss best; heat raises it."
              : "Sand and polish only what is hard: shaving a run wants a couple of days."}{" "}
            <Tag kind="open">Touch a hidden place first</Tag>
          </p>
        )}
      </div>
      {view.state.oven && <LoggedBake entry={view.state.oven} />}
      <p className="mt-6 max-w-[75ch] text-[13px] text-ink2">
        Fresh parts give off solvent: ventilate, nothing near that can ignite, not below living rooms. Ovens and heaters by their own rules.
      </p>
    </>
  );
}

/** How it is left to cure as it is typed, and when it will be hard. */
function useCurePlan() {
  const { view } = usePanel();
  const units = useUnits();
  const { sheet } = view.product;
  const draft = useDraft(
    "cure",
    {
      how: "air",
      room: initial("temperature", view.state.climate?.body.air_K ?? SHEET_K, units),
      air: initial("temperature", sheet.bake?.part_K ?? 333.15, units),
      purge: initial("duration", PURGE_S, units),
      ramp: initial("duration", 600, units),
      hold: initial("duration", sheet.bake?.time_s ?? 1800, units),
    },
    { room: "temperature", air: "temperature" },
  );
  const { typed } = draft;
  const how = typed.how === "bake" ? "bake" : "air";
  const parsed = useMemo(() => readBake(typed, units, how === "bake" ? sheet : null), [typed, units, how, sheet]);
  const errors: Record<string, string[]> = parsed.success ? {} : parsed.errors;
  const plan = useMemo((): BakePlan | null => {
    if (!parsed.success) return null;
    const v = parsed.data;
    return { room_K: v.room, air_K: v.air, purge_s: v.purge, ramp_s: v.ramp, hold_s: how === "bake" ? v.hold : 0 };
  }, [parsed, how]);
  const forecast = useMemo(() => (plan ? cureForecast(sheet, plan) : null), [plan, sheet]);
  const matte = view.job.finish === "matte";
  /** Matte is never worked: what follows for it is touching, and wax is none either. */
  const stages = forecast?.stages.filter((s) => !matte || s.stage === "dustFree" || s.stage === "tape") ?? [];
  const touch = stages.find((s) => s.stage === "tape" && s.at_s !== null) ?? stages.find((s) => s.at_s !== null);
  const ready = matte ? touch : stages.find((s) => s.stage === "sand");
  return { typed, draft, errors, ready, matte, how, forecast, stages, plan };
}

/** When it is hard, in a sentence. */
function Heading({
  standing,
  ready,
  matte,
  how,
}: {
  standing: { main: string; rest: string } | null;
  ready: StageTime | undefined;
  matte: boolean;
  how: string;
}) {
  return (
    <h2 className="max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight" data-testid="cure-sentence">
      {standing ? (
        <>
          {standing.main} <em className="text-glow-ink not-italic">{standing.rest}</em>
        </>
      ) : ready?.at_s ? (
        <>
          {matte ? "May be touched" : "Ready to sand"} <em className="text-glow-ink not-italic">{showWait(ready.at_s)}</em> after the last
          coat, {how === "bake" ? "with this bake" : "in the air"}.
        </>
      ) : (
        "A figure is missing or wrong; it says where."
      )}
    </h2>
  );
}

/** When it may be taped, sanded, polished, waxed. */
function Stages({ stages }: { stages: StageTime[] }) {
  return (
    <table className="w-full text-left [&_td]:py-2" data-testid="cure-stages">
      <thead className="small-label border-b border-hair">
        <tr>
          <th className="py-2">Ready to</th>
          <th>After the last coat</th>
          <th>Range</th>
        </tr>
      </thead>
      <tbody>
        {stages.map((s) => (
          <tr key={s.stage} className="border-b border-hair">
            <td className="font-semibold">{CURE_STAGES[s.stage]}</td>
            <td>{s.at_s === null ? "not on the sheet" : showWait(s.at_s)}</td>
            <td className="text-ink2">
              {s.early_s !== null && s.late_s !== null ? `${showWait(s.early_s)} to ${showWait(s.late_s)}` : ""}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** What the part did, by its probe. */
function Probe({
  plan,
  fetcher,
  draft,
}: {
  plan: BakePlan;
  fetcher: FetcherWithComponents<FormAnswer>;
  draft: Draft<Widened<{ how: string; room: string; air: string; purge: string; ramp: string; hold: string }>>;
}) {
  const { view } = usePanel();
  const { sheet } = view.product;
  const { typed } = draft;
  return (
    <div>
      <BakeChart plan={plan} sheetPart_K={sheet.bake?.part_K ?? null} logged={view.state.oven?.body.samples ?? null} />
      <StandIn>
        <fetcher.Form method="post" className="mt-2 flex flex-wrap items-center gap-3">
          <UnitsField />
          <input type="hidden" name="intent" value="oven" />
          {Object.entries(typed).map(([name, value]) => (
            <input key={name} type="hidden" name={name} value={value} />
          ))}
          <button className="press" disabled={fetcher.state !== "idle"}>
            Log this bake with the stand-in probe
          </button>
        </fetcher.Form>
      </StandIn>
    </div>
  );
}

/** What a probe on the part really saw, and how far the clear is by it. */
function LoggedBake({ entry }: { entry: NonNullable<ReturnType<typeof usePanel>["view"]["state"]["oven"]> }) {
  const { view } = usePanel();
  const units = useUnits();
  const cure = useMemo(() => cureFromLog(view.product.sheet, entry.body.samples), [view.product.sheet, entry]);
  return (
    <section className="mt-8" aria-labelledby="logged-title" data-testid="logged-bake">
      <h3 id="logged-title" className="flex flex-wrap items-center gap-3 text-lg font-semibold">
        By the probe on the part {entry.simulated && <Tag kind="simulated">simulated</Tag>}
        <StrikeButton entryId={entry.id} what="this log" />
      </h3>
      <p className="text-ink2">
        {show("temperature", cure.top_K, units, 0).text} {units.temperature} at most, {showWait(cure.atTop_s)} near it: as old as{" "}
        {showWait(cure.age_s)} <InUnits>at 20 °C.</InUnits>
      </p>
      <ul className="mt-2 flex flex-wrap gap-x-8 gap-y-1">
        {cure.stages.flatMap((s) =>
          s.at_s === null
            ? []
            : [
                <li key={s.stage}>
                  <b className="font-semibold">{CURE_STAGES[s.stage]}</b> {s.reached ? "reached after" : "from"} {showWait(s.at_s)}
                </li>,
              ],
        )}
      </ul>
    </section>
  );
}

const W = 560;

const H = 320;

const M = { left: 48, right: 70, top: 22, bottom: 40 };

/** Booth air and the part that lags it. */
function BakeChart({
  plan,
  sheetPart_K,
  logged,
}: {
  plan: BakePlan;
  sheetPart_K: number | null;
  logged: readonly { at_s: number; part_K: number }[] | null;
}) {
  const units = useUnits();
  const log = useMemo(() => bakeLog(plan, PART_LAG_S.usual), [plan]);
  const end = plan.purge_s + plan.ramp_s + plan.hold_s + 1800;
  const t = (K: number) => fromSi("temperature", K, units.temperature);
  const x = scaleLinear([0, end], [M.left, W - M.right]);
  const y = scaleLinear([t(plan.room_K - 5), t(Math.max(plan.air_K, sheetPart_K ?? 0) + 6)], [H - M.bottom, M.top]);
  const seen = log.filter((s) => s.at_s <= end);
  const lineOf = (samples: readonly (typeof seen)[number][]) =>
    d3Line<(typeof seen)[number]>(
      (s) => x(s.at_s),
      (s) => y(t(s.part_K)),
    )(samples) ?? "";
  const part = lineOf(seen);
  const air =
    d3Line<(typeof seen)[number]>(
      (s) => x(s.at_s),
      (s) => y(t(boothAir(plan, s.at_s))),
    )(seen) ?? "";
  const top = Math.max(...seen.map((s) => s.part_K));
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      className="h-auto w-full"
      role="img"
      fontSize="13"
      aria-label={`Bake: the part reaches ${show("temperature", top, units, 0).text} ${units.temperature} at most`}
    >
      {y.ticks(5).map((v) => (
        <g key={v}>
          <line x1={M.left} x2={W - M.right} y1={y(v)} y2={y(v)} stroke="var(--hair)" />
          <text x={M.left - 8} y={y(v) + 4} textAnchor="end" fill="var(--ink2)">
            {v}
          </text>
        </g>
      ))}
      {scaleLinear([0, end / 60], [0, 1])
        .ticks(6)
        .map((v) => (
          <text key={v} x={x(v * 60)} y={H - M.bottom + 20} textAnchor="middle" fill="var(--ink2)">
            {v}
          </text>
        ))}
      <text x={W - M.right} y={H - 6} textAnchor="end" fill="var(--ink2)">
        min after the last coat →
      </text>
      <text x={M.left} y={14} fill="var(--ink2)">
        ↑ {units.temperature}
      </text>
      {logged && (
        <path d={lineOf(logged.filter((q) => q.at_s <= end))} fill="none" stroke="var(--ink)" strokeWidth="1.6">
          <title>as the probe saw the part</title>
        </path>
      )}
      <path d={air} fill="none" stroke="var(--ink2)" strokeWidth="1.6" strokeDasharray="5 4" />
      <path d={part} fill="none" stroke="var(--glow-ink)" strokeWidth="2.6" />
      <text x={x(plan.purge_s + plan.ramp_s + plan.hold_s) + 6} y={y(t(plan.air_K)) - 4} fill="var(--ink2)">
        air
      </text>
      <text
        x={x(plan.purge_s + plan.ramp_s + plan.hold_s) + 30}
        y={y(t(plan.room_K + 0.55 * (plan.air_K - plan.room_K)))}
        fill="var(--glow-ink)"
        fontWeight="650"
      >
        part
      </text>
    </svg>
  );
}
