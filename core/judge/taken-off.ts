import { type Removal, sumOf } from "../models/correction/removal-plan";
import type { PanelFacts } from "../panel/derive-panel";
import { doneSteps } from "../panel/read-marks";
import { workByPlace } from "./work";

/** What the steps done of a plan took off: over the panel, and at that of its single places where most came off, the panel's own included. */
export interface TakenOff {
  panel: Removal | null;
  place: Removal | null;
}

/** As the ledger says it, steps and further passes; null where none of them took film off. What is only planned is not in it. */
export function takenOff({
  plan,
  stepsDone,
  extraPasses,
  toldSince,
}: Pick<PanelFacts, "plan" | "stepsDone" | "extraPasses" | "toldSince">): TakenOff {
  const entries = [...stepsDone, ...extraPasses];
  const done = doneSteps(plan, { done: entries, told: toldSince });
  const each = entries.flatMap((e) => {
    const removal = done.get(e.id);
    return removal && plan ? [{ ...removal, zone: e.body.zone, at: plan.body.steps[e.body.index]?.at ?? [] }] : [];
  });
  const onPanel = each.filter((s) => s.zone === "panel");
  const panel = onPanel.length > 0 ? sumOf(onPanel) : null;
  const places = workByPlace(each).map(({ removals }) => sumOf([...removals, ...onPanel]));
  return { panel, place: places.length > 0 ? places.reduce((a, p) => (p.removal_m > a.removal_m ? p : a)) : null };
}
