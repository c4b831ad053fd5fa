import { Link, useFetcher } from "react-router";
import type { Draft, Widened } from "~/kit/draft/use-draft";
import type { FormAnswer } from "~/kit/form/answer";
import { usePanel } from "~/kit/panel/use-panel";
import { Field, SelectField } from "~/kit/ui/field";
import { InUnits } from "~/kit/ui/in-units";
import type { Asked } from "./asked-reading";

const SPOT_COUNTS = [5, 8, 14, 24] as const;

/** Which gauge reads, and how the place is found again. */
export function GaugeAndPlace({
  draft,
  listening,
  setListening,
}: {
  draft: Draft<Widened<{ value: string; gauge: string; template: false; asked: readonly Asked[] }>>;
  listening: boolean;
  setListening: React.Dispatch<React.SetStateAction<boolean>>;
}) {
  const { gauge, template } = draft.typed;
  const { view, base } = usePanel();
  const checked = view.state.gaugeChecks.length > 0;
  return (
    <details className="rounded-press border border-hair px-3">
      <summary className="min-h-11 cursor-pointer content-center font-semibold">
        Gauge, places, template{!checked && <span className="font-normal text-ink2"> · gauge not checked on this job</span>}
      </summary>
      <div className="grid grid-cols-2 gap-3 pb-3">
        <Link to={`${base}/inspect/gauge`} className="press col-span-2">
          {checked ? "The gauge's checks" : "Check the gauge first: zero and foil"}
        </Link>
        <Field
          label="Gauge"
          value={gauge}
          onChange={draft.field("gauge").onChange}
          maxLength={40}
          hint="the same name before and after clear cancels its error"
        />
        <SpotCount />
        <label className="col-span-2 flex min-h-11 items-center gap-3">
          <input type="checkbox" className="h-5 w-5" checked={template} onChange={(e) => draft.set("template", e.target.checked)} />
          <InUnits>Found again by a mark or a template (within 3 mm)</InUnits>
        </label>
        <label className="col-span-2 flex min-h-11 items-center gap-3">
          <input type="checkbox" className="h-5 w-5" checked={listening} onChange={(e) => setListening(e.target.checked)} />
          Take what a bridged gauge sends
        </label>
      </div>
    </details>
  );
}

/** How many places the panel is read at. */
function SpotCount() {
  const { view } = usePanel();
  const fetcher = useFetcher<FormAnswer>();
  const counts = [...new Set([...SPOT_COUNTS, view.spotCount])].sort((a, b) => a - b);
  return (
    <SelectField
      label="Places to read"
      value={String(view.spotCount)}
      disabled={fetcher.state !== "idle"}
      onChange={(e) => void fetcher.submit({ intent: "spots", count: e.target.value }, { method: "post" })}
    >
      {counts.map((n) => (
        <option key={n} value={n}>
          {n}
        </option>
      ))}
    </SelectField>
  );
}
