import { FLOW_CUPS, FLOW_CUP_IDS, cupFromViscosity, cupReading } from "#core/models/product/flow-cup";
import type { ProductSheet } from "#core/models/product/sheet";
import { show } from "#core/kernel/units/format";
import { useUnits } from "~/kit/root/use-root";

/** The sheet's cup time in the cups a shop may have. */
export function CupTimes({ sheet }: { sheet: ProductSheet }) {
  const units = useUnits();
  const reading = sheet.viscosity && cupReading(sheet.viscosity);
  if (!sheet.viscosity || !reading) return null;
  const nu = reading.nu_m2_s;
  const times = FLOW_CUP_IDS.flatMap((cup) => {
    try {
      return [`${FLOW_CUPS[cup].name} ${show("seconds", cupFromViscosity(cup, nu), units).text} s`];
    } catch (error) {
      if (!(error instanceof RangeError)) throw error;
      return []; // this cup is not meant for so thin or thick a liquid
    }
  });
  return (
    <p className="text-[14px] text-ink2" data-figures>
      By the sheet it runs at {show("viscosity", nu, units).text} mm²/s, at{" "}
      {show("temperature", sheet.viscosity.temperature_K, units, 0).text} {units.temperature}: {times.join(", ")}.
    </p>
  );
}
