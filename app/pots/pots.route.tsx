import { data } from "react-router";
import { othersEntries } from "#server/access/others-entries";
import { serverContext } from "#server/running";
import { loadPots } from "#server/views/pots-view";
import type { Route } from "./+types/pots.route";
import { PotsDesk } from "./pots.desk";

export const meta: Route.MetaFunction = () => [{ title: "Pots · Yakamoz" }];

export async function loader({ params: { jobId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const view = await loadPots(ctx, jobId);
  if (!view) throw data("This job is not in the file.", { status: 404 });
  const held = await Promise.all(view.panels.map((p) => othersEntries(ctx.actor, ctx.db, p.id)));
  return { ...view, jobId, held: held.flat() };
}
export default function Pots({ loaderData }: Route.ComponentProps) {
  return <PotsDesk loaderData={loaderData} />;
}
