import { useCallback, useEffect, useRef, useState } from "react";
import { useBlocker, useFetcher } from "react-router";
import type { Phase } from "#core/ledger/kinds";
import type { UnitPreferences } from "#core/units/quantities";
import type { FormAnswer } from "~/forms/answer";
import { usePanel } from "~/routes/panel/layout";

interface Waiting {
  key: string;
  spot: string;
  value: string;
  /** Units of the screen when it was typed; a switch meanwhile must not change the reading. */
  units: string;
  gauge: string;
  template: boolean;
}
export interface RefusedReading {
  spot: string;
  value: string;
  message: string;
}

const RESEND_MS = 4000;
/** Readings in what was typed: "131 128" are two. */
const readingsIn = (value: string) => value.split(/\s+(?=[\d+-])/).length;

/**
 * Readings on their way to the server, one after another: each counts as saved when the server has answered; what is still on its way
 * stays listed, holds a change of page, and is sent again when no answer comes.
 */
export function useReadingQueue(phase: Phase, onRefused: (refused: RefusedReading) => void) {
  const { view } = usePanel();
  const { spotPlan, state } = view;
  const fetcher = useFetcher<FormAnswer>();
  const [queue, setQueue] = useState<Waiting[]>([]);
  /** Readings counted here by spot: the page's data may show a reading a moment before or after its answer shortens the queue. */
  const [taken, setTaken] = useState<Record<string, number>>({});
  const sent = useRef<string | null>(null);
  const saved = (name: string) => state.spots.find((s) => s.name === name)?.films[phase]?.readings_m.length ?? 0;
  const count = (name: string) => Math.max(taken[name] ?? 0, saved(name));

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
        gauge: head.gauge,
        ...(head.template ? { template: "on" } : {}),
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
    const [first] = queue;
    setQueue((q) => q.slice(1));
    if (answer.ok || !first) return;
    setTaken((t) => ({ ...t, [first.spot]: 0 }));
    const message = answer.errors.value?.join(" ") ?? answer.message ?? Object.values(answer.errors).flat().join(" ");
    onRefused({ spot: first.spot, value: first.value, message });
  }, [answer, sending, queue, onRefused]);

  /** Puts a value at a spot on its way. @returns the count of readings there afterwards */
  const take = useCallback(
    (spot: string, known: number, value: string, how: { units: UnitPreferences; gauge: string; template: boolean }): number => {
      const after = known + readingsIn(value);
      setTaken((t) => ({ ...t, [spot]: after }));
      setQueue((q) => [
        ...q,
        { key: crypto.randomUUID(), spot, value, units: JSON.stringify(how.units), gauge: how.gauge, template: how.template },
      ]);
      return after;
    },
    [],
  );
  return { waiting: queue.length, saved, count, take };
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
