import type { Around } from "#core/course/around";
import { useUnits } from "~/kit/root/use-root";
import { aroundWords } from "./around.words";

/** What is done around the steps at hand, each with its reason. */
export function AroundList({ around }: { around: readonly Around[] }) {
  const units = useUnits();
  if (around.length === 0) return null;
  return (
    <ul className="mt-3 max-w-[75ch] list-disc pl-5 marker:text-ink2" aria-label="Around it" data-testid="around">
      {[...new Map(around.map((a) => [a.what, a])).values()].map((a) => {
        const { what, why } = aroundWords(a, units);
        return (
          <li key={a.what}>
            {what}. <span className="text-[14px] text-ink2">{why}.</span>
          </li>
        );
      })}
    </ul>
  );
}
