import { listClears } from "#server/repos/product-repo";
import { getShop } from "#server/repos/shop-repo";
import { listWays } from "#server/repos/way-repo";
import { loadRunCalibration } from "#server/views/calibration-view";
import { serverContext } from "#server/running";
import type { Route } from "./+types/ways.route";
import { WaysDesk } from "./ways.desk";

export const meta: Route.MetaFunction = () => [{ title: "House ways · Yakamoz" }];

export async function loader() {
  const ctx = await serverContext();
  const [ways, shop, products, calibration] = await Promise.all([
    listWays(ctx.db),
    getShop(ctx.db),
    listClears(ctx.db),
    loadRunCalibration(ctx),
  ]);
  return { ways, calibration, usualId: shop.wayId, products: products.map((p) => ({ id: p.id, sheet: p.sheet })) };
}
export default function Ways({ loaderData }: Route.ComponentProps) {
  return <WaysDesk loaderData={loaderData} />;
}
