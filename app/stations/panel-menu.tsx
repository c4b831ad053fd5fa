import { Route as RouteIcon } from "lucide-react";
import { useState } from "react";
import { Link, useLocation } from "react-router";
import type { PanelView } from "#server/views/panel-view";
import { Waterline } from "~/kit/panel/waterline";

/** Where a panel stands among its pages, so that another one is opened at the same. */
const useSamePage = (base: string): string => {
  const at = useLocation().pathname;
  const page = at.startsWith(`${base}/`) ? at.slice(base.length) : "/course";
  return /^\/(course|plan|spray|inspect|correct|hand-over)\b/.test(page) ? page : "/course";
};

/** On a phone: the job's panels in a line, and the stations one tap away. */
export function PanelMenu({ view: { job, panel, panels, standing }, base }: { view: PanelView; base: string }) {
  const page = useSamePage(base);
  const at = useLocation().pathname;
  const [open, setOpen] = useState(false);
  return (
    <div className="no-print flex min-w-0 items-center gap-1.5 sm:hidden">
      <nav aria-label="Panels of this job" className="flex min-w-0 gap-1.5 overflow-x-auto">
        {panels
          .filter((p) => p.id !== panel.id)
          .map((p) => (
            <Link key={p.id} to={`/jobs/${job.id}/panels/${p.id}${page}`} className="press !px-2.5 text-[14px] whitespace-nowrap">
              {p.name}
            </Link>
          ))}
      </nav>
      <details className="group relative" key={at} onToggle={(e) => setOpen(e.currentTarget.open)}>
        <summary className="press list-none !px-2" data-kind="quiet" aria-label="Stations">
          <RouteIcon size={22} strokeWidth={1.7} aria-hidden />
        </summary>
        {open && (
          <div className="fixed inset-x-2 top-[58px] z-30 rounded-press border border-edge bg-paper p-2 shadow-lg">
            <Waterline base={base} reached={standing.station} />
            <Link to={`/jobs/${job.id}/add-panel`} className="press mt-1 w-full" data-kind="quiet">
              Add a panel
            </Link>
          </div>
        )}
      </details>
    </div>
  );
}

/** The other panels of the job, and one more. */
export function OtherPanels({ job, panel, panels }: Pick<PanelView, "job" | "panel" | "panels">) {
  const page = useSamePage(`/jobs/${job.id}/panels/${panel.id}`);
  return (
    <span className="no-print">
      {panels
        .filter((p) => p.id !== panel.id)
        .map((p) => (
          <Link
            key={p.id}
            to={`/jobs/${job.id}/panels/${p.id}${page}`}
            className="mr-3 inline-block min-h-6 underline underline-offset-4 lg:mr-0 lg:ml-3"
          >
            {p.name}
          </Link>
        ))}
      <Link to={`/jobs/${job.id}/add-panel`} className="inline-block min-h-6 underline underline-offset-4 lg:ml-3">
        Add a panel
      </Link>
    </span>
  );
}
