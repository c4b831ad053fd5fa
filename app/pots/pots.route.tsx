import { data } from "react-router";
import { serverContext } from "#server/running";
import { loadPots } from "#server/views/pots-view";
import type { Route } from "./+types/pots.route";
import { PotsDesk } from "./pots.desk";

export const meta: Route.MetaFunction = () => [{ title: "Pots · Yakamoz" }];

export async function loader({ params: { jobId } }: Route.LoaderArgs) {
  const view = await loadPots(await serverContext(), jobId);
  if (!view) throw data("This job is not in the file.", { status: 404 });
  return { ...view, jobId };
}
export default function Pots({ loaderData }: Route.ComponentProps) {
  return <PotsDesk loaderData={loaderData} />;
}
