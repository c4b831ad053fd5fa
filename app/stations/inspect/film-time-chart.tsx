import { area, curveStepAfter, line } from "d3-shape";
import type { FilmMoment } from "#core/judge/film-history";
import { fromSi } from "#core/kernel/units/convert";
import { COVERAGE, showFilm } from "#core/kernel/units/format";
import { useUnits } from "~/kit/root/use-root";
import { scaleLinear, type LinearScale } from "~/kit/ui/linear-scale";

const W = 820;
const H = 330;
const M = { left: 46, right: 18, top: 30, bottom: 74 };

interface Level {
  clear_m: number;
  u_m: number;
}
const WORDS = { coat: "sprayed", read: "read", step: "worked" } as const;

interface FilmTimeChartProps {
  moments: readonly FilmMoment[];
  clearOf: (m: FilmMoment) => Level | null;
  floor_m: number;
}

/** Events one after another, evenly spaced: what matters is what each did, not how long the night was between. */
export function FilmTimeChart({ moments, clearOf, floor_m }: FilmTimeChartProps) {
  const units = useUnits();
  const levels = moments.flatMap((m) => [m.predicted, clearOf(m)].flatMap((l) => (l ? [l.clear_m + COVERAGE * l.u_m] : [])));
  const { y, band, middle, at, predicted, x } = useDrawnFilm({ floor_m, levels, moments });
  const found = moments.flatMap((m, i) => {
    const c = clearOf(m);
    return c ? [{ i, ...c, read: m.kind === "read" }] : [];
  });
  const text = moments
    .map((m) => {
      const c = clearOf(m);
      return `${m.what}: predicted ${m.predicted ? showFilm(m.predicted.clear_m, units).text : "nothing"}, by readings ${c ? showFilm(c.clear_m, units).text : "nothing"}`;
    })
    .join("; ");
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      className="h-auto w-full min-w-0"
      fontSize="13"
      role="img"
      aria-label={`Clear through time in ${units.film}. ${text}.`}
    >
      {y.ticks(5).map((t) => (
        <g key={t}>
          <line x1={M.left} x2={W - M.right} y1={y(t)} y2={y(t)} stroke="var(--hair)" />
          <text x={M.left - 8} y={y(t) + 4} textAnchor="end" fill="var(--ink2)">
            {t}
          </text>
        </g>
      ))}
      <text x={M.left - 40} y={M.top - 14} fill="var(--ink2)">
        clear, {units.film}
      </text>
      <path d={band ?? ""} fill="var(--clear-1)" opacity="0.55" />
      <path d={middle ?? ""} fill="none" stroke="var(--glow-ink)" strokeWidth="2" strokeDasharray="6 4" />
      <line
        x1={M.left}
        x2={W - M.right}
        y1={at(floor_m)}
        y2={at(floor_m)}
        stroke="var(--ink)"
        strokeWidth="1.7"
        strokeDasharray="1 4"
        strokeLinecap="round"
      />
      <text x={W - M.right} y={at(floor_m) - 5} textAnchor="end" fill="var(--ink)" fontWeight="640">
        floor {showFilm(floor_m, units).text}
      </text>
      {predicted[0] && (
        <text
          x={x(predicted[0].i) + 4}
          y={at(predicted[0].clear_m + COVERAGE * predicted[0].u_m) - 6}
          fill="var(--glow-ink)"
          fontWeight="640"
        >
          predicted
        </text>
      )}
      {found.map((d, k) => (
        <Found key={d.i} {...{ d, x, at, k, found }} />
      ))}
      {moments.map((m, i) => (
        <g key={i} transform={`translate(${x(i)} ${H - M.bottom + 16}) rotate(${moments.length > 8 ? 28 : 0})`}>
          <text textAnchor={moments.length > 8 ? "start" : "middle"} fill="var(--ink)" fontWeight="560">
            {m.kind === "read" ? `read ${m.what}` : m.what.replace(/^Run: /, "run, ")}
          </text>
          {moments.length <= 8 && (
            <text y="16" textAnchor="middle" fill="var(--ink2)">
              {WORDS[m.kind]}
            </text>
          )}
        </g>
      ))}
    </svg>
  );
}

/** The scales, and the predicted film as a line with its band. */
function useDrawnFilm({ floor_m, levels, moments }: { floor_m: number; levels: number[]; moments: readonly FilmMoment[] }) {
  const units = useUnits();
  const top = fromSi("film", Math.max(floor_m * 1.3, ...levels) * 1.06, units.film);
  const x = scaleLinear([-0.5, moments.length - 0.5], [M.left, W - M.right]);
  const y = scaleLinear([0, top], [H - M.bottom, M.top]);
  const at = (m: number) => y(fromSi("film", m, units.film));
  const predicted = moments.flatMap((m, i) => (m.predicted ? [{ i, ...m.predicted }] : []));
  // The last step runs on to the end of its event.
  const steps = predicted.length ? [...predicted, { ...predicted.at(-1)!, i: predicted.at(-1)!.i + 0.5 }] : [];
  const band = area<(typeof steps)[number]>()
    .x((d) => x(d.i))
    .y0((d) => at(Math.max(0, d.clear_m - COVERAGE * d.u_m)))
    .y1((d) => at(d.clear_m + COVERAGE * d.u_m))
    .curve(curveStepAfter)(steps);
  const middle = line<(typeof steps)[number]>()
    .x((d) => x(d.i))
    .y((d) => at(d.clear_m))
    .curve(curveStepAfter)(steps);
  return { y, band, middle, at, predicted, x };
}

/** A film by readings with its doubt. */
function Found({
  d,
  x,
  at,
  k,
  found,
}: {
  d: { read: boolean; clear_m: number; u_m: number; i: number };
  x: LinearScale;
  at: (m: number) => number;
  k: number;
  found: { read: boolean; clear_m: number; u_m: number; i: number }[];
}) {
  const units = useUnits();
  return (
    <g stroke="var(--ink)" strokeWidth="2">
      <path d={`M${x(d.i)} ${at(d.clear_m - COVERAGE * d.u_m)}V${at(d.clear_m + COVERAGE * d.u_m)}`} />
      <circle cx={x(d.i)} cy={at(d.clear_m)} r="5.5" fill={d.read ? "var(--ink)" : "var(--paper)"} />
      {(d.read || k === found.length - 1) && (
        <text
          x={x(d.i)}
          y={at(d.clear_m + COVERAGE * d.u_m) - 7}
          textAnchor="middle"
          stroke="var(--paper)"
          strokeWidth="4"
          paintOrder="stroke"
          fill="var(--ink)"
          fontWeight="640"
        >
          {showFilm(d.clear_m, units).text}
        </text>
      )}
    </g>
  );
}
