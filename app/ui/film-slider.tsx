import { Slider } from "radix-ui";
import { show } from "#core/units/format";
import { useUnits } from "~/lib/use-root";

const STEP_M = 0.5e-6;

/** A film to choose by sliding: big number, wide thumb, arrow keys. */
export function FilmSlider({
  label,
  value_m,
  most_m,
  onChange,
  note,
}: {
  label: string;
  value_m: number;
  most_m: number;
  onChange: (value_m: number) => void;
  note?: string;
}) {
  const units = useUnits();
  const shown = show("film", value_m, units, units.film === "µm" ? 1 : 2);
  return (
    <div>
      <div className="flex items-baseline gap-2">
        <span className="small-label">{label}</span>
        <span className="text-[32px] leading-none font-semibold tracking-tight">{shown.text}</span>
        <span className="text-ink2">{shown.unit}</span>
      </div>
      <Slider.Root
        min={0}
        max={Math.round(most_m / STEP_M)}
        step={1}
        value={[Math.round(value_m / STEP_M)]}
        onValueChange={([v]) => onChange((v ?? 0) * STEP_M)}
        className="relative flex h-11 w-full touch-none items-center select-none"
      >
        <Slider.Track className="relative h-2 grow rounded-full bg-hair">
          <Slider.Range className="absolute h-full rounded-full bg-glow" />
        </Slider.Track>
        <Slider.Thumb
          aria-label={`${label}, ${shown.unit}`}
          aria-valuetext={`${shown.text} ${shown.unit}`}
          className="block h-11 w-7 cursor-grab rounded-press border-2 border-glow-ink bg-paper"
        />
      </Slider.Root>
      {note && <p className="text-[13px] text-ink2">{note}</p>}
    </div>
  );
}
