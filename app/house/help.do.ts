import { dataFolder } from "#server/db/open";
import { keeper, serverContext } from "#server/running";
import { helpBundle } from "#server/views/help-view";

/** What somebody who helps wants to know, as a file; nothing of the shop's customers is in it. */
export async function loader() {
  const bundle = await helpBundle(await serverContext(), dataFolder(), keeper()?.keeping() ?? null);
  return new Response(JSON.stringify(bundle, null, 1), {
    headers: {
      "Content-Type": "application/json",
      "Content-Disposition": 'attachment; filename="yakamoz-help.json"',
      "Cache-Control": "no-store",
    },
  });
}
