import { useDraft } from "~/kit/draft/use-draft";
import { useRef, useState } from "react";
import { beatsFor, timedSpeed } from "#core/models/spray/gun-curve";
import { show, showWithUncertainty } from "#core/kernel/units/format";
import { parseQuantity } from "#core/kernel/units/parse";
import { initial } from "~/kit/form/initial";
import { useUnits } from "~/kit/root/use-root";
import { tick } from "~/kit/shell/beep";
import { useBeat } from "~/kit/shell/use-beat";
import { Field } from "~/kit/ui/field";

const MS = 1000;

/** The hand's speed: a metronome to follow, one stroke a beat, and a timed pass to measure. */
export function HandSpeed({ speed_m_s, onSpeed }: { speed_m_s: number | null; onSpeed: (text: string) => void }) {
  const units = useUnits();
  const draft = useDraft("hand", { stroke: initial("length", 0.8, units), passes: "4" }, { stroke: "length" });
  const { stroke, passes } = draft.typed;
  const [beating, setBeating] = useState(false);
  const [lit, setLit] = useState(false);
  const started = useRef<number | null>(null);
  const [timing, setTiming] = useState(false);
  const [said, setSaid] = useState<string | null>(null);
  const length = parseQuantity("length", stroke, units.length);
  const count = parseQuantity("count", passes, "");
  const usable = length.ok && length.si >= 0.05 && length.si <= 5;
  const beats = usable && speed_m_s !== null ? beatsFor({ speed_m_s, stroke_m: length.si }) : null;
  useBeat(beating && beats !== null ? 60 / beats : null, () => {
    tick();
    setLit((l) => !l);
  });
  const time = (at_ms: number) => {
    if (!timing) {
      started.current = at_ms;
      setTiming(true);
      setSaid(null);
      return;
    }
    setTiming(false);
    const time_s = (at_ms - (started.current ?? at_ms)) / MS;
    if (!usable || !count.ok || count.si < 1 || count.si > 50 || time_s < 0.2 || time_s > 600) {
      setSaid("Type the length and how many passes, then time them again.");
      return;
    }
    const { speed_m_s: speed, u_m_s } = timedSpeed({ length_m: length.si, passes: count.si, time_s });
    const s = showWithUncertainty("speed", speed, u_m_s, units);
    if (speed < 0.05 || speed > 3) {
      setSaid(`${show("speed", speed, units).text} ${s.unit} is no hand with a gun; time it again.`);
      return;
    }
    onSpeed(initial("speed", speed, units));
    setSaid(`${s.text} ${s.unit} over ${time_s.toFixed(1)} s, taken over.`);
  };
  return (
    <div className="space-y-2">
      <div className="grid grid-cols-2 items-start gap-3">
        <Field label="Length of a stroke" unit={units.length} value={stroke} onChange={draft.field("stroke").onChange} />
        <Field label="Passes timed" inputMode="numeric" value={passes} onChange={draft.field("passes").onChange} />
      </div>
      <div className="flex flex-wrap items-center gap-2">
        <button type="button" className="press" aria-pressed={beating} disabled={beats === null} onClick={() => setBeating((b) => !b)}>
          <span aria-hidden className={`inline-block size-3 rounded-full border border-ink ${beating && lit ? "bg-ink" : ""}`} />
          {beating ? "Stop the metronome" : beats === null ? "Metronome" : `Metronome, ${beats.toFixed(0)} strokes a minute`}
        </button>
        <button type="button" className="press" onClick={(e) => time(e.timeStamp)}>
          {timing ? "Stop: passes done" : "Time the passes"}
        </button>
      </div>
      <p className="min-h-5 text-[13px] text-ink2" aria-live="polite">
        {said ?? "One stroke a beat; end each pass beyond the edge."}
      </p>
    </div>
  );
}
