import { data } from "react-router";
import { dataFolder } from "#server/db/open";
import { authorityCertificate } from "#server/lan/certificate";

/** The shop's own certificate authority, as tablets take it in. */
export function loader() {
  const pem = authorityCertificate(dataFolder());
  if (!pem) throw data("This shop has no certificate authority of its own.", { status: 404 });
  return new Response(pem, {
    headers: { "Content-Type": "application/x-x509-ca-cert", "Content-Disposition": 'attachment; filename="yakamoz-of-this-shop.crt"' },
  });
}
