import { COAT_ROLES, COAT_ZONES } from "#core/models/ways/terms";
import { usualCoat } from "#core/models/ways/house-ways";
import { useUnits } from "~/kit/root/use-root";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";
import { type CoatTyped, MOST_COATS, coatField, coatTyped } from "./way.form";

/** The coats of a way, one under another: how each is sprayed against the gun in the hand. */
export function WayCoats({
  coats,
  onChange,
  errors,
}: {
  coats: readonly CoatTyped[];
  onChange: (coats: CoatTyped[]) => void;
  errors: Record<string, string[]>;
}) {
  const units = useUnits();
  const set = (i: number, change: Partial<CoatTyped>) => onChange(coats.map((c, k) => (k === i ? { ...c, ...change } : c)));
  const more = () => onChange([...coats, coats.at(-1) ?? coatTyped(usualCoat(), units)]);
  return (
    <div className="space-y-3">
      {coats.map((coat, i) => {
        const of = (name: keyof CoatTyped) => ({
          name: coatField(name),
          value: coat[name],
          onChange: (e: { target: { value: string } }) => set(i, { [name]: e.target.value }),
          errors: errors[`${coatField(name)}-${i}`],
        });
        const last = i === coats.length - 1;
        return (
          <fieldset key={i} className="grid grid-cols-2 items-start gap-3 border-b border-hair pb-3 sm:grid-cols-5">
            <legend className="pb-1 font-semibold">Coat {i + 1}</legend>
            <SelectField label="Laid as" {...of("role")}>
              {COAT_ROLES.map((role) => (
                <option key={role}>{role}</option>
              ))}
            </SelectField>
            <Field label="Hand speed" unit="%" {...of("speed")} />
            <Field label="Fluid" unit="%" {...of("fluid")} />
            <Field label="Distance" unit="%" {...of("distance")} />
            <Field label="More pressure" unit={units.pressure} {...of("pressure")} />
            <Field label="More overlap" unit="%" {...of("overlap")} />
            <Field label="More reducer" unit="%" {...of("reducer")} />
            <Field label="Flash × sheet" inputMode="decimal" {...of("wait")} />
            <SelectField label="Where" {...of("zone")}>
              {Object.entries(COAT_ZONES).map(([id, name]) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </SelectField>
            {last ? (
              <input type="hidden" name={coatField("sand")} value="no" />
            ) : (
              <SelectField label="Then" {...of("sand")}>
                <option value="no">flash</option>
                <option value="yes">cure, sand flat</option>
              </SelectField>
            )}
          </fieldset>
        );
      })}
      <FieldErrors errors={errors.coats} />
      <div className="flex flex-wrap gap-2">
        <button type="button" className="press" disabled={coats.length >= MOST_COATS} onClick={more}>
          One coat more
        </button>
        <button type="button" className="press" disabled={coats.length <= 1} onClick={() => onChange(coats.slice(0, -1))}>
          One less
        </button>
      </div>
    </div>
  );
}
