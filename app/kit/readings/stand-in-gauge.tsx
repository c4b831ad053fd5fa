import { useState } from "react";
import { useFetcher } from "react-router";
import type { Phase } from "#core/record/kinds";
import type { FormAnswer } from "~/kit/form/answer";
import { usePanel } from "~/kit/panel/use-panel";

/** The simulated gauge: the spot in hand at a press; every unread one only after a question, and with an undo. */
export function StandInGauge({ phase, spot, template }: { phase: Phase; spot: string | null; template: boolean }) {
  const { view } = usePanel();
  const fetcher = useFetcher<FormAnswer>();
  const [asked, setAsked] = useState(false);
  const { spotPlan, state, readingsPerSpot } = view;
  const unread = spotPlan.filter((s) => !state.spots.find((p) => p.name === s.name)?.films[phase]).length;
  const busy = fetcher.state !== "idle";
  const take = (only: string) => {
    setAsked(false);
    void fetcher.submit({ intent: "stand-in", phase, spot: only, ...(template ? { template: "on" } : {}) }, { method: "post" });
  };
  if (asked && unread > 0)
    return (
      <div role="alert" className="flex w-full flex-wrap items-center gap-2">
        <p className="font-medium text-amber-ink">
          Fill {unread} unread {unread === 1 ? "spot" : "spots"} with simulated readings? They say nothing of the real part.
        </p>
        <button type="button" className="press" onClick={() => take("")}>
          Fill them, simulated
        </button>
        <button type="button" className="press" data-kind="quiet" onClick={() => setAsked(false)}>
          No
        </button>
      </div>
    );
  return (
    <>
      <button type="button" className="press" disabled={busy || spot === null} onClick={() => take(spot ?? "")}>
        {`Take ${readingsPerSpot} here with the practice (simulated) gauge`}
      </button>
      <button type="button" className="press" disabled={busy || unread === 0} onClick={() => setAsked(true)}>
        All spots
      </button>
    </>
  );
}
