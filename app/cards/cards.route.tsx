import { format } from "date-fns";
import { serverContext } from "#server/running";
import { listCards } from "#server/repos/card-repo";
import type { Route } from "./+types/cards.route";
import { unlessListMoved } from "~/kit/list/list-state";
import { CardsDesk } from "./cards.desk";

export const meta: Route.MetaFunction = () => [{ title: "Cards · Yakamoz" }];

export { unlessListMoved as shouldRevalidate };

export async function loader() {
  const cards = await listCards((await serverContext()).db);
  return { cards: cards.map((c) => ({ ...c, day: format(c.at_ms, "d MMM yyyy") })) };
}
export default function Cards({ loaderData }: Route.ComponentProps) {
  return <CardsDesk loaderData={loaderData} />;
}
