import { data } from "react-router";
import { serverContext } from "#server/running";
import { writeLedger } from "#server/interchange/ledger-csv";
import { listEntries } from "#server/repos/ledger-repo";
import { getPanel } from "#server/repos/panel-repo";
import type { Route } from "./+types/ledger-csv.do";

/** A panel's whole ledger as CSV. */
export async function loader({ params: { panelId } }: Route.LoaderArgs) {
  const { db } = await serverContext();
  if (!(await getPanel(db, panelId))) throw data("This panel is not in the file.", { status: 404 });
  return new Response(writeLedger(await listEntries(db, panelId)), {
    headers: { "Content-Type": "text/csv; charset=utf-8", "Content-Disposition": 'attachment; filename="ledger.csv"' },
  });
}
