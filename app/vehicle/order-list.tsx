import { DndContext, type DragEndEvent, PointerSensor, useDraggable, useDroppable, useSensor, useSensors } from "@dnd-kit/core";
import { ArrowDown, ArrowUp, GripVertical } from "lucide-react";
import { show, showSpan } from "#core/kernel/units/format";
import type { Round } from "#core/vehicle/round-walk";
import type { Walk } from "#core/vehicle/walk";
import { useUnits } from "~/kit/root/use-root";
import { isDry } from "./wet-edge.words";

const GRAB_PX = 4;
/** What moves is said by the list itself. */
const SILENT = { onDragStart: () => undefined, onDragOver: () => undefined, onDragEnd: () => undefined, onDragCancel: () => undefined };

interface OrderListProps {
  round: Round;
  walk: Walk;
  onOrder: (order: readonly number[]) => void;
}

/** Parts in the order of the gun, moved by dragging or by their two presses; each with its time, and how its borders with those before it are met. */
export function OrderList({ round, walk, onOrder }: OrderListProps) {
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: GRAB_PX } }));
  const { order } = walk;
  const moved = (from: number, to: number) => {
    if (to < 0 || to >= order.length || from === to) return;
    const next = [...order];
    const [part] = next.splice(from, 1);
    next.splice(to, 0, part!);
    onOrder(next);
  };
  const ends = ({ active, over }: DragEndEvent) => {
    if (over) moved(order.indexOf(Number(active.id)), order.indexOf(Number(over.id)));
  };
  return (
    <DndContext sensors={sensors} onDragEnd={ends} accessibility={{ announcements: SILENT, screenReaderInstructions: { draggable: "" } }}>
      <ol className="space-y-1" aria-label="Order of the gun" data-testid="walk-order">
        {order.map((part, n) => (
          <Row key={part} {...{ round, walk, part, n }} last={n === order.length - 1} onMove={(to) => moved(n, to)} />
        ))}
      </ol>
    </DndContext>
  );
}

function Row({
  round,
  walk,
  part,
  n,
  last,
  onMove,
}: Omit<OrderListProps, "onOrder"> & { part: number; n: number; last: boolean; onMove: (to: number) => void }) {
  const units = useUnits();
  const { setNodeRef: setDrop, isOver } = useDroppable({ id: part });
  const { setNodeRef: setDrag, listeners, transform, isDragging } = useDraggable({ id: part });
  const { name, volume_m3, spray_s } = round.parts[part]!;
  const refill = walk.refills.find((r) => r.before === part);
  const volume = show("volume", volume_m3, units);
  const dry = walk.borders.filter(
    (b) => isDry(b) && b.first !== part && [round.borders[b.border]!.a, round.borders[b.border]!.b].includes(part),
  );
  return (
    <li ref={setDrop} className={isOver && !isDragging ? "rounded-press outline-2 outline-dashed outline-glow-ink" : ""}>
      {refill && <p className="px-2 text-[13px] text-ink2">fill the cup{refill.times > 1 ? `, ${refill.times} times` : ""}</p>}
      <div
        ref={setDrag}
        className={`flex min-h-14 items-center gap-2 rounded-press border border-hair bg-paper px-2 ${isDragging ? "relative z-10 opacity-90" : ""}`}
        style={transform ? { transform: `translate(0px, ${transform.y}px)` } : undefined}
      >
        <span {...listeners} className="grid size-11 shrink-0 cursor-grab touch-none place-content-center text-ink2" aria-hidden>
          <GripVertical size={18} />
        </span>
        <span className="w-7 shrink-0 text-[20px] font-semibold tabular-nums">{n + 1}</span>
        <span className="min-w-0 grow">
          <b className="block font-semibold">{name}</b>
          <span className="block text-[13px] text-ink2">
            from {showSpan(walk.starts_s[part]!)}, {showSpan(spray_s)} min, {volume.text} {volume.unit}
          </span>
          {dry.length > 0 && (
            <span className="block text-[13px] font-semibold text-stop-ink">
              dry at {dry.map((b) => round.parts[b.first]!.name.toLowerCase()).join(", ")}
            </span>
          )}
        </span>
        <button type="button" className="press !px-2" data-kind="quiet" disabled={n === 0} onClick={() => onMove(n - 1)}>
          <ArrowUp size={18} aria-hidden />
          <span className="sr-only">{name} earlier</span>
        </button>
        <button type="button" className="press !px-2" data-kind="quiet" disabled={last} onClick={() => onMove(n + 1)}>
          <ArrowDown size={18} aria-hidden />
          <span className="sr-only">{name} later</span>
        </button>
      </div>
    </li>
  );
}
