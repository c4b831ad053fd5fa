import { Link, useFetcher } from "react-router";
import type { CourseStep } from "#core/course/steps";
import { show } from "#core/kernel/units/format";
import { PREFLIGHT_IDS } from "#core/models/prep/preflight-ids";
import type { FormAnswer } from "~/kit/form/answer";
import { usePanel } from "~/kit/panel/use-panel";
import { useUnits } from "~/kit/root/use-root";
import { FieldErrors } from "~/kit/ui/field";
import { StepFields, useAllNames } from "./along";

/** Prepared as usual: everything that is looked at before the gun is filled, in one press; exceptions are unticked on the page beside it. */
export function PrepareQuick({ step }: { step: CourseStep }) {
  const { base } = usePanel();
  return (
    <Quick step={step} intent="prepared" label="All as usual" to={`${base}/spray/ready`} more="One by one">
      {PREFLIGHT_IDS.map((id) => (
        <input key={id} type="hidden" name="ticks" value={id} />
      ))}
    </Quick>
  );
}

/** The mix is in, as much as the coats to come take; weighed and told apart on its page. */
export function MixQuick({ step }: { step: CourseStep }) {
  const { base } = usePanel();
  const units = useUnits();
  const all = useAllNames(step);
  const much = step.volume_m3 === null || all ? "" : `${show("volume", step.volume_m3, units).text} ${units.volume} `;
  return <Quick step={step} intent="mixIn" label={all ? "One pot is in" : `${much}is in`} to={`${base}/plan/mix`} more="Work it out" />;
}

function Quick({
  step,
  intent,
  label,
  to,
  more,
  children,
}: {
  step: CourseStep;
  intent: string;
  label: string;
  to: string;
  more: string;
  children?: React.ReactNode;
}) {
  const { view } = usePanel();
  const fetcher = useFetcher<FormAnswer>();
  const all = useAllNames(step);
  return (
    <>
      <fetcher.Form method="post" className="flex flex-wrap justify-end gap-1">
        <input type="hidden" name="intent" value={intent} />
        <input type="hidden" name="formKey" value={`${view.formKey}-${intent}`} />
        <StepFields step={step} />
        {children}
        <button className="press" disabled={fetcher.state !== "idle"}>
          {all ? `${all}: ${label.charAt(0).toLowerCase()}${label.slice(1)}` : label}
        </button>
        <Link to={to} className="press" data-kind="quiet">
          {more}
        </Link>
      </fetcher.Form>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </>
  );
}
