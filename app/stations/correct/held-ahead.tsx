import { Suspense, lazy } from "react";
import type { BlockedBy } from "#core/judge/blocked-by";
import type { PanelView } from "#server/views/panel-view";

/** Needed by hardly any plan under way: its words come when they are. */
const HeldLater = lazy(() => import("./held-later"));

/** What holds the steps to come back. */
export function HeldAhead({ view, held }: { view: PanelView; held: readonly BlockedBy[] }) {
  if (held.length === 0) return null;
  return (
    <Suspense>
      <HeldLater view={view} held={held} />
    </Suspense>
  );
}
