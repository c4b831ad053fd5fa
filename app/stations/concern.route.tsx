import { Link, Outlet, isRouteErrorResponse, useParams } from "react-router";
import { type PanelContext, usePanel } from "~/kit/panel/use-panel";
import type { Route } from "./+types/concern.route";

/** Between a panel and its pages: what one page cannot work out takes neither the panel's head nor its other pages with it. */
export default function Concern() {
  return <Outlet context={usePanel() satisfies PanelContext} />;
}

/** A page that could not be worked out: the panel stays, and the ledger, which stands on no model, is one tap away. */
export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  const { jobId, panelId } = useParams();
  const known = isRouteErrorResponse(error);
  return (
    <section role="alert" data-testid="not-worked-out" className="max-w-[60ch] space-y-3">
      <h2 className="text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
        {known && error.status === 404 ? "This page is not here" : "This page cannot be worked out with what was logged."}
      </h2>
      <p>
        {known
          ? String(error.data || error.statusText)
          : "An entry does not fit what stands beside it, most likely one of the newest. Put it right or take it out in the ledger; everything stored is still there, and the other pages go on."}
      </p>
      {!known && error instanceof RangeError && <p className="text-[13px] text-ink2">{error.message}</p>}
      <Link className="press" data-kind="main" to={`/jobs/${jobId}/panels/${panelId}/ledger`}>
        Open the ledger
      </Link>
    </section>
  );
}
