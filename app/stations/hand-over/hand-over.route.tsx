import { acting } from "~/kit/form/in-words.server";
import { format } from "date-fns";
import { recordEntry } from "#server/commands/record-entry";
import { serverContext } from "#server/running";
import { loadOthersGloss } from "#server/views/finish-view";
import { handOver } from "#server/commands/hand-over";
import { OUTCOMES } from "#core/record/kinds";
import { eyeForm, handOverForm, outcomeForm } from "./hand-over.form";
import { loadLedgerLines } from "#server/views/ledger-view";
import { answerForm, textOf } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { readPrefs } from "~/kit/http/prefs.server";
import { releaseCheckAt } from "./release-check-at";
import { reportLines } from "./report.words";
import { viewInRegion } from "~/kit/words/region";
import { panelOr404 } from "~/kit/http/panel.server";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/hand-over.route";
import { unlessListMoved } from "~/kit/list/list-state";
import { HandOverDesk } from "./hand-over.desk";

export { unlessListMoved as shouldRevalidate };

/** The report comes for both readers: which one is read is only a view. */
export async function loader({ params, request }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const [view, { units }, { lines: log, count: logged }, others_GU] = await Promise.all([
    panelOr404(ctx, params.jobId, params.panelId),
    readPrefs(request),
    loadLedgerLines(ctx, params.panelId),
    loadOthersGloss(ctx, params.jobId, params.panelId),
  ]);
  const shown = viewInRegion(view);
  const report = { shop: reportLines(shown, units, "shop"), customer: reportLines(shown, units, "customer") };
  const at_ms = ctx.now_ms();
  const reckoned = { at_ms, out: releaseCheckAt(view, others_GU, at_ms), others_GU };
  return { report, log, logged, reckoned, today: format(at_ms, "d MMMM yyyy") };
}

export const action = acting(async ({ request, params: { jobId, panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const { by } = await readPrefs(request);
  const form = await formOf(request);
  switch (textOf(form, "intent")) {
    case "outcome":
      return answerForm(form, outcomeForm, async (body) => ({
        entryId: await recordEntry(ctx, { panelId, kind: "outcome", body, by }),
        message: `Came out ${OUTCOMES[body.result]}: noted`,
      }));
    case "eye":
      return answerForm(form, eyeForm, async (body) => ({
        entryId: await recordEntry(ctx, { panelId, kind: "eye", body, by }),
        message: "Noted by eye",
      }));
    default:
      return answerForm(form, handOverForm, async ({ note }) => ({
        entryId: await handOver(ctx, await panelOr404(ctx, jobId, panelId), { note, by, clientKey: textOf(form, "formKey") || null }),
        message: "Handed over",
      }));
  }
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function HandOver({ loaderData }: Route.ComponentProps) {
  return <HandOverDesk loaderData={loaderData} />;
}
