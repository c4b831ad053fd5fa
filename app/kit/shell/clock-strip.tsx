import { Bell, BellOff, Square } from "lucide-react";
import { useEffect, useId, useRef, useState } from "react";
import { Link, useFetcher } from "react-router";
import { toast } from "~/kit/ui/toast";
import { type ShownClock, clockHeld } from "#core/course/clock-hold";
import { CLOCK_KINDS, type Clock, clockState } from "#core/models/clock/clock-state";
import { showSpan } from "#core/kernel/units/format";
import { holdName } from "~/kit/words/hold-name";
import { clockWords } from "~/kit/words/clock-words";
import { useRoot } from "~/kit/root/use-root";
import { beep } from "./beep";
import { usePrefsSubmit } from "./use-prefs-submit";

/**
 * From what width of the strip on a clock stands in its row while it is folded: the first at any, each further one where it is not cut. The button that
 * unfolds the rest is there as long as there is a rest.
 */
const FROM = [
  { shown: "flex", rest: "hidden" },
  { shown: "hidden @min-[600px]:flex", rest: "@min-[600px]:hidden" },
  { shown: "hidden @min-[840px]:flex", rest: "@min-[840px]:hidden" },
  { shown: "hidden @min-[1080px]:flex", rest: "@min-[1080px]:hidden" },
  { shown: "hidden @min-[1320px]:flex", rest: "@min-[1320px]:hidden" },
  { shown: "hidden @min-[1560px]:flex", rest: "@min-[1560px]:hidden" },
] as const;
const BEYOND = { shown: "hidden", rest: "" } as const;

/** The shop's clocks, most urgent first, at the foot of every page: what has no room unfolds. */
export function ClockStrip({ now_ms }: { now_ms: number }) {
  const { clocks, prefs } = useRoot();
  const { send } = usePrefsSubmit();
  const [open, setOpen] = useState(false);
  const listId = useId();
  useDueSound(clocks, now_ms, prefs.sound);
  const unfolded = open && clocks.length > 1;
  return (
    <section
      aria-label="Clocks"
      className="no-print sticky bottom-14 z-10 order-2 flex min-h-[54px] min-w-0 border-t border-hair bg-panel @container sm:static sm:order-none sm:col-start-2"
    >
      <div id={listId} className={`flex min-w-0 flex-1 ${unfolded ? "max-h-[60dvh] flex-wrap overflow-y-auto" : ""}`}>
        {clocks.length === 0 && (
          <p className="self-center px-5 text-sm text-ink2">No clock is running. Logging a coat or a mix starts one.</p>
        )}
        {inOrder(clocks, now_ms).map((c, i) => (
          <ClockCell key={c.id} clock={c} now_ms={now_ms} show={(FROM[i] ?? BEYOND).shown} unfolded={unfolded} />
        ))}
      </div>
      {clocks.length > 1 && (
        <button
          type="button"
          className={`press self-center whitespace-nowrap ${(FROM[clocks.length - 1] ?? BEYOND).rest}`}
          data-kind="quiet"
          aria-expanded={unfolded}
          aria-controls={listId}
          onClick={() => setOpen(!unfolded)}
        >
          {unfolded ? "Fewer" : `All ${clocks.length}`}
          <span className="sr-only"> clocks</span>
        </button>
      )}
      <button
        type="button"
        className="press self-center"
        data-kind="quiet"
        aria-pressed={prefs.sound}
        aria-label={prefs.sound ? "Sound is on: turn it off" : "Sound is off: turn it on"}
        onClick={() => {
          if (!prefs.sound) beep(); // also lets the browser allow sound later
          send({ sound: !prefs.sound });
        }}
      >
        {prefs.sound ? <Bell size={19} aria-hidden /> : <BellOff size={19} aria-hidden />}
      </button>
    </section>
  );
}

/** What is so long over is nobody's next hand: it stands last. Default of ours. */
const LONG_OVER_MS = 4 * 3_600_000;

/** Most urgent first: past its window or over, then ready, the one that closes first before; then what runs, soonest first. */
const inOrder = (clocks: readonly ShownClock[], now_ms: number) => {
  const rank = (c: Clock) => {
    const { phase } = clockState(c, now_ms);
    const since_ms = phase === "late" ? (c.late_ms ?? c.due_ms) : c.due_ms;
    if (phase === "stopped" || now_ms - since_ms > LONG_OVER_MS) return 3;
    return phase === "late" ? 0 : phase === "due" ? 1 : 2;
  };
  /** What is ready goes by when it closes, what runs by when it is due. */
  const by = (c: Clock) => (rank(c) < 2 ? (c.late_ms ?? c.due_ms) : c.due_ms);
  return [...clocks].sort((a, b) => rank(a) - rank(b) || by(a) - by(b));
};

const TONES = {
  waiting: { bar: "bg-glow", text: "text-ink" },
  due: { bar: "bg-glow", text: "text-glow-ink" },
  late: { bar: "bg-amber", text: "text-amber-ink" },
  stopped: { bar: "bg-hair", text: "text-ink2" },
} as const;

/** @param show when it stands in its row while the strip is folded */
function ClockCell({ clock, now_ms, show, unfolded }: { clock: ShownClock; now_ms: number; show: string; unfolded: boolean }) {
  const fetcher = useFetcher();
  const { phase, left_s, share } = clockState(clock, now_ms);
  const near = phase === "waiting" && clock.kind === "pot" && left_s < 900;
  const no = clockHeld(clock, now_ms);
  const held = no && holdName(no, now_ms);
  const tone = near || (held && phase === "due") ? TONES.late : TONES[phase];
  const stop = () => {
    const send = (stopped: boolean) =>
      void fetcher.submit({ stopped: String(stopped) }, { method: "post", action: `/do/clocks/${clock.id}` });
    send(true);
    toast.plain(`${CLOCK_KINDS[clock.kind]} clock stopped`, { action: { label: "Undo", onClick: () => send(false) } });
  };
  return (
    <div
      className={`relative min-h-[54px] min-w-[236px] flex-1 items-center gap-2 border-r border-hair py-1 pr-1 pl-4 ${unfolded ? "flex" : show}`}
      data-testid="clock"
      data-phase={phase}
    >
      <Link to={`/jobs/${clock.jobId}/panels/${clock.panelId}/course`} className="min-w-0 flex-1 leading-tight">
        <span className="grid grid-cols-[auto_minmax(0,1fr)] items-center gap-x-2.5">
          <span className={`text-[21px] font-semibold tracking-tight ${tone.text}`} data-testid="clock-left">
            {phase === "waiting" ? showSpan(left_s) : phase === "due" ? (held ? "held" : "ready") : `+${showSpan(left_s)}`}
          </span>{" "}
          <span className="min-w-0 text-[13px] leading-[1.2]">
            <span className={unfolded ? "" : "max-sm:line-clamp-1"}>{clockWords(clock, phase, held)}</span>{" "}
            <span className={`block text-ink2 ${unfolded ? "" : "max-sm:truncate"}`}>
              {clock.panelName}, {clock.jobName}
            </span>
          </span>
        </span>
      </Link>
      <button
        type="button"
        className="press !min-w-11 !px-2"
        data-kind="quiet"
        onClick={stop}
        aria-label={`Stop the ${CLOCK_KINDS[clock.kind]} clock of ${clock.panelName}`}
      >
        <Square size={16} aria-hidden />
      </button>
      <i aria-hidden className={`absolute bottom-0 left-0 h-[5px] ${tone.bar}`} style={{ width: `${(share * 100).toFixed(1)}%` }} />
    </div>
  );
}

/** One sound when a clock comes due while the page is open. */
function useDueSound(clocks: readonly Clock[], now_ms: number, on: boolean): void {
  const waiting = useRef(new Set<string>());
  useEffect(() => {
    for (const c of clocks) {
      const isWaiting = clockState(c, now_ms).phase === "waiting";
      if (isWaiting) waiting.current.add(c.id);
      else if (waiting.current.delete(c.id) && on) beep();
    }
  }, [clocks, now_ms, on]);
}
