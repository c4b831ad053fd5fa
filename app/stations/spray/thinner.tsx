import { show } from "#core/kernel/units/format";
import { useUnits } from "~/kit/root/use-root";
import { Toggle } from "~/kit/ui/toggle";

/** More or less reducer than the fluid was measured with: what the same needle gives then, and whether it was measured so already. */
export function Thinner({
  fluid_m3_s,
  needle,
  measured,
  onMeasured,
}: {
  fluid_m3_s: number;
  /** Flow through the same needle against that of the mix before. */
  needle: number;
  measured: string;
  onMeasured: (value: string) => void;
}) {
  const units = useUnits();
  const [before, then] = [show("fluidRate", fluid_m3_s, units), show("fluidRate", fluid_m3_s * needle, units)];
  return (
    <div className="mt-2 space-y-1" data-testid="thinner">
      <p className="max-w-[60ch]">
        {needle > 1 ? "Thinner" : "Thicker"} than the mix before: the same needle gives{" "}
        <b className="font-semibold whitespace-nowrap">
          {then.text} {then.unit}
        </b>{" "}
        instead of {before.text} (as one over the root of the viscosity).
      </p>
      <Toggle
        label="The fluid was measured"
        value={measured}
        onChange={onMeasured}
        options={[
          { value: "before", name: "measured with the mix before" },
          { value: "with", name: "measured with this one" },
        ]}
      />
    </div>
  );
}
