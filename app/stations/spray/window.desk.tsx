import { textureTold, textureWords } from "~/kit/words/texture-words";
import { inRange } from "#core/kernel/guard";
import { useDraft } from "~/kit/draft/use-draft";
import { useDeferredValue, useEffect, useMemo } from "react";
import {
  FLOW_CHANGES,
  applyChange,
  cheapestChanges,
  flowReasons,
  flowVerdict,
  nearestSlip,
  zoneVerdicts,
} from "#core/models/flow/flow-advice";
import type { WindowAhead } from "#core/coat/window-ahead";
import type { Polygon } from "#core/kernel/geometry/geometry";
import type { Trigger } from "#core/models/spray/trigger";
import { FLOW_PAIRS, type FlowAxis, type FlowSetting, moveSetting, movedWith, settingAt, wetOf } from "#core/models/flow/flow-window";
import type { FlowCoat, FlowResult, ShopFactors } from "#core/models/flow/simulate-coats";
import type { ProductSheet } from "#core/models/product/sheet";
import { needleFlow } from "#core/models/spray/needle-flow";
import { Thinner } from "./thinner";
import type { ActivatorSpeed } from "#core/models/spray/constants";
import type { RunCalibration } from "#core/models/flow/run-calibration";
import { CHANCE_WORDS, chanceWord } from "#core/models/flow/run-chance";
import { showFilm } from "#core/kernel/units/format";
import { preferredUnit } from "#core/kernel/units/quantities";
import { withTexture } from "#core/models/flow/reflection";
import { type FlowTyped, readFlow } from "./window.form";
import { initial } from "~/kit/form/initial";
import { useUnits } from "~/kit/root/use-root";
import { Toggle } from "~/kit/ui/toggle";
import { Field } from "~/kit/ui/field";
import { Figure } from "~/kit/ui/figure";
import { Tag } from "~/kit/ui/tag";
import { CLASS_WORDS } from "~/kit/words/flow-class-words";
import { CHANCE_OF, runTold, flowSentence, flowWorking } from "~/kit/words/flow-words";
import { later as fetchedLater, useLater } from "~/kit/root/later";
import { InUnits } from "~/kit/ui/in-units";

const PAIR_NAMES = ["Distance × speed", "Air × wet film", "Pressure × fluid", "Flash × wet film"] as const;

/** The picture follows the sentence and the settings. */
const LIGHT_TUBE = fetchedLater(() => import("~/kit/panel/light-tube"));
const SWEPT_MAP = fetchedLater(() => import("./swept-map"));
/** What a flow coat would do: below everything else, and fetched after it. */
const FLOW_COATS = fetchedLater(() => import("./flow-coats"));

/** The tube as this surface would reflect it, in the room that it takes. */
function Tube(shown: { result: Pick<FlowResult, "spectrum">; label: string }) {
  const part = useLater(LIGHT_TUBE, true);
  return part ? <part.LightTube {...shown} /> : <p className="aspect-[330/106] text-[14px] font-medium">{shown.label}</p>;
}

/** Whether a coat will flow, peel or run; the window around it, what a slip does, what widens the margin, and what a flow coat would do. */
export function FlowDesk({
  sheet,
  start,
  coatNumber,
  textureLimit,
  outline,
  trigger = "released",
  under_m,
  shop,
  u_filmLog,
  calibration = null,
  proposed = null,
  neighbour,
  onDry,
}: {
  sheet: ProductSheet;
  /** The coat as it would be sprayed: what the fields begin with. */
  start: Pick<WindowAhead, "conditions" | "coats" | "laid">;
  coatNumber: number;
  textureLimit: number;
  outline: Polygon;
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
  // The verdict follows the hand; what surrounds it may come a frame later.
  const worked = useMemo(
    () => setting && inRange(() => ({ verdict: flowVerdict(setting, textureLimit, u_filmLog), wet_m: wetOf(setting) })),
    [setting, textureLimit, u_filmLog],
  );
  const swept = useLater(SWEPT_MAP, true);
  const flowCoats = useLater(FLOW_COATS, true);
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
      <h2
        className="min-h-[2.24em] max-w-[26em] text-[31px] leading-[1.12] font-semibold tracking-tight"
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
      <div className="mt-3 grid gap-x-8 gap-y-6 xl:grid-cols-[1.45fr_1fr]">
        <div>
          <Toggle
            label="What the window shows"
            value={String(pairIndex)}
            onChange={(v) => draft.set("pair", v)}
            options={PAIR_NAMES.map((name, i) => ({ value: String(i), name }))}
          />
          {point && (
            <div className="mt-2 aspect-[560/440]">
              {swept && (
                <swept.SweptMap setting={setting} xAxis={pair.x} yAxis={pair.y} point={point} textureLimit={textureLimit} onMove={move} />
              )}
            </div>
          )}
          {proposal && setting && (
            <p className="mt-2 flex flex-wrap items-center gap-2" data-testid="proposed">
              <span className="font-semibold">The cause asks for it:</span>
              <button
                type="button"
                className="press"
                data-kind="main"
                onClick={() => {
                  const moved = applyChange(setting, proposal);
                  if (moved) take(moved);
                }}
              >
                <InUnits>{proposal.words}</InUnits>
              </button>
            </p>
          )}
          {parsed.success && Math.abs(parsed.data.reducer - reducer) > 1e-9 && (
            <Thinner
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
          {around && setting && (
            <div className="mt-2 flex flex-wrap items-center gap-2">
              <span className="small-label">More margin:</span>
              {around.changes.length === 0 && <span className="text-ink2">no small change helps more than it costs</span>}
              {around.changes.map((c) => (
                <button
                  key={c.id}
                  type="button"
                  className="press"
                  onClick={() => {
                    const moved = applyChange(
                      setting,
                      FLOW_CHANGES.find((f) => f.id === c.id)!,
                    );
                    if (moved) take(moved);
                  }}
                >
                  <InUnits>{c.words}</InUnits>
                </button>
              ))}
            </div>
          )}
        </div>
        <div className="space-y-4">
          {worked && (
            <>
              <Tube
                result={worked.verdict.result}
                label={`as you would spray it: texture ${textureTold(worked.verdict.result.texture)}, ${textureWords(worked.verdict.result.texture)}`}
              />
              {beside && (
                <Tube result={beside} label={`the neighbour, rated ${beside.texture.toFixed(1)}: ${textureWords(beside.texture)}`} />
              )}
              <div className="flex flex-wrap gap-x-8 gap-y-3">
                <Figure
                  size="middle"
                  label="wet, this coat"
                  shown={showFilm(worked.wet_m, units)}
                  working={flowWorking(worked.verdict, textureLimit, units, u_filmLog)}
                />
                <Figure
                  size="middle"
                  label={`${runs!.small}, at the edges`}
                  shown={{ text: runs!.big, unit: "" }}
                  note={runs!.by}
                  working={flowWorking(worked.verdict, textureLimit, units, u_filmLog)}
                  {...(runs!.tag === "stop" ? { tone: "stop" as const } : {})}
                />
                <Figure
                  size="middle"
                  label={peels!.small}
                  shown={{ text: peels!.big, unit: "" }}
                  working={flowWorking(worked.verdict, textureLimit, units, u_filmLog)}
                  {...(worked.verdict.peelChance >= CHANCE_WORDS.likely ? { tone: "amber" as const } : {})}
                />
              </div>
              {around && around.reasons.length > 0 && (
                <ul className="list-disc pl-5" aria-label="Why" data-testid="flow-reasons">
                  {around.reasons.map((r) => (
                    <li key={r}>{r}</li>
                  ))}
                </ul>
              )}
              <ul className="border-t border-hair" aria-label="Places of the panel">
                {around?.zones.map((z) => (
                  <li key={z.id} className="flex items-center justify-between gap-3 border-b border-hair py-1.5">
                    {z.name}
                    <Tag kind={CLASS_WORDS[z.verdict.class].tag}>{CLASS_WORDS[z.verdict.class].word}</Tag>
                  </li>
                ))}
              </ul>
            </>
          )}
        </div>
      </div>
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
      <div className="min-h-[280px]">
        {flowCoats && later && around && sheet.kind !== "matte clear" && (
          <flowCoats.FlowCoats
            setting={later}
            outline={outline}
            trigger={trigger}
            under_m={under_m}
            sandAfter_h={sheet.sandAfter_s / 3600}
            flash_s={flash_s}
            u_filmLog={u_filmLog}
          />
        )}
      </div>
      <p className="mt-6 max-w-[75ch] text-[13px] text-ink2">
        A model set to common practice, not measured on your gun: trust the order more than the figure, and the test panel more than both.
        Supplied air, or what the safety data sheet and your local rules ask for; ventilated, nothing near that can ignite.
      </p>
    </>
  );
}
