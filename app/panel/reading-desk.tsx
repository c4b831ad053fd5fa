import { useCallback, useEffect, useRef, useState } from "react";
import { useBlocker, useFetcher } from "react-router";
import { PHASES, type Phase } from "#core/ledger/kinds";
import { placeInWords } from "#core/panel/shapes";
import { showFilm } from "#core/units/format";
import type { FormAnswer } from "~/forms/answer";
import { useUnits } from "~/lib/use-root";
import { usePanel } from "~/routes/panel/layout";
import { Tag } from "~/ui/tag";
import { ImportReadings } from "./import-readings";
import { PanelDrawing, type SpotMark } from "./panel-drawing";

interface Waiting {
  key: string;
  spot: string;
  value: string;
  readings: number;
  /** Units of the screen when it was typed; a switch meanwhile must not change the reading. */
  units: string;
}

const RESEND_MS = 4000;

/**
 * Readings typed spot by spot: Enter saves and goes on, so a gauge that types like a keyboard works as it is. Each reading is sent by
 * itself and counts as saved when the server has answered; what is still on its way stays listed.
 */
export function ReadingDesk({ phase }: { phase: Phase }) {
  const { view } = usePanel();
  const units = useUnits();
  const { spotPlan, state, readingsPerSpot, panel } = view;
  const fetcher = useFetcher<FormAnswer>();
  const gauge = useFetcher<FormAnswer>();
  const [queue, setQueue] = useState<Waiting[]>([]);
  const [chosen, setChosen] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  /** Readings counted here by spot: the page's data may show a reading a moment before or after its answer shortens the queue. */
  const [taken, setTaken] = useState<Record<string, number>>({});
  const input = useRef<HTMLInputElement>(null);
  const sent = useRef<string | null>(null);

  const saved = (name: string) => state.spots.find((s) => s.name === name)?.films[phase]?.readings_m.length ?? 0;
  const count = (name: string) => Math.max(taken[name] ?? 0, saved(name));
  const current =
    (chosen && count(chosen) < readingsPerSpot ? chosen : null) ?? spotPlan.find((s) => count(s.name) < readingsPerSpot)?.name ?? null;
  const shownSpot = chosen ?? current;
  // Only what the server has acknowledged counts as read.
  const read = spotPlan.filter((s) => saved(s.name) >= readingsPerSpot).length;

  const head = queue[0];
  const { submit, state: sending, data: answer } = fetcher;
  useEffect(() => {
    if (!head || sending !== "idle" || sent.current === head.key) return;
    const at = spotPlan.find((s) => s.name === head.spot)?.at;
    if (!at) return;
    sent.current = head.key;
    void submit(
      {
        intent: "reading",
        phase,
        spot: head.spot,
        x_m: String(at[0]),
        y_m: String(at[1]),
        value: head.value,
        units: head.units,
        clientKey: head.key,
      },
      { method: "post" },
    );
  }, [head, queue, sending, submit, spotPlan, phase]);
  // A reading that got no answer is sent again; its key makes sure that it is stored once.
  useEffect(() => {
    if (!head || sending !== "idle") return;
    const again = setTimeout(() => {
      sent.current = null;
      setQueue((q) => [...q]);
    }, RESEND_MS);
    return () => clearTimeout(again);
  }, [head, sending]);
  useLeaveGuard(queue.length > 0);
  const handled = useRef<FormAnswer | null>(null);
  useEffect(() => {
    if (!answer || sending !== "idle" || handled.current === answer) return;
    handled.current = answer;
    // eslint-disable-next-line react-hooks/set-state-in-effect -- the server's answer is the event
    if (answer.ok) setQueue((q) => q.slice(1));
    else {
      const [first] = queue;
      setProblem(answer.errors.value?.join(" ") ?? answer.message ?? Object.values(answer.errors).flat().join(" "));
      if (first && input.current && input.current.value === "") input.current.value = first.value; // nothing typed is lost
      setQueue((q) => q.slice(1));
      if (first) {
        setChosen(first.spot);
        setTaken((t) => ({ ...t, [first.spot]: 0 }));
      }
    }
  }, [answer, sending, queue]);

  const take = useCallback(() => {
    const value = input.current?.value.trim() ?? "";
    if (!shownSpot || value === "" || !input.current) return;
    setProblem(null);
    const readings = value.split(/\s+(?=[\d+-])/).length;
    const known = count(shownSpot);
    setTaken((t) => ({ ...t, [shownSpot]: known + readings }));
    setQueue((q) => [...q, { key: crypto.randomUUID(), spot: shownSpot, value, readings, units: JSON.stringify(units) }]);
    input.current.value = "";
    if (known + readings >= readingsPerSpot) setChosen(null);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- count reads the newest state each render
  }, [shownSpot, taken, state, readingsPerSpot, units]);

  const marks = spotPlan.map((s): SpotMark => {
    const film = state.spots.find((p) => p.name === s.name);
    const mean = film?.films[phase]?.film.mean_m;
    return {
      name: s.name,
      at: s.at,
      text: mean === undefined ? s.name : showFilm(mean, units).text,
      state: s.name === shownSpot ? "now" : mean === undefined ? "open" : "read",
    };
  });
  const spot = spotPlan.find((s) => s.name === shownSpot);
  const left = readingsPerSpot - (shownSpot ? count(shownSpot) : 0);
  return (
    <div className="mt-3 grid gap-x-8 gap-y-5 md:grid-cols-[1.3fr_1fr]">
      <PanelDrawing
        shape={panel.shape}
        spots={marks}
        onSpot={setChosen}
        label={`${panel.name}: ${read} of ${spotPlan.length} spots read ${PHASES[phase]}`}
      />
      <div className="space-y-4">
        <p className="flex flex-wrap items-center gap-2">
          <span className="text-[27px] font-semibold tracking-tight" data-testid="spots-read">
            {read} of {spotPlan.length}
          </span>
          <span className="text-ink2">spots read {PHASES[phase]}</span>
          {state.spots.some((s) => s.films[phase]?.simulated) && <Tag kind="simulated">simulated</Tag>}
        </p>
        <div>
          <label htmlFor={`reading-${phase}`} className="mb-1 block font-semibold">
            {spot ? `Spot ${spot.name}, ${placeInWords(spot.at, panel.shape)}` : "Every spot is read"}
          </label>
          <div className="flex gap-2">
            <input
              ref={input}
              id={`reading-${phase}`}
              className="field !text-[22px] font-semibold"
              inputMode="decimal"
              autoComplete="off"
              enterKeyHint="next"
              placeholder={units.film}
              aria-describedby={`reading-${phase}-note`}
              aria-invalid={problem ? true : undefined}
              onKeyDown={(e) => {
                if (e.key !== "Enter") return;
                e.preventDefault();
                take();
              }}
            />
            <button type="button" className="press" data-kind="main" onClick={take}>
              Next
            </button>
          </div>
          <p id={`reading-${phase}-note`} className="mt-1 min-h-5 text-[13px] text-ink2" aria-live="polite">
            {problem ? (
              <span role="alert" className="font-medium text-stop-ink">
                {problem}
              </span>
            ) : queue.length ? (
              `Saving ${queue.length}…`
            ) : spot ? (
              `${Math.max(left, 0)} of ${readingsPerSpot} readings to go here; total film in ${units.film}`
            ) : (
              "Tap a spot to read it again"
            )}
          </p>
        </div>
        <div className="flex flex-wrap gap-1.5" role="group" aria-label="Choose a spot">
          {spotPlan.map((s) => (
            <button
              key={s.name}
              type="button"
              aria-pressed={s.name === shownSpot}
              onClick={() => {
                setChosen(s.name);
                input.current?.focus();
              }}
              className="press !min-w-11 !px-2 aria-pressed:bg-glow-wash"
            >
              {s.name}
              {count(s.name) >= readingsPerSpot && <span className="sr-only"> read</span>}
            </button>
          ))}
        </div>
        <div className="flex flex-wrap gap-2">
          <ImportReadings phase={phase} />
          <gauge.Form method="post">
            <input type="hidden" name="intent" value="stand-in" />
            <input type="hidden" name="phase" value={phase} />
            <button className="press" disabled={gauge.state !== "idle"}>
              Read with the stand-in gauge
            </button>
          </gauge.Form>
        </div>
      </div>
    </div>
  );
}

/** Holds a change of page until every reading is saved; leaving the program altogether asks first. */
function useLeaveGuard(waiting: boolean): void {
  const blocker = useBlocker(waiting);
  useEffect(() => {
    if (blocker.state === "blocked" && !waiting) blocker.proceed();
  }, [blocker, waiting]);
  useEffect(() => {
    if (!waiting) return;
    const ask = (e: BeforeUnloadEvent) => e.preventDefault();
    window.addEventListener("beforeunload", ask);
    return () => window.removeEventListener("beforeunload", ask);
  }, [waiting]);
}
