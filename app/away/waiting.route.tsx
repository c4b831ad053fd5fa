import type { Route } from "./+types/waiting.route";
import { WaitingDesk } from "./waiting.desk";

export const meta: Route.MetaFunction = () => [{ title: "Not yet with the shop · Yakamoz" }];

/** What this device has entered and the shop has not answered for: it stands in the browser alone, so the page asks nothing of the server. */
export default function NotYetWithTheShop() {
  return <WaitingDesk />;
}
