import { useEffect, useRef, useState } from "react";
import { type Polygon, boundingBox, isInside } from "#core/kernel/geometry/geometry";
import { show, showFilm } from "#core/kernel/units/format";
import type { PlaceOnPanel } from "#core/models/panel-film/over-part";
import type { Nib } from "#core/practice/job/cured";
import type { Mark, Reading } from "#core/practice/job/judged";
import { JOB_TOOLS, type JobTool } from "#core/practice/job/sanding";
import { useUnits } from "~/kit/root/use-root";
import { MM } from "~/kit/ui/svg-path";
import type { BenchClient } from "./bench-client";
import { markName } from "./job.words";
import { PanelFrame, viewOf } from "./panel-frame";

/** A tool works so long at each place it is led over, so far apart. */
export const STROKE = { seconds: 15, every_m: 0.04 } as const;
/** Keys go so far at a time. */
const STEP_M = 0.02;
/** A speck of dust as it is seen. */
const NIB_MM = 1.6;

export type Doing = { do: "read" } | { do: "mark" } | { do: "sand"; tool: JobTool };

interface JobStageProps {
  client: BenchClient;
  outline: Polygon;
  doing: Doing;
  nibs: readonly Nib[];
  readings: readonly Reading[];
  marks: readonly Mark[];
  onPlace: (at: PlaceOnPanel) => void;
}

/** A panel that has gone hard, in the light: read, marked and sanded by pointer, finger, pen or keys. */
export function JobStage({ client, outline, doing, nibs, readings, marks, onPlace }: JobStageProps) {
  const units = useUnits();
  const frame = useRef<HTMLDivElement>(null);
  const box = boundingBox(outline);
  const [at, setAt] = useState<PlaceOnPanel>({ x_m: (box.x0 + box.x1) / 2, y_m: (box.y0 + box.y1) / 2 });
  usePlace(frame, { outline, at, setAt, leads: doing.do === "sand", onPlace });
  const tool = doing.do === "sand" ? JOB_TOOLS[doing.tool] : null;
  const away = (m: number) => `${show("length", m, units).text} ${show("length", m, units).unit}`;
  return (
    <>
      <PanelFrame
        {...{ client, outline, frame }}
        className="cursor-crosshair"
        above={<Labels {...{ outline, readings, marks }} />}
        label="The panel, hard. Arrow keys move the mark over it, space reads, marks or sands there."
      >
        {nibs.map((nib) => (
          <circle
            data-testid="nib"
            key={`${nib.x_m} ${nib.y_m}`}
            cx={nib.x_m * MM}
            cy={nib.y_m * MM}
            r={NIB_MM}
            fill="var(--bench-light)"
            stroke="var(--bench-bare)"
          />
        ))}
        {readings.map((r, n) => (
          <g key={n} transform={`translate(${r.x_m * MM} ${r.y_m * MM})`}>
            <circle r="5" fill="var(--glow)" stroke="var(--paper)" strokeWidth="2" />
          </g>
        ))}
        {marks.map((m, n) => (
          <g key={n} transform={`translate(${m.x_m * MM} ${m.y_m * MM})`}>
            <circle r="26" fill="none" stroke="var(--paper)" strokeWidth="5" vectorEffect="non-scaling-stroke" />
            <circle
              r="26"
              fill="none"
              stroke="var(--stop)"
              strokeWidth="2.5"
              strokeDasharray={m.kind === "thin" ? "5 4" : undefined}
              vectorEffect="non-scaling-stroke"
            />
          </g>
        ))}
        <g transform={`translate(${at.x_m * MM} ${at.y_m * MM})`} data-testid="place-on-panel" aria-hidden>
          {tool ? (
            <rect
              x={(-tool.size_m[0] * MM) / 2}
              y={(-tool.size_m[1] * MM) / 2}
              width={tool.size_m[0] * MM}
              height={tool.size_m[1] * MM}
              fill="none"
              stroke="var(--bench-light)"
              strokeWidth="2"
              style={{ mixBlendMode: "difference" }}
              vectorEffect="non-scaling-stroke"
            />
          ) : (
            <path
              d="M-18 0H18M0 -18V18"
              stroke="var(--bench-light)"
              strokeWidth="2"
              style={{ mixBlendMode: "difference" }}
              vectorEffect="non-scaling-stroke"
            />
          )}
        </g>
      </PanelFrame>
      <p className="sr-only" aria-live="polite">
        {away(at.x_m - box.x0)} from the left, {away(at.y_m - box.y0)} from the top
      </p>
    </>
  );
}

/** Figures and numbers over the panel, as large on a telephone as on a wide screen. */
function Labels({ outline, readings, marks }: Pick<JobStageProps, "outline" | "readings" | "marks">) {
  const units = useUnits();
  const view = viewOf(outline);
  const label = ({ x_m, y_m }: PlaceOnPanel, text: string, n: number) => (
    <span
      key={n}
      className="pointer-events-none absolute -translate-x-1/2 -translate-y-[150%] rounded bg-paper px-1 text-[13px] leading-tight font-semibold"
      style={{ left: `${(100 * (x_m - view.x)) / view.w}%`, top: `${(100 * (y_m - view.y)) / view.h}%` }}
    >
      {text}
    </span>
  );
  return (
    <>
      {readings.map((r, n) => label(r, showFilm(r.film_m, units).text, n))}
      {marks.map((m, n) => label(m, markName(m, n), n))}
    </>
  );
}

/** Where on the panel something is done: at a tap, all along where a tool is led, or by keys. */
function usePlace(
  frame: React.RefObject<HTMLDivElement | null>,
  o: {
    outline: Polygon;
    at: PlaceOnPanel;
    setAt: (at: PlaceOnPanel) => void;
    leads: boolean;
    onPlace: (at: PlaceOnPanel) => void;
  },
): void {
  const now = useRef(o);
  useEffect(() => {
    now.current = o;
  });
  const { outline } = o;
  useEffect(() => {
    const on = frame.current;
    if (!on) return;
    const view = viewOf(outline);
    let down: PlaceOnPanel | null = null;
    const placeOf = (e: PointerEvent): PlaceOnPanel => {
      const box = on.getBoundingClientRect();
      return { x_m: view.x + ((e.clientX - box.left) / box.width) * view.w, y_m: view.y + ((e.clientY - box.top) / box.height) * view.h };
    };
    const does = (at: PlaceOnPanel) => {
      if (isInside([at.x_m, at.y_m], outline)) now.current.onPlace(at);
    };
    const press = (e: PointerEvent) => {
      e.preventDefault();
      on.querySelector("svg")?.focus({ preventScroll: true });
      down = placeOf(e);
      now.current.setAt(down);
      does(down);
      on.setPointerCapture(e.pointerId);
    };
    const move = (e: PointerEvent) => {
      const at = placeOf(e);
      if (isInside([at.x_m, at.y_m], outline)) now.current.setAt(at);
      if (!down || !now.current.leads || Math.hypot(at.x_m - down.x_m, at.y_m - down.y_m) < STROKE.every_m) return;
      down = at;
      does(at);
    };
    const up = () => {
      down = null;
    };
    const key = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey) return;
      const { at, setAt } = now.current;
      const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
      if (!by && e.key !== " " && e.key !== "Enter") return;
      e.preventDefault();
      e.stopPropagation();
      if (!by) return does(at);
      const next = { x_m: at.x_m + by[0]! * STEP_M, y_m: at.y_m + by[1]! * STEP_M };
      if (isInside([next.x_m, next.y_m], outline)) setAt(next);
    };
    const listens: [string, (e: never) => void][] = [
      ["pointerdown", press],
      ["pointermove", move],
      ["pointerup", up],
      ["pointercancel", up],
      ["keydown", key],
    ];
    for (const [name, hears] of listens) on.addEventListener(name, hears as EventListener);
    return () => {
      for (const [name, hears] of listens) on.removeEventListener(name, hears as EventListener);
    };
  }, [frame, outline]);
}
