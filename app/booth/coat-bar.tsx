import { useDraggable } from "@dnd-kit/core";
import { Pin } from "lucide-react";

/** A coat that may be moved along the day. */
export interface MovableCoat {
  part: string;
  coat: number;
  start_s: number;
  end_s: number;
}

/** One coat of a part: the bar that is seen and, over it, the control that is grabbed, at least as wide as a thumb. */
export function CoatBar({
  coat,
  label,
  testId,
  left,
  middle,
  width,
  isFixed,
  onKeyDown,
}: {
  coat: MovableCoat;
  label: string;
  testId: string;
  left: string;
  middle: string;
  width: string;
  isFixed: boolean;
  onKeyDown: (e: React.KeyboardEvent) => void;
}) {
  const { setNodeRef, listeners } = useDraggable({ id: `${coat.part} ${coat.coat}`, data: coat });
  return (
    <>
      <span
        className={`absolute top-1 flex h-9 min-w-4 items-center justify-center gap-0.5 overflow-hidden bg-glow-wash text-[14px] font-semibold text-ink ${isFixed ? "border-2 border-ink" : "border border-glow-ink"}`}
        style={{ left, width }}
        aria-hidden
      >
        {isFixed && <Pin size={12} />}
        {coat.coat}
      </span>
      <button
        ref={setNodeRef}
        type="button"
        {...listeners}
        className="absolute top-0 z-10 h-12 -translate-x-1/2 cursor-grab touch-none"
        style={{ left: middle, width: `max(44px, ${width})` }}
        aria-label={label}
        data-testid={testId}
        onKeyDown={onKeyDown}
      />
    </>
  );
}
