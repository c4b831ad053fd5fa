import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Draft, Widened } from "~/kit/draft/use-draft";
import { DraftForm } from "~/kit/draft/draft-form";
import { useDraft } from "~/kit/draft/use-draft";
import { useFetcher, type FetcherWithComponents } from "react-router";
import type { BodyOf } from "#core/record/bodies";
import type { NextCoat } from "#core/coat/next-coat";
import { type SprayedIn, predictCoat } from "#core/panel/predict-coat";
import type { LayerKey } from "#core/models/prep/layer-names";
import { MODEL_FILM } from "#core/panel/shop-film";
import type { ProductSheet } from "#core/models/product/sheet";
import type { Deposit } from "#core/models/spray/deposit";
import { TURNS_DEFAULT, fluidFromTurns } from "#core/models/spray/fluid-from-turns";
import { showWithUncertainty, showFilm } from "#core/kernel/units/format";
import { parseQuantity } from "#core/kernel/units/parse";
import { type Quantity, preferredUnit } from "#core/kernel/units/quantities";
import type { FormAnswer } from "~/kit/form/answer";
import { initial } from "~/kit/form/initial";
import { COAT_ZONES } from "#core/models/ways/terms";
import { PRESSURE_AT, type PressureAt, pressureAtGun, pressureRead } from "#core/models/spray/pressure-at";
import { USUAL_GUN } from "#core/models/spray/usual-gun";
import { useUnits } from "~/kit/root/use-root";
import { usePanel } from "~/kit/panel/use-panel";
import { usePreview } from "~/kit/panel/use-preview";
import { Toggle } from "~/kit/ui/toggle";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";
import { Figure } from "~/kit/ui/figure";
import { coatWorking } from "~/kit/words/spray-workings";
import { gunSource } from "~/kit/words/gun-words";

/** A coat below the clear, logged by the same form. */
export interface BelowCoat {
  layer: LayerKey;
  name: string;
}
interface CoatFormProps {
  next: NextCoat;
  sheet: ProductSheet;
  sprayed: SprayedIn;
  formKey: string;
  /** Of a coat below the clear: it is not drawn as one, and what this shop's clears laid says nothing of it. */
  below?: BelowCoat | undefined;
}

/** What the fields of a coat begin with. */
const coatTexts = ({ settings: gun, reducer, zone }: NextCoat, told: PressureAt, units: UnitPreferences) => ({
  fluidFrom: gun.fluidFrom as string,
  wet: "",
  fluidRate: initial("fluidRate", gun.fluidRate_m3_s, units),
  turns: String(gun.turns ?? USUAL_GUN.turns),
  pressure: initial("pressure", pressureRead(gun.pressure_Pa, told), units),
  pressureAt: told as string,
  distance: initial("length", gun.distance_m, units),
  overlap: initial("share", gun.overlap, units),
  handSpeed: initial("speed", gun.handSpeed_m_s, units),
  fan: initial("length", gun.fan_m, units),
  reducer: initial("share", reducer, units),
  zone: zone as string,
});

type CoatDraft = Draft<Widened<ReturnType<typeof coatTexts>>>;
type CoatField = (name: keyof CoatDraft["typed"], label: string, quantity: Quantity, hint?: string) => React.JSX.Element;

/** Gun settings of one coat; the film they lay is worked out while they are typed and drawn on the section. */
export function CoatForm({ next, sheet, sprayed, formKey, below }: CoatFormProps) {
  const units = useUnits();
  const { view } = usePanel();
  const shopFilm = below ? MODEL_FILM : view.shopFilm;
  const name = below ? `${below.name} ${next.number}` : `coat ${next.number}`;
  const fetcher = useFetcher<FormAnswer>();
  const errors = fetcher.data?.errors ?? {};
  const { number, role, settings: gun } = next;
  const told: PressureAt = gun.pressureAt ?? "gun";
  const draft = useDraft(name, coatTexts(next, told, units), {
    fluidRate: "fluidRate",
    pressure: "pressure",
    distance: "length",
    handSpeed: "speed",
    fan: "length",
    wet: "film",
  });
  const { typed } = draft;
  const fluidFrom: "measured" | "turns" = typed.fluidFrom === "measured" ? "measured" : "turns";
  const predicted = predict();
  usePreview(below ? null : predicted && { coat: { dry_m: predicted.deposit.dry_m, u_m: predicted.deposit.u_dry_m, name } });
  const field = (name: keyof typeof typed, label: string, quantity: Quantity, hint?: string) => (
    <Field label={label} unit={preferredUnit(quantity, units)} {...draft.field(name)} errors={errors[name]} {...(hint ? { hint } : {})} />
  );
  return (
    <DraftForm draft={draft} fetcher={fetcher} className="space-y-4">
      <input type="hidden" name="intent" value={below ? "layerCoat" : "coat"} />
      {below && <input type="hidden" name="layer" value={below.layer} />}
      <input type="hidden" name="formKey" value={formKey} />
      <input type="hidden" name="number" value={number} />
      <input type="hidden" name="role" value={role} />
      <input type="hidden" name="fluidFrom" value={fluidFrom} />
      <Forecast {...{ predicted, fetcher, name }} />
      <Toggle
        label="Fluid known from"
        value={fluidFrom}
        onChange={(v) => draft.set("fluidFrom", v)}
        options={[
          { value: "turns", name: "Turns out" },
          { value: "measured", name: "Measured rate" },
        ]}
      />
      <Settings {...{ draft, fluidFrom, field, errors }} />
      {next.from !== "usual" && <p className="text-[14px] text-ink2">From {gunSource(next)}.</p>}
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </DraftForm>
  );

  function predict(): { deposit: Deposit; settings: BodyOf<"coat">["settings"]; reducer: number; note: string } | null {
    const si = (quantity: Quantity, text: string) => {
      const parsed = parseQuantity(quantity, text, preferredUnit(quantity, units));
      return parsed.ok ? parsed.si : NaN;
    };
    try {
      const turns = si("count", typed.turns);
      const settings = {
        fluidRate_m3_s: fluidFrom === "measured" ? si("fluidRate", typed.fluidRate) : fluidFromTurns(turns).fluidRate_m3_s,
        fluidFrom,
        turns: fluidFrom === "turns" ? turns : null,
        pressure_Pa: pressureAtGun(si("pressure", typed.pressure), typed.pressureAt === "hose" ? "hose" : "gun"),
        distance_m: si("length", typed.distance),
        overlap: si("share", typed.overlap),
        handSpeed_m_s: si("speed", typed.handSpeed),
        fan_m: typed.fan.trim() === "" ? null : si("length", typed.fan),
      };
      const reducer = si("share", typed.reducer);
      const deposit = predictCoat({ settings, reducer }, sheet, sprayed, shopFilm);
      const turnsU = TURNS_DEFAULT.relativeU * 100;
      return {
        deposit,
        settings,
        reducer,
        note: fluidFrom === "turns" ? `predicted; fluid from turns is good to ${turnsU} %` : "predicted from the settings",
      };
    } catch (error) {
      if (error instanceof RangeError) return null;
      throw error;
    }
  }
}

/** What is set at the gun. */
function Settings({
  draft,
  fluidFrom,
  field,
  errors,
}: {
  draft: CoatDraft;
  fluidFrom: "measured" | "turns";
  field: CoatField;
  errors: Record<string, string[]>;
}) {
  const units = useUnits();
  return (
    <div className="grid grid-cols-2 gap-x-4 gap-y-3 sm:grid-cols-4">
      {fluidFrom === "measured" ? (
        field("fluidRate", "Fluid", "fluidRate")
      ) : (
        <Field label="Needle" unit="turns out" {...draft.field("turns")} errors={errors.turns} />
      )}
      {field("pressure", "Pressure", "pressure")}
      <SelectField label="Pressure read" {...draft.field("pressureAt")} errors={errors.pressureAt}>
        {Object.entries(PRESSURE_AT).map(([at, name]) => (
          <option key={at} value={at}>
            {name}
          </option>
        ))}
      </SelectField>
      {field("distance", "Distance", "length")}
      {field("handSpeed", "Hand speed", "speed")}
      {field("overlap", "Overlap", "share")}
      {field("fan", "Fan seen", "length")}
      {field("reducer", "Reducer added", "share")}
      <SelectField label="Where" {...draft.field("zone")} errors={errors.zone}>
        {Object.entries(COAT_ZONES).map(([zone, name]) => (
          <option key={zone} value={zone}>
            {name}
          </option>
        ))}
      </SelectField>
      <Field label="Wet comb" unit={units.film} {...draft.field("wet")} errors={errors.wet} />
    </div>
  );
}

/** What the coat lays, by these settings. */
function Forecast({
  predicted,
  fetcher,
  name,
}: {
  predicted: { deposit: Deposit; settings: BodyOf<"coat">["settings"]; reducer: number; note: string } | null;
  fetcher: FetcherWithComponents<FormAnswer>;
  name: string;
}) {
  const units = useUnits();
  return (
    <div className="flex flex-wrap items-end gap-x-8 gap-y-3">
      {predicted ? (
        <>
          <Figure
            label="dry"
            shown={showWithUncertainty("film", predicted.deposit.dry_m, predicted.deposit.u_dry_m, units)}
            note={predicted.note}
            working={coatWorking(predicted.settings, predicted.deposit, predicted.reducer, units)}
          />
          <Figure
            label="wet"
            shown={showFilm(predicted.deposit.wet_m, units)}
            note="predicted"
            working={coatWorking(predicted.settings, predicted.deposit, predicted.reducer, units)}
          />
        </>
      ) : (
        <p className="min-h-[60px] text-ink2">The film appears when every setting is a number the model knows.</p>
      )}
      <button className="press ml-auto" data-kind="main" disabled={fetcher.state !== "idle"}>
        {fetcher.state === "idle" ? `Log ${name}` : "Saving…"}
      </button>
    </div>
  );
}
