import { acting } from "~/kit/form/in-words.server";
import { format } from "date-fns";
import { serverContext } from "#server/running";
import { loadLedgerLines } from "#server/views/ledger-view";
import { panelActs } from "~/kit/form/panel-acts.server";
import { guardedAction } from "~/kit/form/guarded-action";
import { readPrefs } from "~/kit/http/prefs.server";
import { reportLines } from "./report.words";
import { viewInRegion } from "~/kit/words/region";
import { panelOr404 } from "~/kit/http/panel.server";
import type { Route } from "./+types/hand-over.route";
import { unlessListMoved } from "~/kit/list/list-state";
import { HandOverDesk } from "./hand-over.desk";
import { glossAct } from "~/kit/readings/gloss-act.server";
import { releaseAct } from "./release.act.server";
import { loadRelease } from "./release.server";

export { unlessListMoved as shouldRevalidate };

/** The report comes for both readers: which one is read is only a view. */
export async function loader({ params, request }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const [view, { units }, { lines: log, count: logged }] = await Promise.all([
    panelOr404(ctx, params.jobId, params.panelId),
    readPrefs(request),
    loadLedgerLines(ctx, params.panelId),
  ]);
  const shown = viewInRegion(view);
  const report = { shop: reportLines(shown, units, "shop"), customer: reportLines(shown, units, "customer") };
  const reckoned = await loadRelease(ctx, { ...params, view });
  return { report, log, logged, reckoned, today: format(reckoned.at_ms, "d MMMM yyyy") };
}

export const action = acting(panelActs(releaseAct, glossAct));

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function HandOver({ loaderData }: Route.ComponentProps) {
  return <HandOverDesk loaderData={loaderData} />;
}
