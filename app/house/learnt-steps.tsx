import { Form } from "react-router";
import type { LearntStep } from "#core/models/correction/learn-removal";
import { STEP_PAIRS_LEAST } from "#core/models/correction/learn-removal";
import { show, showWithUncertainty } from "#core/kernel/units/format";
import { usePrefs, useRoot } from "~/kit/root/use-root";
import { ScrollRegion } from "~/kit/ui/scroll-region";

/** What one pass of each kind of step takes off here, beside the default; taken over together and given back together. */
export function LearntSteps({ steps }: { steps: readonly LearntStep[] }) {
  const { shop } = useRoot();
  const { units } = usePrefs();
  const inUse = Object.keys(shop.learntSteps);
  const ready = steps.filter((s) => s.enough);
  return (
    <div className="mt-5" data-testid="learnt-steps">
      <h3 className="font-semibold">One pass of a step, measured at a mark</h3>
      {steps.length === 0 ? (
        <p className="text-ink2">Nothing measured yet. On a step&apos;s card in the booth view, read one mark before and after.</p>
      ) : (
        <ScrollRegion label="Removal of single steps" className="mt-2" narrow>
          <table className="w-full text-left">
            <thead className="small-label border-b border-hair">
              <tr>
                <th className="py-2">Step</th>
                <th>Here, {units.film}</th>
                <th>Default</th>
                <th>Marks</th>
              </tr>
            </thead>
            <tbody>
              {steps.map((s) => (
                <tr key={s.key} className="border-b border-hair">
                  <td className="py-1.5">{s.key}</td>
                  <td>
                    <b className="font-semibold">{showWithUncertainty("film", s.mean_m, s.sd_m, units).text}</b>
                  </td>
                  <td>{showWithUncertainty("film", s.prior.mean_m, s.prior.sd_m, units).text}</td>
                  <td>{s.enough ? s.n : `${s.n} of ${STEP_PAIRS_LEAST}`}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </ScrollRegion>
      )}
      {inUse.length > 0 && (
        <p className="mt-2">
          In use:{" "}
          {Object.entries(shop.learntSteps)
            .map(([key, s]) => `${key} ${show("film", s.removal_m, units).text} ${units.film}`)
            .join(", ")}
          .
        </p>
      )}
      {(steps.length > 0 || inUse.length > 0) && (
        <Form method="post" className="mt-2 flex flex-wrap gap-2">
          <button className="press" name="intent" value="learnSteps" disabled={ready.length === 0}>
            Use these in plans
          </button>
          {inUse.length > 0 && (
            <button className="press" name="intent" value="forgetSteps">
              Back to the defaults
            </button>
          )}
        </Form>
      )}
    </div>
  );
}
