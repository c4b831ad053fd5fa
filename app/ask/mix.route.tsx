import { isTopcoat, isCoat } from "#core/models/product/sheet";
import { houseWay } from "#core/models/ways/house-ways";
import { serverContext } from "#server/running";
import { listShelf } from "#server/repos/product-repo";
import type { Route } from "./+types/mix.route";
import { AskMixDesk } from "./mix.desk";

export const meta: Route.MetaFunction = () => [{ title: "How much do I mix? · Yakamoz" }];

export async function loader() {
  const shelf = await listShelf((await serverContext()).db);
  return {
    clears: shelf.flatMap((p) => (isTopcoat(p.sheet) ? [{ id: p.id, sheet: p.sheet }] : [])),
    parts: shelf.flatMap((p) => (isCoat(p.sheet) ? [] : [{ id: p.id, sheet: p.sheet }])),
    /** Two even coats: what is asked here belongs to no job. */
    way: houseWay("two-full"),
  };
}
export default function AskMix({ loaderData }: Route.ComponentProps) {
  return <AskMixDesk loaderData={loaderData} />;
}
