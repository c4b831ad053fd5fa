import { data } from "react-router";
import { serverContext } from "#server/running";
import { boothPlanToIcs } from "#server/interchange/booth-plan-ics";
import { loadBoothPlan } from "#server/views/booth-plan-view";

/** The booth plan as a calendar file. */
export async function loader() {
  const ctx = await serverContext();
  const view = await loadBoothPlan(ctx, null);
  const answer = await ctx.inThread("planBooth", view.problem);
  if (!view.stored || answer.kind !== "planned" || answer.plan.sprays.length === 0)
    throw data("There is no plan to put in a calendar.", { status: 404 });
  return new Response(boothPlanToIcs(answer.plan, { ...view, now_ms: ctx.now_ms() }), {
    headers: {
      "Content-Type": "text/calendar; charset=utf-8",
      "Content-Disposition": 'attachment; filename="booth-plan.ics"',
      "Cache-Control": "no-store",
    },
  });
}
