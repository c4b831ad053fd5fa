import { preferredUnit } from "#core/kernel/units/quantities";
import { useUnits } from "~/kit/root/use-root";
import { Field } from "~/kit/ui/field";

/** Figures that any tin may carry: weight, what leaves into the air, temperatures, how long it keeps once opened. */
export function CommonFields({ texts, errors }: { texts: Record<string, string>; errors: Record<string, string[]> }) {
  const units = useUnits();
  return (
    <>
      <Field label="Density" unit={preferredUnit("density", units)} name="density" defaultValue={texts.density} errors={errors.density} />
      <Field label="VOC as supplied" unit="g/l" name="voc" defaultValue={texts.voc} errors={errors.voc} />
      <Field label="Water by weight" unit="%" name="water" defaultValue={texts.water} errors={errors.water} />
      <Field
        label="Exempt solvent by weight"
        unit="%"
        name="exempt"
        defaultValue={texts.exempt}
        errors={errors.exempt ?? errors.waterShare}
      />
      <Field
        label="Its density"
        unit={preferredUnit("density", units)}
        name="exemptDensity"
        defaultValue={texts.exemptDensity}
        errors={errors.exemptDensity ?? errors.exemptDensity_kg_m3}
      />
      <Field
        label="For use from"
        unit={units.temperature}
        name="windowLow"
        defaultValue={texts.windowLow}
        errors={errors.windowLow ?? errors.window}
      />
      <Field label="For use up to" unit={units.temperature} name="windowHigh" defaultValue={texts.windowHigh} errors={errors.windowHigh} />
      <Field
        label="Keeps once opened"
        unit="days"
        name="keepsDays"
        defaultValue={texts.keepsDays}
        errors={errors.keepsDays}
        hint="empty: the usual"
      />
    </>
  );
}
