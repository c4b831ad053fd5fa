import { isCoat } from "#core/models/product/sheet";
import { serverContext } from "#server/running";
import { listShelf } from "#server/repos/product-repo";
import { loadCans } from "#server/views/cans-view";
import type { Route } from "./+types/shelf.route";
import { unlessListMoved } from "~/kit/list/list-state";
import { ShelfDesk } from "./shelf.desk";

export const meta: Route.MetaFunction = () => [{ title: "Shelf · Yakamoz" }];

export { unlessListMoved as shouldRevalidate };

export async function loader() {
  const ctx = await serverContext();
  const shelf = await listShelf(ctx.db);
  return {
    coats: shelf.flatMap((p) => (isCoat(p.sheet) ? [{ ...p, sheet: p.sheet }] : [])),
    parts: shelf.flatMap((p) => (isCoat(p.sheet) ? [] : [{ ...p, sheet: p.sheet }])),
    cans: await loadCans(ctx),
  };
}
export default function Shelf({ loaderData }: Route.ComponentProps) {
  return <ShelfDesk loaderData={loaderData} />;
}
