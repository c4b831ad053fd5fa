import { show } from "#core/kernel/units/format";
import { useUnits } from "~/kit/root/use-root";

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
      <input
        type="range"
        min={0}
        max={Math.round(most_m / STEP_M)}
        step={1}
        value={Math.round(value_m / STEP_M)}
        onChange={(e) => onChange(Number(e.target.value) * STEP_M)}
        aria-label={`${label}, ${shown.unit}`}
        aria-valuetext={`${shown.text} ${shown.unit}`}
        className="film-slider h-11 w-full"
        style={{ "--share": `${(100 * value_m) / most_m}%` } as React.CSSProperties}
      />
      {note && <p className="text-[13px] text-ink2">{note}</p>}
    </div>
  );
}
