import { UNLOGGED_AIR_K } from "#core/models/trade-limits";
import { extent } from "d3-array";
import { type Result, type SprayedPanel, resultOf } from "#core/panel/next-time";
import { fromSi } from "#core/kernel/units/convert";
import { showFilm } from "#core/kernel/units/format";
import { useUnits } from "~/kit/root/use-root";
import { ScrollRegion } from "~/kit/ui/scroll-region";
import { scaleLinear } from "~/kit/ui/linear-scale";

const W = 720;
const H = 300;
const M = { left: 52, right: 20, top: 26, bottom: 42 };
const WORDS: Record<Result, string> = { good: "good", ran: "ran", peeled: "peeled", other: "another fault" };
const COLOURS: Record<Result, string> = { good: "var(--glow-ink)", ran: "var(--stop)", peeled: "var(--amber-ink)", other: "var(--ink2)" };
/** Signs by result, so that colour is never alone: a ring, a drop, waves, a square. */
const SIGNS: Record<Result, string> = {
  good: "M6 0A6 6 0 1 1-6 0 6 6 0 1 1 6 0",
  ran: "M0-7C5-1 6 2 6 4A6 5 0 0 1-6 4C-6 2-5-1 0-7Z",
  peeled: "M-7-3q3.5-4 7 0t7 0M-7 3q3.5-4 7 0t7 0",
  other: "M-5-5h10v10h-10Z",
};

/** Wet film of the last coat against the booth's air, each panel with what came of it. */
export function SettingsChart({ panels, here_K }: { panels: readonly SprayedPanel[]; here_K: number | null }) {
  const units = useUnits();
  const wet = (p: SprayedPanel) => fromSi("film", p.wet_m, units.film);
  const air = (p: SprayedPanel) => fromSi("temperature", p.air_K ?? UNLOGGED_AIR_K, units.temperature);
  const spread = (values: readonly number[], least: number): [number, number] => {
    const [low = 0, high = 1] = extent(values);
    const pad = Math.max(least, 0.15 * (high - low));
    return [low - pad, high + pad];
  };
  const x = scaleLinear(spread(panels.map(wet), fromSi("film", 5e-6, units.film)), [M.left, W - M.right]).nice();
  const y = scaleLinear(spread(panels.map(air), 2), [H - M.bottom, M.top]).nice();
  const results = [...new Set(panels.map(resultOf))];
  const text = panels
    .map(
      (p) =>
        `${p.what}: ${showFilm(p.wet_m, units).text} ${units.film} wet at ${air(p).toFixed(0)} ${units.temperature}, ${WORDS[resultOf(p)]}`,
    )
    .join("; ");
  return (
    <ScrollRegion label="Chart of settings and results" className="mt-2">
      <svg viewBox={`0 0 ${W} ${H}`} className="h-auto w-full min-w-[560px]" fontSize="13" role="img" aria-label={text}>
        {x.ticks(6).map((t) => (
          <g key={t}>
            <line x1={x(t)} x2={x(t)} y1={M.top} y2={H - M.bottom} stroke="var(--hair)" />
            <text x={x(t)} y={H - M.bottom + 18} textAnchor="middle" fill="var(--ink2)">
              {t}
            </text>
          </g>
        ))}
        {y.ticks(5).map((t) => (
          <g key={t}>
            <line x1={M.left} x2={W - M.right} y1={y(t)} y2={y(t)} stroke="var(--hair)" />
            <text x={M.left - 8} y={y(t) + 4} textAnchor="end" fill="var(--ink2)">
              {t}
            </text>
          </g>
        ))}
        <text x={W - M.right} y={H - 6} textAnchor="end" fill="var(--ink2)">
          wet film of the last coat, {units.film}
        </text>
        <text x={M.left - 44} y={M.top - 10} fill="var(--ink2)">
          air, {units.temperature}
        </text>
        {here_K !== null && (
          <line
            x1={M.left}
            x2={W - M.right}
            y1={y(fromSi("temperature", here_K, units.temperature))}
            y2={y(fromSi("temperature", here_K, units.temperature))}
            stroke="var(--ink)"
            strokeDasharray="1 4"
            strokeLinecap="round"
            strokeWidth="1.6"
          />
        )}
        {panels.map((p) => {
          const r = resultOf(p);
          return (
            <path
              key={p.panelId}
              d={SIGNS[r]}
              transform={`translate(${x(wet(p))} ${y(air(p))})`}
              fill={r === "peeled" ? "none" : COLOURS[r]}
              stroke={COLOURS[r]}
              strokeWidth="2"
            >
              <title>{`${p.what}: ${WORDS[r]}`}</title>
            </path>
          );
        })}
        {results.map((r, i) => (
          <Legend key={r} {...{ r, i }} />
        ))}
      </svg>
    </ScrollRegion>
  );
}

/** A result with its sign. */
function Legend({ r, i }: { r: Result; i: number }) {
  return (
    <g transform={`translate(${M.left + 110 + i * 120} ${M.top - 14})`}>
      <path d={SIGNS[r]} fill={r === "peeled" ? "none" : COLOURS[r]} stroke={COLOURS[r]} strokeWidth="2" />
      <text x="13" y="5" fill="var(--ink)">
        {WORDS[r]}
      </text>
    </g>
  );
}
