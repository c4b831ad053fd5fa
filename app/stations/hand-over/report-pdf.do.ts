import { format } from "date-fns";
import { serverContext } from "#server/running";
import { getPhoto } from "#server/repos/photo-repo";
import { getShop } from "#server/repos/shop-repo";
import { REGIONS, viewInRegion } from "~/kit/words/region";
import { readPrefs } from "~/kit/http/prefs.server";
import { reportPdf } from "./report-pdf.server";
import { reportReader } from "./report-reader";
import { panelAloneOr404 } from "~/kit/http/panel.server";
import type { Route } from "./+types/report-pdf.do";

/** The hand-over report as PDF, in this screen's units. */
export async function loader({ request, params: { panelId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const view = await panelAloneOr404(ctx, panelId);
  const shop = await getShop(ctx.db);
  const { units } = await readPrefs(request, shop.units);
  const ids = view.state.defects.flatMap((d) => (d.body.photoId ? [d.body.photoId] : []));
  const photos = (await Promise.all(ids.map((id) => getPhoto(ctx.db, id)))).flatMap((p) => (p ? [p.bytes] : []));
  const reader = reportReader(new URL(request.url).searchParams.get("for"));
  const pdf = await reportPdf(viewInRegion(view), {
    paper: REGIONS[view.region].paper,
    reader,
    units,
    shopName: shop.name,
    today: format(ctx.now_ms(), "d MMMM yyyy"),
    photos,
  });
  return new Response(new Uint8Array(pdf), {
    headers: { "Content-Type": "application/pdf", "Content-Disposition": "attachment", "Cache-Control": "no-store" },
  });
}
