import { Link } from "react-router";
import { type StepHold, isNo } from "#core/course/step-hold";
import { stepHoldWords } from "~/kit/words/step-hold-words";
import { usePanel } from "./use-panel";

const SEEN_TO = { fault: "/inspect/defects", climate: "/spray/ready", pot: "/plan/mix", soon: "/course" } as const;

/** What says no to a step, each with its reason and the page where it is seen to. */
export function StepHolds({ holds, now_ms }: { holds: readonly StepHold[]; now_ms: number }) {
  const { view, base } = usePanel();
  if (holds.length === 0) return null;
  return (
    <ul className="my-1" data-testid="step-holds">
      {holds.map((h, i) => (
        <li key={i} className={`font-medium ${isNo(h) ? "text-stop-ink" : "text-amber-ink"}`}>
          {stepHoldWords(h, view.panel.shape, now_ms)}{" "}
          {h.by !== "soon" && (
            <Link className="inline-block min-h-6 underline underline-offset-4" to={`${base}${SEEN_TO[h.by]}`}>
              See to it
            </Link>
          )}
        </li>
      ))}
    </ul>
  );
}
