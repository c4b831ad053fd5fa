import { serverContext } from "#server/running";
import { listClears } from "#server/repos/product-repo";
import type { Route } from "./+types/run.route";
import { AskRunDesk } from "./run.desk";

export const meta: Route.MetaFunction = () => [{ title: "Will it run? · Yakamoz" }];

export async function loader() {
  return { clears: (await listClears((await serverContext()).db)).map((p) => ({ id: p.id, sheet: p.sheet })) };
}
export default function AskRun({ loaderData }: Route.ComponentProps) {
  return <AskRunDesk loaderData={loaderData} />;
}
