import type { Around } from "#core/course/around";
import { useUnits } from "~/kit/root/use-root";
import { More } from "~/kit/ui/more";
import { capital } from "~/kit/words/capital";
import { aroundWords } from "./around.words";

/** What is done around the steps at hand, each with its reason a tap away: a page of work says little before its press. */
export function AroundList({ around }: { around: readonly Around[] }) {
  const units = useUnits();
  if (around.length === 0) return null;
  return (
    <ul className="mt-3 max-w-[75ch]" aria-label="Around it" data-testid="around">
      {[...new Map(around.map((a) => [a.what, a])).values()].map((a) => {
        const { what, why } = aroundWords(a, units);
        return (
          <li key={a.what}>
            <More label={what}>
              <p className="text-[14px] text-ink2">{capital(why)}.</p>
            </More>
          </li>
        );
      })}
    </ul>
  );
}
