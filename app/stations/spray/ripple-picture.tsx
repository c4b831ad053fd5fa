import { area as d3Area } from "d3-shape";
import { rippleProfile } from "#core/models/spray/gun-curve";
import { patternRipple } from "#core/models/spray/pattern-ripple";
import { scaleLinear } from "~/kit/ui/linear-scale";

const W = 420;
const H = 120;
const TOP = 22;
const FANS = 4;
const COUNT = 240;

/** Film across overlapping passes: how even this overlap can be at best. */
export function RipplePicture({ overlap }: { overlap: number }) {
  const film = rippleProfile(overlap, { count: COUNT, width_fans: FANS });
  const { cv, peak, least } = patternRipple(overlap);
  const x = scaleLinear([0, FANS], [0, W]);
  const y = scaleLinear([0, 1.6], [H, TOP]);
  const shape = d3Area<(typeof film)[number]>()
    .x((p) => x(p.at_fans))
    .y0(H)
    .y1((p) => y(p.film))(film);
  const index = 1 - overlap;
  const per = (v: number) => Math.round(v * 100);
  return (
    <figure>
      <svg
        viewBox={`0 0 ${W} ${H}`}
        className="h-auto w-full max-w-[460px]"
        role="img"
        fontSize="13"
        aria-label={`Film across passes at ${per(overlap)} % overlap: thickest ${per(peak)} %, thinnest ${per(least)} % of the mean`}
      >
        <path d={shape ?? ""} fill="var(--glow-wash)" stroke="var(--glow-ink)" strokeWidth="2" />
        <line x1={0} x2={W} y1={y(1)} y2={y(1)} stroke="var(--ink2)" strokeDasharray="4 4" />
        {Array.from({ length: Math.min(24, Math.floor(FANS / index) + 1) }, (_, k) => (
          <path
            key={k}
            d={`M${x(k * index)},${TOP - 6}h${x(1)}`}
            stroke="var(--ink2)"
            opacity="0.35"
            strokeWidth="2"
            transform={`translate(0 ${(k % 3) * 4 - 10})`}
          />
        ))}
      </svg>
      <figcaption className="text-[14px]">
        {per(overlap)} % overlap: thickest {per(peak)} %, thinnest {per(least)} % of the mean, ripple {(cv * 100).toFixed(1)} %.
      </figcaption>
    </figure>
  );
}
