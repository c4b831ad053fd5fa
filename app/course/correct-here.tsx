import { Suspense, lazy, useState } from "react";
import { Link } from "react-router";
import { usePanel } from "~/kit/panel/use-panel";

const PlanDesk = lazy(() => import("~/stations/correct/plan.desk").then((m) => ({ default: m.PlanDesk })));
const WorkHere = lazy(() => import("~/stations/correct/work-here").then((m) => ({ default: m.WorkHere })));

/** Deciding what is done about what was found, and working it through, in place. */
export function CorrectHere({ onDone }: { onDone: () => void }) {
  const { view, base } = usePanel();
  const [replan, setReplan] = useState(false);
  const { plan, film } = view.state;
  if (film.mean === null)
    return (
      <p>
        Nothing is read after clear yet, so nothing can be said.{" "}
        <Link className="inline-block min-h-6 underline underline-offset-4" to={`${base}/inspect`}>
          Read the film
        </Link>
      </p>
    );
  return (
    <Suspense fallback={<div className="min-h-64" />}>
      {plan && !replan ? (
        <WorkHere onReplan={() => setReplan(true)} onDone={onDone} />
      ) : (
        <PlanDesk short onStored={() => setReplan(false)} />
      )}
    </Suspense>
  );
}
