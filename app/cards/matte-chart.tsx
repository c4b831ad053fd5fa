import { line as d3Line } from "d3-shape";
import type { MatteAnswer, MatteCurve } from "#core/models/gloss/matte-fit";
import { scaleLinear, scaleLog, type LinearScale } from "~/kit/ui/linear-scale";

const W = 620;
const H = 360;
const M = { left: 52, right: 18, top: 26, bottom: 44 };
const STEPS = 80;
const TICKS = [1, 2, 5, 10, 20, 50, 100];

/** Cards, the curve through them, the target and the span of the mix that gives it. */
export function MatteChart({
  cards,
  curve,
  answer,
  target_GU,
}: {
  cards: readonly { id: string; label: string; share: number; gloss_GU: number }[];
  curve: MatteCurve | null;
  answer: MatteAnswer | null;
  target_GU: number | null;
}) {
  const all = [...cards.map((c) => c.gloss_GU), ...(target_GU ? [target_GU] : [])].filter((g) => g > 0);
  const low = Math.max(0.5, Math.min(...all, 5) * 0.7);
  const high = Math.max(...all, 50) * 1.25;
  const x = scaleLinear([0, 1], [M.left, W - M.right]);
  const y = scaleLog([low, high], [H - M.bottom, M.top]);
  const shares = cards.map((c) => c.share);
  const [from, to] = [Math.min(...shares), Math.max(...shares)];
  const path =
    curve &&
    d3Line<number>(
      (s) => x(s),
      (s) => y(curve.at(s)),
    )(Array.from({ length: STEPS + 1 }, (_, i) => from + ((to - from) * i) / STEPS));
  const against = new Set(answer?.against ?? curve?.against ?? []);
  /** A label goes above its card at the right end, and where another card of the same mix lies below. */
  const above = (c: { share: number; gloss_GU: number }) =>
    c.share > 0.9 || cards.some((o) => Math.abs(o.share - c.share) < 0.04 && o.gloss_GU < c.gloss_GU);
  const text = `Gloss at 60° against share of matting component. Cards: ${cards.map((c) => `${c.label} ${Math.round(c.share * 100)} % ${c.gloss_GU.toFixed(1)} GU`).join(", ") || "none"}.${
    answer && target_GU
      ? ` For ${target_GU} GU: ${(answer.share * 100).toFixed(1)} %, between ${(answer.low * 100).toFixed(1)} and ${(answer.high * 100).toFixed(1)} %.`
      : ""
  }`;
  return (
    <svg viewBox={`0 0 ${W} ${H}`} className="h-auto w-full" role="img" aria-label={text} fontSize="13">
      {TICKS.filter((t) => t >= low && t <= high).map((t) => (
        <g key={t}>
          <line x1={M.left} x2={W - M.right} y1={y(t)} y2={y(t)} stroke="var(--hair)" />
          <text x={M.left - 8} y={y(t) + 4} textAnchor="end" fill="var(--ink2)">
            {t}
          </text>
        </g>
      ))}
      {[0, 0.25, 0.5, 0.75, 1].map((s) => (
        <text key={s} x={x(s)} y={H - M.bottom + 20} textAnchor="middle" fill="var(--ink2)">
          {s * 100}
        </text>
      ))}
      <text x={M.left} y={14} fill="var(--ink2)">
        ↑ GU at 60°
      </text>
      <text x={W - M.right} y={H - 6} textAnchor="end" fill="var(--ink2)">
        matting component by weight, % →
      </text>
      {answer && <Range {...{ x, answer }} />}
      {target_GU !== null && (
        <>
          <line
            x1={M.left}
            x2={W - M.right}
            y1={y(target_GU)}
            y2={y(target_GU)}
            stroke="var(--ink)"
            strokeDasharray="1 4"
            strokeWidth="1.7"
            strokeLinecap="round"
          />
          <text x={M.left + 6} y={y(target_GU) - 7} fontWeight="650" fill="var(--ink)">
            target {target_GU} GU
          </text>
        </>
      )}
      {path && <path d={path} fill="none" stroke="var(--ink)" strokeWidth="2" />}
      {cards.map((c) => (
        <CardMark key={c.id} {...{ c, against, x, y, above }} />
      ))}
    </svg>
  );
}

/** What is wanted, with what a card may be off. */
function Range({ x, answer }: { x: LinearScale; answer: MatteAnswer }) {
  return (
    <>
      <rect
        x={x(answer.low)}
        width={Math.max(2, x(answer.high) - x(answer.low))}
        y={M.top}
        height={H - M.bottom - M.top}
        fill="var(--glow-wash)"
      />
      <line x1={x(answer.share)} x2={x(answer.share)} y1={M.top} y2={H - M.bottom} stroke="var(--glow-ink)" strokeWidth="1.6" />
      <text x={x(answer.share) + 6} y={M.top + 13} fill="var(--glow-ink)" fontWeight="650">
        {(answer.share * 100).toFixed(1)} %
      </text>
    </>
  );
}

/** A card at its share and gloss. */
function CardMark({
  c,
  against,
  x,
  y,
  above,
}: {
  c: { id: string; label: string; share: number; gloss_GU: number };
  against: Set<string>;
  x: LinearScale;
  y: (value: number) => number;
  above: (c: { share: number; gloss_GU: number }) => boolean;
}) {
  return (
    <g>
      {against.has(c.id) ? (
        <path d={`M${x(c.share) - 6},${y(c.gloss_GU) - 6}l12,12m0,-12l-12,12`} stroke="var(--stop)" strokeWidth="2.4" />
      ) : (
        <circle cx={x(c.share)} cy={y(c.gloss_GU)} r="6" fill="var(--paper)" stroke="var(--ink)" strokeWidth="2" />
      )}
      <text x={x(c.share)} y={y(c.gloss_GU) + (above(c) ? -12 : 22)} textAnchor="middle" fill="var(--ink2)">
        {c.label}
      </text>
    </g>
  );
}
