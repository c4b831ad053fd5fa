import { DndContext, PointerSensor, useSensor, useSensors } from "@dnd-kit/core";
import { useRef, useState } from "react";
import type { BoothPlan, PlannedSpray } from "#core/models/schedule/booth-plan";
import { showTimeOfDay } from "#core/kernel/units/format";
import { ScrollRegion } from "~/kit/ui/scroll-region";
import { scaleLinear } from "~/kit/ui/linear-scale";
import { CoatBar, type MovableCoat } from "./coat-bar";

export interface ChartRow {
  id: string;
  vehicle: string;
  name: string;
}
export interface ChartSprayed {
  part: string;
  coat: number;
  start_s: number;
  end_s: number;
}

const PX_PER_MIN = 7;
const ROW_PX = 56;
const LABEL_PX = 148;
/** A press that moves less is a tap. */
const GRAB_PX = 3;
/** The bar names its time itself while it moves. */
const SILENT = { onDragStart: () => undefined, onDragOver: () => undefined, onDragEnd: () => undefined, onDragCancel: () => undefined };
const MINUTE_S = 60;
const TICKS_MIN = [5, 10, 15, 30, 60, 120, 240];
const TICK_PX = 74;
const clamp = (x: number, low: number, high: number) => Math.max(low, Math.min(high, x));

interface BoothChartProps {
  plan: BoothPlan;
  rows: readonly ChartRow[];
  sprayed: readonly ChartSprayed[];
  fixed: readonly { part: string; coat: number; start_s: number }[];
  zero_s: number;
  /** A coat has been put down at a time. */
  onFix: (part: string, coat: number, start_s: number) => void;
  /** It is being moved; null: it is not any more. */
  onMove: (moved: { part: string; coat: number; start_s: number } | null) => void;
}

/**
 * The plan against time: a row a part, a bar a coat, the window of the next coat as a line behind it, pots above. A bar is moved by
 * dragging or with the arrow keys and then stays at its time.
 * @param zero_s the plan's zero after midnight
 */
export function BoothChart({ plan, rows, sprayed, fixed, zero_s, onFix, onMove }: BoothChartProps) {
  const field = useRef<HTMLDivElement>(null);
  const grabbed = useRef<MovableCoat | null>(null);
  const [drag, setDrag] = useState<{ part: string; coat: number; start_s: number } | null>(null);
  const from_s = Math.min(0, ...plan.pots.map((p) => p.mixAt_s), ...sprayed.map((s) => s.start_s));
  const to_s = Math.max(plan.end_s, MINUTE_S * 30) + MINUTE_S * 10;
  const width = ((to_s - from_s) / MINUTE_S) * PX_PER_MIN;
  const x = scaleLinear([from_s, to_s], [0, 100]);
  const at = (s: number) => `${x(s)}%`;
  const span = (a: number, b: number) => `${x(b) - x(a)}%`;
  const step_s = MINUTE_S * (TICKS_MIN.find((m) => m * PX_PER_MIN >= TICK_PX) ?? 240);
  const first = Math.ceil((zero_s + from_s) / step_s) * step_s - zero_s;
  const ticks = Array.from({ length: Math.max(0, Math.floor((to_s - first) / step_s) + 1) }, (_, i) => first + i * step_s);
  const snap = (s: number) => clamp(Math.round((zero_s + s) / MINUTE_S) * MINUTE_S - zero_s, 0, to_s);
  const products = [...new Set(plan.pots.filter((_, i) => plan.sprays.some((s) => s.pot === i)).map((p) => p.product))];
  const clock = (s: number) => showTimeOfDay(zero_s + s);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: GRAB_PX } }));
  /** Where the coat is now that is being dragged; counted from where it was grabbed, for the plan moves along with it. */
  const dragged = ({ delta }: { delta: { x: number } }) => {
    const { part, coat, start_s } = grabbed.current!;
    return { part, coat, start_s: snap(start_s + (delta.x / field.current!.getBoundingClientRect().width) * (to_s - from_s)) };
  };
  const end = () => {
    setDrag(null);
    onMove(null);
  };
  return (
    <DndContext
      id="booth"
      sensors={sensors}
      accessibility={{ screenReaderInstructions: { draggable: "Arrow keys move the coat by a minute." }, announcements: SILENT }}
      onDragStart={({ active }) => {
        grabbed.current = active.data.current as MovableCoat;
      }}
      onDragMove={(e) => {
        const to = dragged(e);
        if (to.start_s === drag?.start_s) return;
        setDrag(to);
        onMove(to);
      }}
      onDragEnd={(e) => {
        const { part, coat, start_s } = dragged(e);
        if (Math.abs(start_s - grabbed.current!.start_s) >= 1) onFix(part, coat, start_s);
        end();
      }}
      onDragCancel={end}
    >
      <ScrollRegion label="Booth plan against time">
        <div className="relative" style={{ minWidth: LABEL_PX + width }}>
          <div className="relative h-7 border-b border-hair" style={{ marginLeft: LABEL_PX }} aria-hidden>
            {ticks.map((t) => (
              <span key={t} className="absolute bottom-1 -translate-x-1/2 text-[13px] text-ink2" style={{ left: at(t) }}>
                {clock(t)}
              </span>
            ))}
          </div>
          <div ref={field} className="absolute inset-y-0 right-0" style={{ left: LABEL_PX }} aria-hidden>
            {ticks.map((t) => (
              <span key={t} className="absolute top-7 bottom-0 border-l border-hair" style={{ left: at(t) }} />
            ))}
          </div>
          {products.map((product) => (
            <PotRow key={product} {...{ product, plan, at, span, from_s, clock }} />
          ))}
          {rows.map((r) => (
            <PartRow key={r.id} {...{ r, sprayed, at, span, plan, drag, fixed, to_s, clock, onFix, snap }} />
          ))}
        </div>
      </ScrollRegion>
    </DndContext>
  );
}

/** The pots of a product. */
function PotRow({
  product,
  plan,
  at,
  span,
  from_s,
  clock,
}: {
  product: string;
  plan: BoothPlan;
  at: (s: number) => string;
  span: (a: number, b: number) => string;
  from_s: number;
  clock: (s: number) => string;
}) {
  return (
    <Row label={<PotLabel product={product} />}>
      {plan.pots.map((p, i) => {
        const used = plan.sprays.filter((s) => s.pot === i);
        if (p.product !== product || used.length === 0) return null;
        const last_s = Math.max(...used.map((s) => s.end_s));
        return (
          <span key={i}>
            <span
              className="absolute top-7 h-4 border border-edge bg-hair"
              style={{ left: at(p.mixAt_s), width: span(p.mixAt_s, p.from_s) }}
              title="mixing"
            />
            <span
              className="absolute top-7 h-4 border border-edge bg-amber-wash"
              style={{ left: at(p.from_s), width: span(p.from_s, last_s) }}
            />
            <span className="absolute top-1.5 text-[13px] whitespace-nowrap" style={{ left: at(Math.max(from_s, p.mixAt_s)) }}>
              pot {i + 1}, over at {clock(p.until_s)}
            </span>
          </span>
        );
      })}
    </Row>
  );
}

/** A part with its coats, waits and what was sprayed. */
function PartRow({
  r,
  sprayed,
  at,
  span,
  plan,
  drag,
  fixed,
  to_s,
  clock,
  onFix,
  snap,
}: {
  r: ChartRow;
  sprayed: readonly ChartSprayed[];
  at: (s: number) => string;
  span: (a: number, b: number) => string;
  plan: BoothPlan;
  drag: { part: string; coat: number; start_s: number } | null;
  fixed: readonly { part: string; coat: number; start_s: number }[];
  to_s: number;
  clock: (s: number) => string;
  onFix: (part: string, coat: number, start_s: number) => void;
  snap: (s: number) => number;
}) {
  return (
    <Row
      label={
        <>
          <b className="block truncate font-semibold">{r.name}</b>
          <span className="block truncate text-[13px] text-ink2">{r.vehicle}</span>
        </>
      }
    >
      {sprayed
        .filter((s) => s.part === r.id)
        .map((s) => (
          <span
            key={s.coat}
            className="absolute top-1 grid h-9 place-content-center border border-edge bg-hair text-[13px] text-ink2"
            style={{ left: at(s.start_s), width: span(s.start_s, s.end_s), minWidth: 14 }}
          >
            {s.coat}
          </span>
        ))}
      {plan.sprays
        .filter((s) => s.part === r.id)
        .map((s) => {
          const moving = drag?.part === s.part && drag.coat === s.coat;
          const start_s = moving ? drag.start_s : s.start_s;
          const isFixed = moving || fixed.some((f) => f.part === s.part && f.coat === s.coat);
          return (
            <span key={s.coat}>
              {s.next && !moving && (
                <span
                  className="absolute top-[46px] h-1.5 border border-glow-ink bg-glow"
                  style={{ left: at(s.next.least_s), width: span(s.next.least_s, Math.min(s.next.most_s, to_s)) }}
                  aria-hidden
                />
              )}
              <Bar {...{ s, r, clock, start_s, isFixed, at, span, onFix, snap }} />
            </span>
          );
        })}
    </Row>
  );
}

/** A coat of the plan, as it may be moved. */
function Bar({
  s,
  r,
  clock,
  start_s,
  isFixed,
  at,
  span,
  onFix,
  snap,
}: {
  s: PlannedSpray;
  r: ChartRow;
  clock: (s: number) => string;
  start_s: number;
  isFixed: boolean;
  at: (s: number) => string;
  span: (a: number, b: number) => string;
  onFix: (part: string, coat: number, start_s: number) => void;
  snap: (s: number) => number;
}) {
  return (
    <CoatBar
      coat={{ part: s.part, coat: s.coat, start_s: s.start_s, end_s: s.end_s }}
      label={`${r.name}, coat ${s.coat}: ${clock(start_s)} to ${clock(start_s + s.end_s - s.start_s)}, painter ${s.painter + 1}, pot ${s.pot + 1}${isFixed ? ", fixed" : ""}`}
      testId={`coat-${r.name}-${s.coat}`}
      left={at(start_s)}
      middle={at(start_s + (s.end_s - s.start_s) / 2)}
      width={span(s.start_s, s.end_s)}
      isFixed={isFixed}
      onKeyDown={(e) => {
        const by = { ArrowLeft: -MINUTE_S, ArrowRight: MINUTE_S }[e.key];
        if (by === undefined) return;
        e.preventDefault();
        onFix(s.part, s.coat, snap(s.start_s + by));
      }}
    />
  );
}

const PotLabel = ({ product }: { product: string }) => (
  <>
    <b className="block font-semibold">Pots</b>
    <span className="block truncate text-[13px] text-ink2">{product}</span>
  </>
);

function Row({ label, children }: { label: React.ReactNode; children: React.ReactNode }) {
  return (
    <div className="flex border-b border-hair" style={{ height: ROW_PX }}>
      <div className="sticky left-0 z-20 flex shrink-0 flex-col justify-center bg-paper pr-2 leading-tight" style={{ width: LABEL_PX }}>
        {label}
      </div>
      <div className="relative flex-1">{children}</div>
    </div>
  );
}
