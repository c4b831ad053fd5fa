import { useEffect, useRef } from "react";
import { type Polygon, boundingBox } from "#core/kernel/geometry/geometry";
import { MM, svgPath } from "~/kit/ui/svg-path";
import type { BenchClient } from "./bench-client";

/** So much is seen beside the part: the gun runs past its edges. */
const BESIDE_M = 0.15;

/** What is seen of a part and beside it. */
export function viewOf(outline: Polygon): { x: number; y: number; w: number; h: number } {
  const { x0, y0, x1, y1 } = boundingBox(outline);
  return { x: x0 - BESIDE_M, y: y0 - BESIDE_M, w: x1 - x0 + 2 * BESIDE_M, h: y1 - y0 + 2 * BESIDE_M };
}

/** The panel as the bench shows it, cut by its outline, with what is drawn over it. */
export function PanelFrame({
  client,
  outline,
  frame,
  className,
  label,
  above,
  children,
}: {
  client: BenchClient;
  outline: Polygon;
  frame: React.RefObject<HTMLDivElement | null>;
  className: string;
  label: string;
  /** Beside the drawing, in a layer of its own. */
  above?: React.ReactNode;
  children: React.ReactNode;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    client.shows(canvas.current);
    return () => client.shows(null);
  }, [client]);
  const view = viewOf(outline);
  const at = (from: number, of: number) => `${(100 * from) / of}%`;
  return (
    <div
      ref={frame}
      data-testid="stage"
      className={`relative mx-auto w-full lg:max-w-[calc((100dvh-310px)*var(--shape))] touch-none select-none overflow-hidden ${className}`}
      style={{ aspectRatio: `${view.w} / ${view.h}`, "--shape": view.w / view.h } as React.CSSProperties}
    >
      <canvas
        ref={canvas}
        aria-hidden
        className="absolute"
        style={{
          left: at(BESIDE_M, view.w),
          top: at(BESIDE_M, view.h),
          width: at(view.w - 2 * BESIDE_M, view.w),
          height: at(view.h - 2 * BESIDE_M, view.h),
        }}
      />
      <svg
        viewBox={`${view.x * MM} ${view.y * MM} ${view.w * MM} ${view.h * MM}`}
        className="absolute inset-0 size-full"
        role="application"
        tabIndex={0}
        aria-roledescription="practice bench"
        aria-label={label}
      >
        <path
          d={`M${view.x * MM} ${view.y * MM}h${view.w * MM}v${view.h * MM}h${-view.w * MM}Z${svgPath(outline)}Z`}
          fillRule="evenodd"
          fill="var(--paper)"
        />
        <path d={`${svgPath(outline)}Z`} fill="none" stroke="var(--edge)" strokeWidth="1.5" vectorEffect="non-scaling-stroke" />
        {children}
      </svg>
      {above}
    </div>
  );
}
