import { Check } from "lucide-react";
import { createContext, useContext } from "react";
import type { CourseStep } from "#core/course/steps";
import { usePanel } from "~/kit/panel/use-panel";
import type { OtherPanel } from "#server/views/together-view";
import { useAlong } from "./use-along";

interface Along {
  others: readonly OtherPanel[];
  ticked: readonly string[];
  toggle: (id: string) => void;
}
const AlongContext = createContext<Along>({ others: [], ticked: [], toggle: () => {} });

export function AlongProvider({ others, children }: { others: readonly OtherPanel[]; children: React.ReactNode }) {
  const { view } = usePanel();
  const { ticked, toggle } = useAlong(view.job.id, view.panel.id);
  return <AlongContext value={{ others, ticked, toggle }}>{children}</AlongContext>;
}

/** The panels that go along with a step: ticked, and at the same step. */
export function useGoingAlong(step: Pick<CourseStep, "id">): readonly OtherPanel[] {
  const { others, ticked } = useContext(AlongContext);
  return others.filter((o) => ticked.includes(o.id) && o.open.includes(step.id));
}

/** What a form says of the step it does and of who goes along. */
export function StepFields({ step }: { step: Pick<CourseStep, "id"> }) {
  const along = useGoingAlong(step);
  return (
    <>
      <input type="hidden" name="step" value={step.id} />
      {along.map((o) => (
        <input key={o.id} type="hidden" name="panels" value={o.id} />
      ))}
    </>
  );
}

/** "Bonnet and door" where others go along; nothing for a panel alone. */
export function useAllNames(step: Pick<CourseStep, "id">): string {
  const { view } = usePanel();
  const along = useGoingAlong(step);
  if (along.length === 0) return "";
  const names = [view.panel.name, ...along.map((o) => o.name.toLowerCase())];
  return `${names.slice(0, -1).join(", ")} and ${names.at(-1)}`;
}

/** The job's other panels that are at this step: a tick, and it is said once for all. */
export function AlongTicks({ step }: { step: Pick<CourseStep, "id"> }) {
  const { others, ticked, toggle } = useContext(AlongContext);
  const here = others.filter((o) => o.open.includes(step.id));
  if (here.length === 0) return null;
  return (
    <div className="flex flex-wrap items-center gap-2" role="group" aria-label="Together with">
      <span className="text-[14px] text-ink2">Together with</span>
      {here.map((o) => {
        const on = ticked.includes(o.id);
        return (
          <button
            key={o.id}
            type="button"
            className="press aria-pressed:border-glow-ink aria-pressed:bg-paper"
            aria-pressed={on}
            onClick={() => toggle(o.id)}
          >
            {on && <Check size={16} aria-hidden />} {o.name}
          </button>
        );
      })}
    </div>
  );
}
