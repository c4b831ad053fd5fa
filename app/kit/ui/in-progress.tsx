import * as Progress from "@radix-ui/react-progress";

interface InProgressProps {
  /** So much of it is done, 0 to 1. */
  share: number;
  /** What is under way. */
  label: string;
  /** Whether that is told to the eye too. */
  told?: boolean;
  stop?: string;
  onStop: () => void;
  /** How wide the bar is. */
  className?: string;
}

/** How far a long working is, and what ends it: in a row of their own or of others. */
export function InProgress({ share, label, told = false, stop = "Cancel", onStop, className = "w-40" }: InProgressProps) {
  return (
    <>
      <Progress.Root value={Math.round(100 * share)} aria-label={label} className={`h-1.5 overflow-hidden rounded bg-hair ${className}`}>
        <Progress.Indicator className="h-full bg-glow" style={{ width: `${100 * share}%` }} />
      </Progress.Root>
      {told && <span className="text-sm text-ink2">{label}</span>}
      <button type="button" className="press" data-kind="quiet" onClick={onStop}>
        {stop}
      </button>
    </>
  );
}
