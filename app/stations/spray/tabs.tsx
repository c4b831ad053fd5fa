import { Suspense, lazy } from "react";
import { Link, NavLink } from "react-router";
import { useNow } from "~/kit/shell/now";
import { usePanel } from "~/kit/panel/use-panel";
import { actionWords } from "~/kit/words/step-words";

/** Chapters of spraying in the order of the work. */
const CHAPTERS = [
  { to: "/spray/below", label: "Below" },
  { to: "/spray/ready", label: "Ready?" },
  { to: "/spray", label: "Coats" },
  { to: "/spray/cure", label: "Cure" },
] as const;
const NOW_MS = 30_000;
const QUIET = "press aria-[current=page]:bg-glow-wash";

/** One tap away: it is drawn with the page, and comes after it. */
const MorePages = lazy(() => import("./more-pages").then((m) => ({ default: m.MorePages })));

/** Way back to the course, which says what is next; the chapters of spraying; all else one tap away. */
export function SprayTabs({ base }: { base: string }) {
  const { view } = usePanel();
  const now_ms = Math.floor(useNow() / NOW_MS) * NOW_MS;
  return (
    <nav aria-label="Spray" className="no-print mb-2 flex items-center gap-1 sm:mb-4 sm:flex-wrap">
      <div className="flex min-w-0 gap-1 overflow-x-auto">
        {CHAPTERS.map(({ to, label }) => (
          <NavLink key={to} to={`${base}${to}`} end className={`${QUIET} max-sm:!px-3`} data-kind="quiet">
            {label}
          </NavLink>
        ))}
      </div>
      <Suspense>
        <MorePages base={base} jobId={view.job.id} />
      </Suspense>
      <Link
        to={`${base}/course`}
        className="ml-auto inline-flex min-h-11 items-center text-ink2 underline underline-offset-4 max-sm:hidden"
      >
        Next: {actionWords(view.standing, now_ms)}
      </Link>
    </nav>
  );
}
