import { useCallback, useEffect, useRef } from "react";
import type { Polygon } from "#core/kernel/geometry/geometry";
import type { Fibre } from "#core/practice/fibre";
import { liesBetween, rowsWanted } from "#core/practice/good-rows";
import { lyingOf } from "#core/models/spray/row-plan";
import { MM } from "~/kit/ui/svg-path";
import type { BenchClient, BenchPhase } from "./bench-client";
import { PanelFrame, viewOf } from "./panel-frame";

/** A wheel's notch, and a key's press, bring the gun so much nearer or farther. */
const DISTANCE_STEP_M = 0.005;
/** A pen pressed as hard as it goes holds the gun so much nearer than one that hardly touches. */
const PEN = { far: 1.35, span: 0.7 } as const;

interface StageProps {
  client: BenchClient;
  outline: Polygon;
  phase: BenchPhase;
  coat: number;
  /** Rows to go by; none where they are not shown. */
  guided: boolean;
  turned: boolean;
  /** A fibre on the newest coat. */
  lies: Fibre | null;
}

/** The panel on the bench with the gun over it: moved by pointer, finger, pen or keys. */
export function Stage({ client, outline, phase, coat, guided, turned, lies }: StageProps) {
  const view = viewOf(outline);
  const stage = useRef<HTMLDivElement>(null);
  const cone = useRef<HTMLDivElement>(null);
  const wanted = client.wantedOf(coat);
  const draw = useCallback(() => {
    const [at, to] = [stage.current, cone.current];
    if (!at || !to) return;
    const { x_m, y_m, distance_m, pulled } = client.gun;
    const fan_m = (wanted.fan_m * distance_m) / wanted.gun.distance_m;
    const [rx, ry] = turned ? [fan_m / 2, 0.14 * fan_m] : [0.14 * fan_m, fan_m / 2];
    const scale = at.clientWidth / view.w;
    // A layer of its own that only moves: what lies below it is not drawn again.
    to.style.transform = `translate(${(x_m - view.x - rx) * scale}px, ${(y_m - view.y - ry) * scale}px)`;
    const size = [2 * rx * scale, 2 * ry * scale].map((px) => `${px.toFixed(1)}px`);
    if (to.style.width !== size[0] || to.style.height !== size[1]) Object.assign(to.style, { width: size[0], height: size[1] });
    if (to.dataset.pulled !== String(pulled)) to.dataset.pulled = String(pulled);
  }, [client, turned, wanted, view.x, view.y, view.w]);
  useEffect(() => {
    client.tellsFrames(draw);
    draw();
    return () => client.tellsFrames(null);
  }, [client, draw]);
  useGun(stage, client, { view, step_m: wanted.fan_m / 4, draw, turned });
  const spraying = phase === "spraying";
  // The keys steer the gun as soon as a coat is begun.
  useEffect(() => {
    if (spraying) stage.current?.querySelector("svg")?.focus({ preventScroll: true });
  }, [spraying]);
  return (
    <PanelFrame
      {...{ client, outline }}
      frame={stage}
      className={spraying ? "cursor-none" : ""}
      label="The panel on the bench. Arrow keys steer the gun, space is the trigger."
      above={phase !== "told" && phase !== "working" && <div ref={cone} aria-hidden className="bench-cone" />}
    >
      {lies && <FibreMark {...lies} />}
      {guided && (
        <Guides
          outline={outline}
          turned={turned}
          fan_m={wanted.fan_m}
          overlap={wanted.gun.overlap}
          between={liesBetween(client.setting, coat)}
        />
      )}
    </PanelFrame>
  );
}

/** A fibre as it lies, light and dark so that it is seen on any colour. */
function FibreMark({ x_m, y_m, length_m, angle_rad }: Fibre) {
  const half = (length_m * MM) / 2;
  const d = `M${-half} 0Q${-half / 2} ${-half} 0 0T${half} 0`;
  return (
    <g
      transform={`translate(${x_m * MM} ${y_m * MM}) rotate(${(angle_rad * 180) / Math.PI})`}
      fill="none"
      strokeLinecap="round"
      data-testid="fibre"
    >
      <path d={d} stroke="var(--on-ramp-light)" strokeWidth="3" vectorEffect="non-scaling-stroke" />
      <path d={d} stroke="white" strokeWidth="1.2" vectorEffect="non-scaling-stroke" />
    </g>
  );
}

interface GuidesProps {
  outline: Polygon;
  turned: boolean;
  fan_m: number;
  overlap: number;
  between: boolean;
}
function Guides({ outline, turned, fan_m, overlap, between }: GuidesProps) {
  const lying = lyingOf(outline, turned);
  return (
    <g stroke="var(--on-ramp-dark)" strokeWidth="2" strokeDasharray="2 8" strokeLinecap="round">
      {rowsWanted(lying, { fan_m, overlap }, between).map(({ x0_m, x1_m, y_m }) => {
        const [a, b] = turned
          ? [
              [y_m, x0_m],
              [y_m, x1_m],
            ]
          : [
              [x0_m, y_m],
              [x1_m, y_m],
            ];
        return (
          <line
            key={y_m}
            x1={a[0]! * MM}
            y1={a[1]! * MM}
            x2={b[0]! * MM}
            y2={b[1]! * MM}
            vectorEffect="non-scaling-stroke"
            style={{ mixBlendMode: "difference" }}
          />
        );
      })}
    </g>
  );
}

/** What of a page moves the gun: a mouse's button or space pulls the trigger, of two fingers the second, of a pen its touch; wheel, pen or keys hold it nearer. */
function useGun(
  stage: React.RefObject<HTMLDivElement | null>,
  client: BenchClient,
  {
    view,
    step_m,
    draw,
    turned,
  }: { view: { x: number; y: number; w: number; h: number }; step_m: number; draw: () => void; turned: boolean },
): void {
  const { x, y, w, h } = view;
  useEffect(() => {
    const at = stage.current;
    if (!at) return;
    const { gun } = client;
    client.keepsWithin({ x0: x, x1: x + w, y0: y, y1: y + h });
    const fingers = new Map<number, true>();
    const far_m = gun.distance_m;
    const passes = (e: Event) => client.passes(e.timeStamp / 1000);
    const moves = (e: PointerEvent) => {
      const box = at.getBoundingClientRect();
      // A browser tells of a hand once a frame; where it was between is told with it.
      const way = e.getCoalescedEvents();
      for (const c of way.length > 0 ? way : [e]) {
        gun.x_m = x + ((c.clientX - box.left) / box.width) * w;
        gun.y_m = y + ((c.clientY - box.top) / box.height) * h;
        if (c.pointerType === "pen" && c.pressure > 0) gun.distance_m = far_m * (PEN.far - PEN.span * c.pressure);
        passes(c);
      }
      draw();
    };
    const down = (e: PointerEvent) => {
      at.querySelector("svg")?.focus({ preventScroll: true });
      if (e.pointerType === "touch") {
        fingers.set(e.pointerId, true);
        // The first finger holds the gun, any other the trigger.
        if (fingers.size === 1) moves(e);
        else gun.pulled = true;
        passes(e);
      } else {
        moves(e);
        gun.pulled = true;
        passes(e);
      }
      at.setPointerCapture(e.pointerId);
      e.preventDefault();
    };
    const move = (e: PointerEvent) => {
      if (e.pointerType !== "touch" || [...fingers.keys()][0] === e.pointerId) moves(e);
    };
    const up = (e: PointerEvent) => {
      fingers.delete(e.pointerId);
      if (e.pointerType !== "touch" || fingers.size < 2) gun.pulled = false;
      passes(e);
    };
    const nearer = (by: number) => {
      gun.distance_m = Math.min(0.4, Math.max(0.08, gun.distance_m + by * DISTANCE_STEP_M));
      draw();
    };
    const wheel = (e: WheelEvent) => {
      e.preventDefault();
      nearer(Math.sign(e.deltaY));
    };
    /** Along its rows the gun goes as long as a key is down, across them by a quarter of the fan. */
    const [along, across] = turned ? (["y", "x"] as const) : (["x", "y"] as const);
    const arrows: Record<string, () => void> = {
      ArrowLeft: () => (along === "x" ? (gun.steers.x = -1) : (gun.x_m -= step_m)),
      ArrowRight: () => (along === "x" ? (gun.steers.x = 1) : (gun.x_m += step_m)),
      ArrowUp: () => (across === "y" ? (gun.y_m -= step_m) : (gun.steers.y = -1)),
      ArrowDown: () => (across === "y" ? (gun.y_m += step_m) : (gun.steers.y = 1)),
      PageUp: () => nearer(1),
      PageDown: () => nearer(-1),
      " ": () => (gun.pulled = true),
      t: () => (gun.pulled = !gun.pulled),
    };
    const key = (e: KeyboardEvent) => {
      const does = arrows[e.key];
      if (!does || e.ctrlKey || e.metaKey || e.altKey) return;
      e.preventDefault();
      e.stopPropagation();
      // A key held down comes again and again: only a step across is meant by that, not a trigger.
      if (e.repeat && (e.key === " " || e.key === "t")) return;
      does();
      draw();
    };
    const keyUp = (e: KeyboardEvent) => {
      if (e.key === " ") gun.pulled = false;
      if (e.key === "ArrowLeft" || e.key === "ArrowRight") gun.steers.x = 0;
      if (e.key === "ArrowUp" || e.key === "ArrowDown") gun.steers.y = 0;
    };
    const lost = () => {
      gun.pulled = false;
      gun.steers.x = gun.steers.y = 0;
    };
    const listens: [string, (e: never) => void][] = [
      ["pointerdown", down],
      ["pointermove", move],
      ["pointerup", up],
      ["pointercancel", up],
      ["keydown", key],
      ["keyup", keyUp],
      ["focusout", lost],
    ];
    for (const [name, does] of listens) at.addEventListener(name, does as EventListener);
    at.addEventListener("wheel", wheel, { passive: false });
    return () => {
      for (const [name, does] of listens) at.removeEventListener(name, does as EventListener);
      at.removeEventListener("wheel", wheel);
    };
  }, [stage, client, x, y, w, h, step_m, draw, turned]);
}
