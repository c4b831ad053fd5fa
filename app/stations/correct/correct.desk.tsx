import { Suspense, lazy, useCallback, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { CorrectTabs } from "./tabs";
import { usePanel } from "~/kit/panel/use-panel";

/** Planning, and working through a plan: each is fetched where it stands on the page. */
const PlanDesk = lazy(() => import("./plan.desk").then((m) => ({ default: m.PlanDesk })));

const PlanWork = lazy(() => import("./work-list.desk").then((m) => ({ default: m.PlanWork })));

/** What a link to this page may ask of the plan. */
const ASKS = ["school", "run", "part", "fill"];

export function CorrectDesk() {
  const { view, base } = usePanel();
  const { plan } = view.state;
  const open = plan !== null && view.state.stepsDone.length < plan.body.steps.length;
  // A way chosen under Options asks for its own plan, also where another was made before.
  const [asked, setAsked] = useSearchParams();
  const [replan, setReplan] = useState(ASKS.some((name) => asked.has(name)));
  const stored = useCallback(() => {
    setReplan(false);
    setAsked({}, { replace: true, preventScrollReset: true });
  }, [setAsked]);
  if (view.state.film.mean === null)
    return (
      <section className="max-w-[60ch] space-y-4">
        <CorrectTabs base={base} />
        <h2 className="text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
          Nothing is read after clear yet, so nothing can be said.
        </h2>
        <p className="text-ink2">Three spots are the least for a verdict; eight tell the edges from the middle.</p>
        <Link to={`${base}/inspect`} className="press" data-kind="main">
          Read the film
        </Link>
      </section>
    );
  return (
    <>
      <CorrectTabs base={base} />
      <Suspense>
        {plan && !replan ? <PlanWork onReplan={() => setReplan(true)} finished={!open} /> : <PlanDesk onStored={stored} />}
      </Suspense>
    </>
  );
}
