import { boundingBox } from "#core/kernel/geometry/geometry";
import { passAt } from "#core/models/spray/pass-at";
import { type Pass, placeOnPass } from "#core/models/spray/strokes";
import type { BoothPanel } from "#server/views/booth-view";
import { MM, svgPath } from "~/kit/ui/svg-path";

const PAD_M = 0.03;

/** The planned rows of the coat, one after the other: while it is sprayed, the one that the hand is on by its pace. @param elapsed_s since it was started; null: it is still to come */
export function BoothPath({ path, elapsed_s }: { path: NonNullable<BoothPanel["path"]>; elapsed_s: number | null }) {
  const { outline, passes, handSpeed_m_s } = path;
  const on = elapsed_s === null ? null : passAt(passes, { handSpeed_m_s }, elapsed_s);
  const ends = (p: Pass) => [p.x0_m, p.x1_m].map((along) => placeOnPass(p, along)).map(({ x_m, y_m }) => [x_m, y_m] as const);
  const { x0, x1, y0, y1 } = boundingBox([...outline, ...passes.flatMap(ends)]);
  const unit = Math.max(x1 - x0, y1 - y0) * MM;
  const done = elapsed_s !== null && on === null;
  return (
    <figure data-testid="booth-path" data-row={on ?? (done ? passes.length : "")}>
      <svg
        viewBox={`${(x0 - PAD_M) * MM} ${(y0 - PAD_M) * MM} ${(x1 - x0 + 2 * PAD_M) * MM} ${(y1 - y0 + 2 * PAD_M) * MM}`}
        className="block max-h-[34dvh] w-full max-w-xl"
        aria-hidden
      >
        <path d={`${svgPath(outline)}Z`} fill="none" stroke="var(--ink)" strokeWidth={unit * 0.004} />
        {passes.map((p, n) => (
          <path
            key={n}
            d={svgPath(ends(p))}
            fill="none"
            strokeLinecap="round"
            stroke={n === on ? "var(--glow-ink)" : "var(--edge)"}
            strokeOpacity={done || (on !== null && n < on) ? 0.35 : 1}
            strokeWidth={unit * (n === on ? 0.016 : 0.004)}
          />
        ))}
      </svg>
      <figcaption className="text-[18px] text-ink2">
        {on === null
          ? `${passes.length} rows${done ? ", all of them by the clock" : ""}`
          : `row ${on + 1} of ${passes.length}, by the pace of the plan`}
      </figcaption>
    </figure>
  );
}
