import { formatISO } from "date-fns";
import { data } from "react-router";
import { ofKind } from "#core/record/entry";
import { livingEntries } from "#core/record/timeline";
import { serverContext } from "#server/running";
import { writeReadings } from "#server/interchange/readings-csv";
import { listEntries } from "#server/repos/ledger-repo";
import { getPanel } from "#server/repos/panel-repo";
import type { Route } from "./+types/readings-csv.do";

export async function loader({ params }: Route.LoaderArgs) {
  const { db } = await serverContext();
  if (!(await getPanel(db, params.panelId))) throw data("This panel is not in the file.", { status: 404 });
  const rows = ofKind(livingEntries(await listEntries(db, params.panelId)), "reading").flatMap((e) =>
    e.body.readings.map((r) => ({
      spot: e.body.spot,
      x_m: e.body.at.x_m,
      y_m: e.body.at.y_m,
      phase: e.body.phase,
      entered: r.entered,
      unit: r.unit,
      film_m: r.thickness_m,
      simulated: e.simulated,
      at: formatISO(e.at_ms),
    })),
  );
  return new Response(writeReadings(rows), {
    headers: { "Content-Type": "text/csv; charset=utf-8", "Content-Disposition": 'attachment; filename="readings.csv"' },
  });
}
