import { nanoid } from "nanoid";
import { useCallback, useEffect, useState } from "react";
import type { Phase } from "#core/record/kinds";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { usePanel } from "~/kit/panel/use-panel";
import { useOutbox } from "~/kit/outbox/use-outbox";

export interface RefusedReading {
  spot: string;
  value: string;
  message: string;
}

/** Readings in what was typed: "131 128" are two. */
const readingsIn = (value: string) => value.split(/\s+(?=[\d+-])/).length;

/**
 * Readings of this panel and phase on their way to the server: each counts as saved when the server has answered. What is on its way lives in
 * the shell's outbox, so that leaving the page, a reload or a server that is away loses none.
 */
export function useReadingQueue(phase: Phase, onRefused: (refused: RefusedReading) => void) {
  const { view } = usePanel();
  const { spotPlan, state, panel } = view;
  const { outbox, state: out } = useOutbox();
  /** Readings counted here by spot: the page's data may show a reading a moment before or after its answer. */
  const [taken, setTaken] = useState<Record<string, number>>({});
  const mine = (r: { panelId: string; phase: string }) => r.panelId === panel.id && r.phase === phase;
  const waiting = out.waiting.filter(mine);
  const saved = (name: string) => state.spots.find((s) => s.name === name)?.films[phase]?.readings_m.length ?? 0;
  const onTheWay = (name: string) => waiting.reduce((n, w) => n + (w.spot === name ? readingsIn(w.value) : 0), 0);
  const count = (name: string) => Math.max(taken[name] ?? 0, saved(name), onTheWay(name));

  const refused = out.refused.find(mine);
  useEffect(() => {
    if (!refused) return;
    const { key, spot, value, message } = refused;
    outbox.drop(key);
    // eslint-disable-next-line react-hooks/set-state-in-effect -- what the outbox says comes from outside of React
    setTaken((t) => ({ ...t, [spot]: 0 }));
    onRefused({ spot, value, message });
  }, [refused, outbox, onRefused]);

  /** Puts a value at a spot on its way. @returns the count of readings there afterwards */
  const take = useCallback(
    (
      spot: string,
      known: number,
      value: string,
      how: { units: UnitPreferences; gauge: string; template: boolean; replaces?: readonly string[] },
    ): number => {
      const at = spotPlan.find((s) => s.name === spot)?.at;
      if (!at) return known;
      const after = (how.replaces ? 0 : known) + readingsIn(value);
      setTaken((t) => ({ ...t, [spot]: after }));
      outbox.add({
        key: nanoid(),
        panelId: panel.id,
        phase,
        spot,
        value,
        fields: {
          intent: "reading",
          phase,
          spot,
          x_m: String(at[0]),
          y_m: String(at[1]),
          value,
          // Units of the screen when it was typed; a switch meanwhile must not change the reading.
          units: JSON.stringify(how.units),
          gauge: how.gauge,
          ...(how.template ? { template: "on" } : {}),
          ...(how.replaces ? { replaces: how.replaces.join(" ") } : {}),
        },
      });
      return after;
    },
    [outbox, panel.id, phase, spotPlan],
  );
  return { waiting: waiting.length, held: out.held, saved, count, take };
}
