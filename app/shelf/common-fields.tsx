import { preferredUnit } from "#core/kernel/units/quantities";
import type { AnySheet } from "#core/models/product/sheet";
import { initial } from "~/kit/form/initial";
import { useUnits } from "~/kit/root/use-root";
import { Field } from "~/kit/ui/field";

/** Figures that any tin may carry: weight, what leaves into the air, temperatures, how long it keeps once opened. */
export function CommonFields({ sheet: s, errors }: { sheet: AnySheet | undefined; errors: Record<string, string[]> }) {
  const units = useUnits();
  return (
    <>
      <Field
        label="Density"
        unit={preferredUnit("density", units)}
        name="density"
        defaultValue={initial("density", s?.density_kg_m3, units)}
        errors={errors.density}
      />
      <Field
        label="VOC as supplied"
        unit="g/l"
        name="voc"
        defaultValue={initial("concentration", s?.voc_kg_m3, units)}
        errors={errors.voc}
      />
      <Field
        label="Water by weight"
        unit="%"
        name="water"
        defaultValue={initial("share", s?.waterShare || null, units)}
        errors={errors.water}
      />
      <Field
        label="Exempt solvent by weight"
        unit="%"
        name="exempt"
        defaultValue={initial("share", s?.exemptShare || null, units)}
        errors={errors.exempt ?? errors.waterShare}
      />
      <Field
        label="Its density"
        unit={preferredUnit("density", units)}
        name="exemptDensity"
        defaultValue={initial("density", s?.exemptDensity_kg_m3, units)}
        errors={errors.exemptDensity ?? errors.exemptDensity_kg_m3}
      />
      <Field
        label="For use from"
        unit={units.temperature}
        name="windowLow"
        defaultValue={initial("temperature", s?.window?.low_K, units)}
        errors={errors.windowLow ?? errors.window}
      />
      <Field
        label="For use up to"
        unit={units.temperature}
        name="windowHigh"
        defaultValue={initial("temperature", s?.window?.high_K, units)}
        errors={errors.windowHigh}
      />
      <Field
        label="Keeps once opened"
        unit="days"
        name="keepsDays"
        defaultValue={s?.keepsDays ?? ""}
        errors={errors.keepsDays}
        hint="empty: the usual"
      />
    </>
  );
}
