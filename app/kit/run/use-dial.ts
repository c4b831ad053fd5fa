import { useMemo, useState } from "react";
import type { EqualWay } from "#core/coat/equal-finish";
import type { DialView } from "#server/views/dial-view";
import { useDraft } from "~/kit/draft/use-draft";
import { foundTexts, readFound } from "~/kit/form/dial-form";
import { useUnits } from "~/kit/root/use-root";
import { nearest } from "~/kit/words/dial-words";
import { useRun } from "./use-run";

/** What was found otherwise, as it is typed, and what it takes for the same finish. @param place name of the form on its page */
export function useDial(dial: DialView, place: string) {
  const units = useUnits();
  const start = useMemo(() => foundTexts(dial, units), [dial, units]);
  const draft = useDraft(place, start, { pressure: "pressure", air: "temperature" }, dial.version);
  const parsed = useMemo(() => readFound(draft.typed, units, dial), [draft.typed, units, dial]);
  const run = useRun("flow", "equalFinish", parsed.success ? { from: dial.from, found: parsed.data } : null);
  const [chosen, choose] = useState<EqualWay["by"] | null>(null);
  const equal = run.result;
  const way = equal && (equal.ways.find((w) => w.by === chosen) ?? nearest(equal));
  return { draft, run, equal, way, choose, errors: parsed.success ? null : parsed.errors };
}
