import type { ReactNode } from "react";
import { type Quantity, preferredUnit } from "#core/kernel/units/quantities";
import { COAT_ZONES, FLATTEN_BY } from "#core/models/ways/terms";
import { PRESSURE_AT, pressureRead } from "#core/models/spray/pressure-at";
import { layerSpec, usualReducer } from "#core/models/prep/layers";
import type { BodyOf } from "#core/record/bodies";
import type { LedgerEntry } from "#core/record/entry";
import { PART_HELD } from "#core/record/kinds";
import { initial } from "~/kit/form/initial";
import { useUnits } from "~/kit/root/use-root";
import { Field, SelectField } from "~/kit/ui/field";

type Errors = Record<string, string[]>;
const SIDE_NAMES = { front: "front", back: "back" };

/** Four beside each other where there is room. */
const Row = ({ children }: { children: ReactNode }) => <div className="grid grid-cols-2 gap-x-4 gap-y-3 sm:grid-cols-4">{children}</div>;

interface Fields {
  field: (name: string, label: string, quantity: Quantity, si: number | null) => ReactNode;
  select: (name: string, label: string, of: Record<string, string>, value: string) => ReactNode;
  errors: Errors;
}

/** The fields of a coat, of the clear or of what lies below it. */
function CoatFields({
  coat: { number, settings: s, reducer, side, zone },
  wet,
  field,
  select,
  errors,
  children,
}: Fields & {
  coat: Pick<BodyOf<"coat">, "number" | "settings" | "reducer" | "side" | "zone">;
  wet?: number | null;
  children?: ReactNode;
}) {
  return (
    <>
      <input type="hidden" name="number" value={number} />
      <div className="grid gap-x-4 gap-y-3 sm:grid-cols-2">
        {children}
        <SelectField label="Fluid known from" name="fluidFrom" defaultValue={s.fluidFrom}>
          <option value="measured">Measured rate</option>
          <option value="turns">Turns of the needle</option>
        </SelectField>
      </div>
      <Row>
        {field("fluidRate", "Fluid", "fluidRate", s.fluidRate_m3_s)}
        <Field label="Needle" unit="turns out" name="turns" defaultValue={s.turns === null ? "" : String(s.turns)} errors={errors.turns} />
        {field("pressure", "Pressure", "pressure", pressureRead(s.pressure_Pa, s.pressureAt ?? "gun"))}
        {select("pressureAt", "Pressure read", PRESSURE_AT, s.pressureAt ?? "gun")}
        {field("distance", "Distance", "length", s.distance_m)}
        {field("handSpeed", "Hand speed", "speed", s.handSpeed_m_s)}
        {field("overlap", "Overlap", "share", s.overlap)}
        {field("fan", "Fan seen", "length", s.fan_m)}
        {field("reducer", "Reducer added", "share", reducer)}
        {wet !== undefined && field("wet", "Wet comb", "film", wet)}
        {select("side", "Face", SIDE_NAMES, side)}
        {select("zone", "Where", COAT_ZONES, zone)}
      </Row>
    </>
  );
}

/** The fields of an entry as they were typed, by its kind. */
export function EntryFields({ entry, errors }: { entry: LedgerEntry; errors: Errors }) {
  const units = useUnits();
  const field = (name: string, label: string, quantity: Quantity, si: number | null) => (
    <Field
      label={label}
      unit={preferredUnit(quantity, units)}
      name={name}
      defaultValue={initial(quantity, si, units)}
      errors={errors[name]}
    />
  );
  const select = (name: string, label: string, of: Record<string, string>, value: string) => (
    <SelectField label={label} name={name} defaultValue={value} errors={errors[name]}>
      {Object.entries(of).map(([id, text]) => (
        <option key={id} value={id}>
          {text}
        </option>
      ))}
    </SelectField>
  );
  const typedReadings = (readings: readonly { entered: string; unit: string }[]) => (
    <Field
      label="Readings, with spaces between"
      unit={units.film}
      name="value"
      inputMode="decimal"
      defaultValue={readings.map((r) => (r.unit === units.film ? r.entered : `${r.entered} ${r.unit}`)).join(" ")}
      hint="another unit may be typed with its name: 5.1 mil"
      errors={errors.value}
    />
  );
  switch (entry.kind) {
    case "coat": {
      const { role, wetReading_m } = entry.body;
      return (
        <CoatFields coat={entry.body} {...{ field, select, errors }} wet={wetReading_m}>
          <Field label="What kind of coat" name="role" defaultValue={role} maxLength={40} errors={errors.role} />
        </CoatFields>
      );
    }
    case "colourCoat": {
      const { coat, settings, reducer, side, zone } = entry.body;
      const { gun, sheet } = layerSpec(coat);
      const usual = { ...gun, fluidFrom: "turns" as const, fan_m: null };
      const as = { number: 1, settings: settings ?? usual, reducer: reducer ?? usualReducer(coat, entry.body.sheet ?? sheet), side, zone };
      return (
        <>
          {settings === null && <p className="text-ink2">Logged as usual; what is typed here counts from now on.</p>}
          <CoatFields coat={as} {...{ field, select, errors }} />
        </>
      );
    }
    case "flatten":
      return (
        <Row>
          <Field label="Paper, P" name="grit" inputMode="numeric" defaultValue={String(entry.body.grit)} errors={errors.grit} />
          {select("by", "By", FLATTEN_BY, entry.body.by)}
          {field("removal", "Came off", "film", entry.body.removal_m)}
        </Row>
      );
    case "bake":
      return (
        <Row>
          {field("part", "Part", "temperature", entry.body.part_K)}
          {field("time", "For", "duration", entry.body.time_s)}
        </Row>
      );
    case "turn":
      return (
        <Row>
          {select("how", "Held", PART_HELD, entry.body.how)}
          {select("side", "Face up", SIDE_NAMES, entry.body.side)}
        </Row>
      );
    case "strip":
      return (
        <>
          <input type="hidden" name="phase" value={entry.body.phase} />
          <input type="hidden" name="gauge" value={entry.body.gauge} />
          {typedReadings(entry.body.readings)}
        </>
      );
    case "mix":
      return (
        <div className="grid grid-cols-2 gap-x-4 sm:grid-cols-4">
          {field("volume", "Mixed", "volume", entry.body.volume_m3)}
          {field("reducer", "Reducer", "share", entry.body.reducer)}
        </div>
      );
    case "climate":
      return (
        <Row>
          {field("air", "Air", "temperature", entry.body.air_K)}
          {field("part", "Part", "temperature", entry.body.part_K)}
          {field("humidity", "Humidity", "share", entry.body.relativeHumidity)}
          {field("material", "Material", "temperature", entry.body.material_K)}
        </Row>
      );
    case "reading":
      return typedReadings(entry.body.readings);
    case "wetComb":
      return <div className="w-40">{field("wet", "Wet comb", "film", entry.body.thickness_m)}</div>;
    default:
      return null;
  }
}
