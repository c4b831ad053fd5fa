import type { Layer } from "#core/judge/account";
import { showFilm, showWithUncertainty } from "#core/kernel/units/format";
import { useUnits } from "~/kit/root/use-root";
import type { SectionPreview } from "./film-section";

const HEIGHT = 14;
const WIDTH = 400;

/** The section lying on its side in one line, for a screen that has no room for it upright: layers to scale, the floor, what is planned. */
export function FilmStrip({
  layers,
  floor_m,
  baseColour,
  preview,
}: {
  layers: readonly Layer[];
  floor_m: number;
  baseColour: string;
  preview: SectionPreview;
}) {
  const units = useUnits();
  const clears = layers.filter((l) => l.tone === "clear");
  const mean_m = clears.reduce((a, l) => a + l.thickness_m, 0);
  const clear = preview.here ?? { clear_m: mean_m, u_m: clears.at(-1)?.u_m ?? 0 };
  const below_m = layers.reduce((a, l) => a + (l.tone === "clear" ? 0 : l.thickness_m), 0);
  const coat_m = preview.coat?.dry_m ?? 0;
  const removal_m = Math.min(preview.removal?.removal_m ?? 0, clear.clear_m);
  const whole_m = Math.max(below_m + clear.clear_m + coat_m, below_m + floor_m) * 1.02;
  const x = (m: number) => (WIDTH * m) / whole_m;
  const fill = (l: Layer) => (l.tone === "base" ? baseColour : `var(--${l.tone === "under" ? "primer" : l.tone})`);
  const film = showWithUncertainty("film", clear.clear_m, clear.u_m, units);
  return (
    <span className="grid min-w-0 flex-1 gap-1">
      <span className="flex justify-between gap-3">
        <span>Clear {clears.length > 0 || preview.here ? `${film.text} ${film.unit}` : "not sprayed yet"}</span>
        <span className="font-normal text-ink2">
          minimum {showFilm(floor_m, units).text} {units.film}
        </span>
      </span>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} preserveAspectRatio="none" className="h-3.5 w-full" aria-hidden>
        {
          layers
            .filter((l) => l.tone !== "clear")
            .reduce<{ at_m: number; drawn: React.ReactNode[] }>(
              ({ at_m, drawn }, l) => ({
                at_m: at_m + l.thickness_m,
                drawn: [...drawn, <rect key={l.key} x={x(at_m)} width={x(l.thickness_m)} height={HEIGHT} fill={fill(l)} />],
              }),
              { at_m: 0, drawn: [] },
            ).drawn
        }
        <rect x={x(below_m)} width={x(Math.max(0, clear.clear_m))} height={HEIGHT} fill="var(--clear-1)" />
        {removal_m > 0 && (
          <rect x={x(below_m + clear.clear_m - removal_m)} width={x(removal_m)} height={HEIGHT} fill="var(--stop)" opacity="0.6" />
        )}
        {coat_m > 0 && (
          <rect
            x={x(below_m + clear.clear_m)}
            width={x(coat_m)}
            y="0.75"
            height={HEIGHT - 1.5}
            fill="var(--glow-wash)"
            stroke="var(--glow-ink)"
            strokeDasharray="5 4"
          />
        )}
        <line x1={x(below_m + floor_m)} x2={x(below_m + floor_m)} y2={HEIGHT} stroke="var(--ink)" strokeWidth="2" />
      </svg>
    </span>
  );
}
