import { data } from "react-router";
import { serverContext } from "#server/running";
import { panelToIcs } from "#server/interchange/panel-ics";
import { panelAloneOr404 } from "~/kit/http/panel.server";
import type { Route } from "./+types/panel-ics.do";

/** When a panel may be sanded, polished and waxed, as a calendar file. */
export async function loader({ params: { panelId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const calendar = panelToIcs(await panelAloneOr404(ctx, panelId), ctx.now_ms());
  if (calendar === null) throw data("Not all coats are on yet: there are no times to put in a calendar.", { status: 404 });
  return new Response(calendar, {
    headers: {
      "Content-Type": "text/calendar; charset=utf-8",
      "Content-Disposition": 'attachment; filename="cure.ics"',
      "Cache-Control": "no-store",
    },
  });
}
