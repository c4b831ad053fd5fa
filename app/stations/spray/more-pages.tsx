import { ChevronDown } from "lucide-react";
import { NavLink } from "react-router";
import { besidePages } from "~/kit/panel/beside-pages";

const QUIET = "press aria-[current=page]:bg-glow-wash";

/** Everything beside the chapters of spraying. */
export function MorePages({ base, jobId }: { base: string; jobId: string }) {
  return (
    <details className="group relative">
      <summary className="press list-none" data-kind="quiet">
        More <ChevronDown size={16} aria-hidden className="group-open:rotate-180" />
      </summary>
      <ul className="absolute right-0 z-20 mt-1 w-56 sm:right-auto rounded-press border border-edge bg-paper p-1">
        {besidePages(base, jobId).map(({ to, label }) => (
          <li key={to}>
            <NavLink to={to} end className={`${QUIET} w-full justify-start`} data-kind="quiet">
              {label}
            </NavLink>
          </li>
        ))}
      </ul>
    </details>
  );
}
