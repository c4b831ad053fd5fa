import { type WindowOutcome, type WindowSettings, useWindowOutcome, useWindowSettings } from "./use-window";
import { Suspense, lazy, useEffect } from "react";
import { FLOW_CHANGES } from "#core/models/flow/flow-advice";
import type { WindowAhead } from "#core/coat/window-ahead";
import type { PartOver } from "#core/models/spray/coat-over";
import type { Trigger } from "#core/models/spray/trigger";
import { type FlowAxis, type FlowSetting, moveSetting, settingAt, wetOf } from "#core/models/flow/flow-window";
import type { ShopFactors } from "#core/models/flow/simulate-coats";
import type { ProductSheet } from "#core/models/product/sheet";
import type { RunCalibration } from "#core/models/flow/run-calibration";
import { chanceWord } from "#core/models/flow/run-chance";
import { preferredUnit } from "#core/kernel/units/quantities";
import type { FlowTyped } from "./window.form";
import { initial } from "~/kit/form/initial";
import { useUnits } from "~/kit/root/use-root";
import { Toggle } from "~/kit/ui/toggle";
import { Field } from "~/kit/ui/field";
import { CHANCE_OF, runTold, flowSentence } from "~/kit/words/flow-words";
import { InUnits } from "~/kit/ui/in-units";

/** Drawn with the page; what moves it comes after. */
const Outcome = lazy(() => import("./window-outcome").then((m) => ({ default: m.Outcome })));

const PAIR_NAMES = ["Distance × speed", "Air × wet film", "Pressure × fluid", "Flash × wet film"] as const;

interface FlowDeskProps {
  sheet: ProductSheet;
  /** The coat as it would be sprayed: what the fields begin with. */
  start: Pick<WindowAhead, "conditions" | "coats" | "laid">;
  coatNumber: number;
  textureLimit: number;
  part: PartOver;
  trigger?: Trigger;
  under_m: number;
  /** The shop's own factors; none where nobody's shop is asked. */
  shop?: ShopFactors;
  /** Doubt of the film laid, in logarithms: the shop's own once it is learnt. */
  u_filmLog?: number;
  /** The shop's own chance of a run; null: not enough results yet. */
  calibration?: RunCalibration | null;
  /** A small change that a cause asks for, by its id. */
  proposed?: string | null;
  /** Texture of the neighbour or the target on the scale 1 … 5, as rated; null: not rated. */
  neighbour?: number | null;
  onDry?: (dry_m: number | null) => void;
}

/** Whether a coat will flow, peel or run; the window around it, what a slip does, what widens the margin, and what a flow coat would do. */
export function FlowDesk({
  sheet,
  start,
  coatNumber,
  textureLimit,
  part,
  trigger = "released",
  under_m,
  shop,
  u_filmLog,
  calibration = null,
  proposed = null,
  neighbour,
  onDry,
}: FlowDeskProps) {
  const units = useUnits();
  const settings = useWindowSettings({ start, sheet, coatNumber, shop });
  const { setting, parsed, draft, thinner, flash_s, pair, hardener } = settings;
  const outcome = useWindowOutcome({ setting, textureLimit, u_filmLog, neighbour });
  const { worked, around, beside, drawings, later } = outcome;
  const dry_m = worked ? worked.verdict.result.coats.at(-1)!.deposit.dry_m : null;
  useEffect(() => onDry?.(dry_m), [dry_m, onDry]);
  const proposal = FLOW_CHANGES.find((c) => c.id === proposed);
  const runs = worked && runTold({ chance: worked.verdict.runChance, sagLocal_m: worked.verdict.result.sagLocal_m }, calibration);
  const peels = worked && CHANCE_OF.peel[chanceWord(worked.verdict.peelChance)];
  const errors: Record<string, string[]> = parsed.success ? {} : parsed.errors;

  /** Takes a moved setting back into what is typed. */
  const take = (s: FlowSetting) => {
    const last = s.coats.at(-1)!.gun;
    draft.set("fluid", initial("fluidRate", last.fluidRate_m3_s / thinner, units));
    draft.set("pressure", initial("pressure", last.pressure_Pa, units));
    draft.set("distance", initial("length", last.distance_m, units));
    draft.set("speed", initial("speed", last.handSpeed_m_s, units));
    draft.set("air", initial("temperature", s.conditions.air_K, units));
    draft.set("flash", initial("duration", s.coats.at(-2)?.flash_s ?? flash_s, units));
    draft.set("hardener", s.conditions.speed);
  };
  const move = (p: { x: number; y: number }) => {
    if (!setting) return;
    const [first, second] = pair.x === ("wet" as FlowAxis) ? (["y", "x"] as const) : (["x", "y"] as const);
    const half = moveSetting(setting, pair[first], p[first], wetOf(setting));
    take(moveSetting(half, pair[second], p[second], wetOf(half)));
  };
  const field = (name: keyof FlowTyped, label: string, unit: string) => (
    <Field label={label} unit={unit} {...draft.field(name)} errors={errors[name]} />
  );
  const sentence = worked && flowSentence(worked.verdict, around?.slip ?? null);
  const point = setting && worked && { x: settingAt(setting, pair.x, worked.wet_m), y: settingAt(setting, pair.y, worked.wet_m) };
  const tone = worked?.verdict.class === "runs" ? "text-stop-ink" : worked?.verdict.class === "flows" ? "text-glow-ink" : "text-amber-ink";
  return (
    <>
      <Heading {...{ worked, sentence, tone }} />
      <div className="mt-3 grid gap-x-8 gap-y-6 xl:grid-cols-[1.45fr_1fr]">
        <Around {...{ settings, outcome, point, textureLimit, move, proposal, take, sheet }} />
        <Suspense fallback={<div className="min-h-80" />}>
          <Outcome {...{ worked, beside, textureLimit, u_filmLog, runs, peels, around }} />
        </Suspense>
      </div>
      <Settings {...{ field, start, hardener, draft }} />
      <FlowCoatsBelow {...{ drawings, later, around, sheet, part, trigger, under_m, flash_s, u_filmLog }} />
      <p className="mt-6 max-w-[75ch] text-[13px] text-ink2">
        A model, not measured on your gun: trust the test panel more. Supplied air, or what the safety data sheet and your local rules ask
        for.
      </p>
    </>
  );
}

/** What would come of it, in a sentence. */
function Heading({
  worked,
  sentence,
  tone,
}: {
  worked: WindowOutcome["worked"];
  sentence: { lead: string; rest: string } | null;
  tone: "text-stop-ink" | "text-glow-ink" | "text-amber-ink";
}) {
  return (
    <h2
      className="min-h-[2.24em] max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight"
      data-testid="flow-sentence"
      data-class={worked?.verdict.class}
    >
      {sentence ? (
        <>
          <em className={`not-italic ${tone}`}>{sentence.lead}</em> <InUnits>{sentence.rest}</InUnits>
        </>
      ) : (
        "A figure is missing or wrong; it says where."
      )}
    </h2>
  );
}

interface AroundProps {
  settings: WindowSettings;
  outcome: WindowOutcome;
  point: { x: number; y: number } | null;
  textureLimit: number;
  move: (p: { x: number; y: number }) => void;
  proposal: (typeof FLOW_CHANGES)[number] | undefined;
  take: (s: FlowSetting) => void;
  sheet: ProductSheet;
}

/** The window around the settings, and what gives more margin. */
function Around({ settings, outcome, point, textureLimit, move, proposal, take, sheet }: AroundProps) {
  const { pairIndex, draft, setting, pair, parsed, reducer, needle } = settings;
  const { drawings, around } = outcome;
  return (
    <div>
      <Toggle
        label="What the window shows"
        value={String(pairIndex)}
        onChange={(v) => draft.set("pair", v)}
        options={PAIR_NAMES.map((name, i) => ({ value: String(i), name }))}
      />
      {point && (
        <div className="mt-2 aspect-[560/440]">
          {drawings && (
            <drawings.SweptMap setting={setting} xAxis={pair.x} yAxis={pair.y} point={point} textureLimit={textureLimit} onMove={move} />
          )}
        </div>
      )}
      {drawings && proposal && setting && <drawings.Proposal {...{ setting, proposal, take }} />}
      {drawings && parsed.success && Math.abs(parsed.data.reducer - reducer) > 1e-9 && (
        <drawings.Thinner
          fluid_m3_s={parsed.data.fluid}
          needle={needle}
          measured={draft.typed.measured}
          onMeasured={(v) => draft.set("measured", v)}
        />
      )}
      {parsed.success && parsed.data.reducer > sheet.reducerMax + 1e-9 && (
        <p className="mt-2 max-w-[60ch] font-medium text-amber-ink" data-testid="over-reduced">
          Beyond the sheet: less film, gloss, hardness and UV protection. Accept some peel and polish it out.
        </p>
      )}
      {drawings && around && setting && <drawings.Margins {...{ around, setting, take }} />}
    </div>
  );
}

/** What is set at the gun and in the booth. */
function Settings({
  field,
  start,
  hardener,
  draft,
}: {
  field: (name: keyof FlowTyped, label: string, unit: string) => React.JSX.Element;
  start: Pick<WindowAhead, "conditions" | "coats" | "laid">;
  hardener: "fast" | "medium" | "slow";
  draft: WindowSettings["draft"];
}) {
  const units = useUnits();
  return (
    <section className="mt-6" aria-label="Settings">
      <div className="grid grid-cols-2 items-start gap-3 sm:grid-cols-4 xl:grid-cols-5">
        {field("fluid", "Fluid", preferredUnit("fluidRate", units))}
        {field("pressure", "Pressure at gun", units.pressure)}
        {field("distance", "Distance", units.length)}
        {field("speed", "Hand speed", preferredUnit("speed", units))}
        {field("overlap", "Overlap", "%")}
        {field("air", "Air", units.temperature)}
        {field("material", "Material, if colder", units.temperature)}
        {field("reducer", "Reducer on top", "%")}
        {start.coats.length > 1 && field("flash", "Flash before it", "min")}
        <div className="col-span-2 sm:col-span-1">
          <span className="small-label mb-1 block">Hardener</span>
          <Toggle
            label="Hardener"
            value={hardener}
            onChange={(v) => draft.set("hardener", v)}
            options={(["slow", "medium", "fast"] as const).map((s) => ({ value: s, name: s }))}
          />
        </div>
      </div>
    </section>
  );
}

/** What a flow coat would do, below everything else. */
function FlowCoatsBelow({
  drawings,
  later,
  around,
  sheet,
  part,
  trigger,
  under_m,
  flash_s,
  u_filmLog,
}: {
  drawings: WindowOutcome["drawings"];
  later: FlowSetting | null;
  around: WindowOutcome["around"];
  sheet: ProductSheet;
  part: PartOver;
  trigger: "released" | "held";
  under_m: number;
  flash_s: number;
  u_filmLog: number | undefined;
}) {
  return (
    <div className="min-h-[280px]">
      {drawings && later && around && sheet.kind !== "matte clear" && (
        <drawings.FlowCoats
          setting={later}
          part={part}
          trigger={trigger}
          under_m={under_m}
          sandAfter_h={sheet.sandAfter_s / 3600}
          flash_s={flash_s}
          u_filmLog={u_filmLog}
        />
      )}
    </div>
  );
}
