import { line as d3Line } from "d3-shape";
import type { CupPoint, GunCurve } from "#core/models/spray/gun-curve";
import { gunFlow } from "#core/models/spray/gun-curve";
import { fromSi } from "#core/kernel/units/convert";
import { preferredUnit } from "#core/kernel/units/quantities";
import { useUnits } from "~/kit/root/use-root";
import { scaleLinear } from "~/kit/ui/linear-scale";

const W = 420;
const H = 230;
const M = { left: 46, right: 14, top: 24, bottom: 34 };
const STEP_TURNS = 0.1;

/** Fluid rate against the needle's turns: the cups, the curve through them with its doubt, and the needle now. */
export function FlowCurve({
  curve,
  cups,
  turns,
  allTurns,
}: {
  curve: GunCurve | null;
  cups: readonly CupPoint[];
  turns: number;
  allTurns: number;
}) {
  const units = useUnits();
  const unit = preferredUnit("fluidRate", units);
  const rate = (si: number) => fromSi("fluidRate", si, unit);
  const at = Array.from({ length: Math.round((allTurns - 0.2) / STEP_TURNS) + 1 }, (_, i) => 0.2 + i * STEP_TURNS).map((t) => ({
    t,
    ...gunFlow(curve, t, cups),
  }));
  const most = Math.max(...at.map((p) => rate(p.fluidRate_m3_s + p.u_m3_s)), ...cups.map((c) => rate(c.volume_m3 / c.time_s)));
  const x = scaleLinear([0, allTurns], [M.left, W - M.right]);
  const y = scaleLinear([0, most * 1.05], [H - M.bottom, M.top]);
  const path = d3Line<(typeof at)[number]>(
    (p) => x(p.t),
    (p) => y(rate(p.fluidRate_m3_s)),
  )(at);
  const band = [
    ...at.map((p) => `${x(p.t)},${y(rate(p.fluidRate_m3_s + p.u_m3_s))}`),
    ...at.toReversed().map((p) => `${x(p.t)},${y(rate(Math.max(0, p.fluidRate_m3_s - p.u_m3_s)))}`),
  ].join(" ");
  const now = gunFlow(curve, turns, cups);
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      className="h-auto w-full max-w-[460px]"
      role="img"
      fontSize="13"
      aria-label={`Fluid against turns: ${rate(now.fluidRate_m3_s).toFixed(0)} ${unit} at ${turns} turns, ${cups.length} cups`}
    >
      {y.ticks(4).map((v) => (
        <g key={v}>
          <line x1={M.left} x2={W - M.right} y1={y(v)} y2={y(v)} stroke="var(--hair)" />
          <text x={M.left - 6} y={y(v) + 4} textAnchor="end" fill="var(--ink2)">
            {v}
          </text>
        </g>
      ))}
      {x.ticks(allTurns).map((v) => (
        <text key={v} x={x(v)} y={H - M.bottom + 18} textAnchor="middle" fill="var(--ink2)">
          {v}
        </text>
      ))}
      <text x={W - M.right} y={H - 2} textAnchor="end" fill="var(--ink2)">
        turns out →
      </text>
      <text x={4} y={14} fill="var(--ink2)">
        ↑ {unit}
      </text>
      <polygon points={band} fill="var(--glow-wash)" />
      <path d={path ?? ""} fill="none" stroke="var(--glow-ink)" strokeWidth="2.2" strokeDasharray={curve ? undefined : "5 4"} />
      {cups.map((c, i) => (
        <rect key={i} x={x(c.turns) - 4.5} y={y(rate(c.volume_m3 / c.time_s)) - 4.5} width="9" height="9" fill="var(--ink)" />
      ))}
      <circle
        cx={x(Math.min(allTurns, turns))}
        cy={y(rate(now.fluidRate_m3_s))}
        r="7"
        fill="var(--moon)"
        stroke="var(--ink)"
        strokeWidth="3"
      />
    </svg>
  );
}
