import { dataFolder } from "#server/db/open";
import { authorityCertificate, fingerprintOf } from "#server/lan/certificate";
import { network } from "#server/running";
import { requestContext } from "~/kit/http/request-context.server";
import { TrustDesk } from "./trust.desk";
import type { Route } from "./+types/trust.route";

export const meta: Route.MetaFunction = () => [{ title: "The safe address · Yakamoz" }];

export async function loader({ context }: Route.LoaderArgs) {
  const { known } = context.get(requestContext);
  const pem = authorityCertificate(dataFolder());
  return { secure: known.secure, links: network()?.links().safe ?? [], fingerprint: pem && (await fingerprintOf(pem)) };
}

export default function Trust({ loaderData }: Route.ComponentProps) {
  return <TrustDesk {...loaderData} />;
}
