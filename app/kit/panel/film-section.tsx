import { useId } from "react";
import type { Layer } from "#core/judge/account";
import { COVERAGE, show, showWithUncertainty, showFilm } from "#core/kernel/units/format";
import { HOW_WORDS } from "~/kit/words/how-words";
import { useUnits } from "~/kit/root/use-root";
import { scaleLinear, type LinearScale } from "~/kit/ui/linear-scale";

export interface SectionPreview {
  /** Removal about to be done, hatched from the top. */
  removal?: { removal_m: number; u_m: number };
  /** A coat about to be sprayed, laid on top in outline. */
  coat?: { dry_m: number; u_m: number; name: string };
  /** Clear at a place picked on the map, in place of the panel's mean. */
  here?: { clear_m: number; u_m: number; caption: string };
}

const WIDTH = 190;
const HEIGHT = 540;
const BAR = 88;
const STEEL = 26;
const LABEL_GAP = 17;

interface FilmSectionProps {
  layers: readonly Layer[];
  floor_m: number;
  baseColour: string;
  preview: SectionPreview;
  caption: string;
  /** What it lies on: metal unless told. */
  ground?: string;
}

/** The film as a vertical cut, to scale: metal, primer, base, clear, its doubt, the floor, what is planned to come off. */
export function FilmSection({ layers: mean, floor_m, baseColour, preview, caption, ground = "metal" }: FilmSectionProps) {
  const units = useUnits();
  const id = useId();
  const layers = preview.here ? atPlace(mean, preview.here) : mean;
  const stacked = layers.reduce<(Layer & { bottom_m: number })[]>((list, layer) => {
    const last = list.at(-1);
    return [...list, { ...layer, bottom_m: last ? last.bottom_m + last.thickness_m : 0 }];
  }, []);
  const top_m = stacked.reduce((a, l) => a + l.thickness_m, 0);
  const base_m = stacked.filter((l) => l.tone !== "clear").reduce((a, l) => a + l.thickness_m, 0);
  const clears = stacked.filter((l) => l.tone === "clear");
  const clear_m = top_m - base_m;
  const u_m = clears.at(-1)?.u_m ?? 0;
  const doubt_m = COVERAGE * u_m;
  const coat_m = preview.coat?.dry_m ?? 0;
  const extent_m = Math.max(top_m + doubt_m + coat_m, base_m + floor_m) * 1.07;
  const y = scaleLinear([0, extent_m], [HEIGHT - STEEL, 16]);
  const span = (low_m: number, high_m: number) => ({ y: y(high_m), height: Math.max(0, y(low_m) - y(high_m)) });
  const fill = (l: Layer, i: number) =>
    l.tone === "clear"
      ? `var(--clear-${clears.findIndex((c) => c.key === l.key) % 2 === 0 ? 1 : 2})`
      : l.tone === "base"
        ? baseColour
        : `var(--${l.tone === "under" ? "primer" : i === 0 ? "ecoat" : "primer"})`;
  const { labels } = useLabels({ stacked, y, base_m, floor_m, preview, top_m, coat_m });
  const text = describe();
  return (
    <figure className="min-w-0">
      <figcaption className="small-label pb-2">{preview.here?.caption ?? caption}</figcaption>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="settle h-auto max-h-[64dvh] w-full" role="img" aria-label={text}>
        <Patterns {...{ id }} />
        <rect x="0" width={BAR} y={HEIGHT - STEEL} height={STEEL - 2} fill={`url(#${id}-steel)`} />
        <text x={BAR + 10} y={HEIGHT - 9} fontSize="13" fill="var(--ink2)">
          {ground}
        </text>
        {stacked.map((l, i) => (
          <rect
            key={l.key}
            x="0"
            width={BAR}
            {...span(l.bottom_m, l.bottom_m + l.thickness_m)}
            fill={fill(l, i)}
            stroke="var(--paper)"
            strokeWidth="1"
          />
        ))}
        {clear_m > 0 && u_m > 0 && <rect x="0" width={BAR} {...span(top_m, top_m + doubt_m)} fill={`url(#${id}-doubt)`} />}
        {preview.coat && (
          <rect
            x="1"
            width={BAR - 2}
            {...span(top_m, top_m + coat_m)}
            fill="var(--glow-wash)"
            stroke="var(--glow-ink)"
            strokeWidth="1.5"
            strokeDasharray="5 4"
          />
        )}
        {preview.removal && (
          <rect x="0" width={BAR} {...span(Math.max(base_m - 4e-6, top_m - preview.removal.removal_m), top_m)} fill={`url(#${id}-off)`} />
        )}
        <line
          x1="0"
          x2={BAR + 8}
          y1={y(base_m + floor_m)}
          y2={y(base_m + floor_m)}
          stroke="var(--ink)"
          strokeWidth="1.7"
          strokeDasharray="1 4"
          strokeLinecap="round"
        />
        {labels.map((l) => (
          <LayerName key={l.key} {...{ l }} />
        ))}
      </svg>
      <p className="text-[13px] text-ink2">
        {units.film}; clear{" "}
        {clears.length
          ? `${showWithUncertainty("film", clear_m, u_m, units).text} in all, ${HOW_WORDS[clears[0]!.how]}`
          : "not sprayed yet"}
        {stacked.some((l) => l.how === "inferred" && l.tone !== "clear") && "; layers below by usual share"}
      </p>
    </figure>
  );

  function describe(): string {
    const parts = stacked.map((l) => `${l.name} ${show("film", l.thickness_m, units).text}`);
    const off = preview.removal ? ` ${show("film", preview.removal.removal_m, units).text} ${units.film} is planned to come off.` : "";
    const on = preview.coat ? ` ${preview.coat.name} would add ${show("film", coat_m, units).text} ${units.film}.` : "";
    return `Section of the film in ${units.film}, from the ${ground} up: ${parts.join(", ")}. Clear ${show("film", clear_m, units).text} in all, minimum ${showFilm(floor_m, units).text}.${off}${on}`;
  }
}

/** What stands beside the section, spread so that nothing covers another. */
function useLabels({
  stacked,
  y,
  base_m,
  floor_m,
  preview,
  top_m,
  coat_m,
}: {
  stacked: (Layer & { bottom_m: number })[];
  y: LinearScale;
  base_m: number;
  floor_m: number;
  preview: SectionPreview;
  top_m: number;
  coat_m: number;
}) {
  const units = useUnits();
  const labels = spread([
    ...stacked.map((l) => ({
      key: l.key,
      y: y(l.bottom_m + l.thickness_m / 2) + 4,
      name: l.name,
      value: showFilm(l.thickness_m, units).text,
      tone: "plain" as const,
    })),
    {
      key: "floor",
      y: y(base_m + floor_m) - 3,
      name: "minimum",
      value: showFilm(floor_m, units).text,
      tone: "floor" as const,
    },
    ...(preview.removal
      ? [
          {
            key: "removal",
            y: y(top_m) + 2,
            name: "off",
            value: showWithUncertainty("film", preview.removal.removal_m, preview.removal.u_m, units).text,
            tone: "stop" as const,
          },
        ]
      : []),
    ...(preview.coat
      ? [
          {
            key: "coat",
            y: y(top_m + coat_m / 2) + 4,
            name: preview.coat.name,
            value: showWithUncertainty("film", coat_m, preview.coat.u_m, units).text,
            tone: "glow" as const,
          },
        ]
      : []),
  ]);
  return { labels };
}

/** Hatching of steel and of what is to come. */
function Patterns({ id }: { id: string }) {
  return (
    <defs>
      <pattern id={`${id}-steel`} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="7" height="7" fill="var(--steel)" />
        <rect width="2" height="7" fill="var(--steel-2)" />
      </pattern>
      <pattern id={`${id}-off`} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
        <rect width="6" height="6" fill="var(--paper)" opacity="0.82" />
        <rect width="1.9" height="6" fill="var(--stop)" />
      </pattern>
      <linearGradient id={`${id}-doubt`} x1="0" y1="1" x2="0" y2="0">
        <stop offset="0" stopColor="var(--clear-2)" />
        <stop offset="1" stopColor="var(--clear-2)" stopOpacity="0" />
      </linearGradient>
    </defs>
  );
}

/** What a layer is, and how thick. */
function LayerName({ l }: { l: { key: string; y: number; name: string; value: string; tone: "plain" | "floor" | "stop" | "glow" } }) {
  return (
    <g
      fontSize="13"
      fill={
        l.tone === "stop" ? "var(--stop-ink)" : l.tone === "glow" ? "var(--glow-ink)" : l.tone === "floor" ? "var(--ink)" : "var(--ink2)"
      }
      fontWeight={l.tone === "plain" ? 450 : 640}
    >
      <text x={BAR + 10} y={l.y}>
        {l.name}
      </text>
      <text x={WIDTH} y={l.y} textAnchor="end" fontWeight="640" fill={l.tone === "plain" ? "var(--ink)" : undefined}>
        {l.value}
      </text>
    </g>
  );
}

/** The layers with their clear scaled to what is at one place; the layers below stay those of the panel. */
function atPlace(layers: readonly Layer[], { clear_m, u_m }: { clear_m: number; u_m: number }): Layer[] {
  const clears = layers.filter((l) => l.tone === "clear");
  const whole = clears.reduce((a, l) => a + l.thickness_m, 0);
  const last = clears.at(-1);
  return layers.map((l) =>
    l.tone !== "clear" || whole <= 0
      ? l
      : { ...l, thickness_m: (l.thickness_m * Math.max(0, clear_m)) / whole, u_m: l === last ? u_m : null },
  );
}

/** Moves labels apart so that none lies on another; keeps their order from top to bottom. */
function spread<T extends { y: number }>(labels: readonly T[]): T[] {
  const sorted = [...labels].sort((a, b) => a.y - b.y);
  for (let i = 1; i < sorted.length; i++) sorted[i] = { ...sorted[i]!, y: Math.max(sorted[i]!.y, sorted[i - 1]!.y + LABEL_GAP) };
  const limit = HEIGHT - STEEL - 2;
  for (let i = sorted.length - 1; i >= 0; i--) {
    const below = sorted[i + 1]?.y ?? limit + LABEL_GAP;
    sorted[i] = { ...sorted[i]!, y: Math.min(sorted[i]!.y, below - LABEL_GAP) };
  }
  return sorted;
}
