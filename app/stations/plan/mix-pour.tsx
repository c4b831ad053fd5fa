import { Suspense, lazy, useState } from "react";
import type { MixPlan } from "#core/models/mix/mix-plan";
import type { PouredMix } from "./pour-guide";

/** Here once something is poured. */
const PourGuide = lazy(() => import("./pour-guide").then((m) => ({ default: m.PourGuide })));

/** Poured on the scale by a guide, or kept as it is worked out. */
export function PourSection({
  plan,
  capacity_m3,
  onDone,
  doneLabel,
  busy,
}: {
  plan: MixPlan;
  capacity_m3: number;
  onDone?: ((poured: PouredMix | null) => void) | undefined;
  doneLabel?: string | undefined;
  busy: boolean;
}) {
  const [pouring, setPouring] = useState(false);
  return (
    <section className="my-4" aria-labelledby="pour-title">
      <div className="flex flex-wrap items-center gap-3">
        <h3 id="pour-title" className="sr-only">
          Pour it on the scale
        </h3>
        <button type="button" className="press" aria-expanded={pouring} onClick={() => setPouring((p) => !p)}>
          {pouring ? "Close the pour guide" : "Open the pour guide"}
        </button>
        {onDone && !pouring && (
          <button type="button" className="press" data-kind="main" disabled={busy} onClick={() => onDone(null)}>
            {busy ? "Storing…" : doneLabel}
          </button>
        )}
      </div>
      {pouring && (
        <Suspense>
          <PourGuide
            key={plan.targets!.map((t) => t.role).join()}
            parts={plan.parts.map((p) => ({ role: p.name, share: p.share, density_kg_m3: p.density_kg_m3! }))}
            volume_m3={plan.amount.ready_m3}
            capacity_m3={capacity_m3}
            busy={busy}
            {...(onDone && doneLabel ? { doneLabel, onDone } : {})}
          />
        </Suspense>
      )}
    </section>
  );
}
