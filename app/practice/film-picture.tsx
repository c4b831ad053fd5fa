import { useEffect, useRef } from "react";
import { boundingBox } from "#core/kernel/geometry/geometry";
import { MM, svgPath } from "~/kit/ui/svg-path";
import type { BenchClient } from "./bench-client";

/** A film in colours, cut by the part's outline, with what is drawn over it. @param shows takes the canvas, and lets it go with null */
export function FilmPicture({
  client,
  label,
  shows,
  children,
}: {
  client: BenchClient;
  label: string;
  shows: (canvas: HTMLCanvasElement | null) => void;
  children: React.ReactNode;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const show = useRef(shows);
  useEffect(() => {
    const { current } = show;
    current(canvas.current);
    return () => current(null);
  }, []);
  const { outline } = client.setting;
  const { x0, y0, x1, y1 } = boundingBox(outline);
  const [w, h] = [(x1 - x0) * MM, (y1 - y0) * MM];
  return (
    <div className="relative w-full" style={{ aspectRatio: `${w} / ${h}` }}>
      <canvas ref={canvas} aria-hidden className="absolute inset-0 size-full" />
      <svg
        viewBox={`${x0 * MM} ${y0 * MM} ${w} ${h}`}
        className="absolute inset-0 size-full overflow-visible"
        role="img"
        aria-label={label}
      >
        <path
          d={`M${x0 * MM - 9} ${y0 * MM - 9}h${w + 18}v${h + 18}h${-w - 18}Z${svgPath(outline)}Z`}
          fillRule="evenodd"
          fill="var(--paper)"
        />
        <path d={`${svgPath(outline)}Z`} fill="none" stroke="var(--edge)" strokeWidth="1.5" vectorEffect="non-scaling-stroke" />
        {children}
      </svg>
    </div>
  );
}
