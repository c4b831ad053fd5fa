import type { Around } from "#core/course/around";
import { useUnits } from "~/kit/root/use-root";
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
            <details>
              <summary className="min-h-11 cursor-pointer py-2.5">{what}.</summary>
              <p className="pb-2 pl-4 text-[14px] text-ink2">{why}.</p>
            </details>
          </li>
        );
      })}
    </ul>
  );
}
