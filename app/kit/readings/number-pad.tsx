import { Delete } from "lucide-react";

const KEYS = ["7", "8", "9", "4", "5", "6", "1", "2", "3", "-", "0", "."] as const;
const KEY = "press !min-h-[52px] !p-0 text-[21px]";

/** A number pad for gloves, on a phone: three readings in one line with spaces between, a minus for what reads below zero, and on to the next spot. */
export function NumberPad({ onKey, onBack, onNext }: { onKey: (key: string) => void; onBack: () => void; onNext: () => void }) {
  // The field keeps the focus: what is pressed here is typed there.
  const keep = (e: React.PointerEvent) => e.preventDefault();
  const key = (k: string) => (
    <button key={k} type="button" className={KEY} onPointerDown={keep} onClick={() => onKey(k)}>
      {k === "-" ? "−" : k}
      {k === "-" && <span className="sr-only">minus</span>}
    </button>
  );
  return (
    <div className="mt-2 grid grid-cols-[3fr_1fr] gap-1.5 sm:hidden" role="group" aria-label="Number pad" data-testid="number-pad">
      <div className="grid grid-cols-3 gap-1.5">{KEYS.map(key)}</div>
      <div className="grid grid-rows-4 gap-1.5">
        <button type="button" className={KEY} onPointerDown={keep} onClick={onBack} aria-label="Take the last figure back">
          <Delete size={20} aria-hidden />
        </button>
        <button type="button" className={`${KEY} !text-[15px]`} onPointerDown={keep} onClick={() => onKey(" ")}>
          space
        </button>
        <button type="button" className={`${KEY} row-span-2 !text-[15px]`} data-kind="main" onPointerDown={keep} onClick={onNext}>
          Next spot
        </button>
      </div>
    </div>
  );
}
