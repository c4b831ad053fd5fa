import { polygonArea } from "#core/kernel/geometry/geometry";
import { isCoat } from "#core/models/product/sheet";
import { USUAL_GUN } from "#core/models/spray/usual-gun";
import { houseWay, usualCoat } from "#core/models/ways/house-ways";
import type { ServerContext } from "../context";
import { listPanels } from "../repos/panel-repo";
import { listShelf } from "../repos/product-repo";
import { loadCans } from "./cans-view";
import { layerMixes, mixSetting, nextMixed } from "./mix-view";
import type { PanelView } from "./panel-view";

/** What the mix of a panel is worked out from: its coats to come, the panels of its job, and what stands on the shelf. */
export async function loadMixPage(ctx: ServerContext, view: PanelView) {
  const [panels, shelf, cans] = await Promise.all([listPanels(ctx.db, view.job.id), listShelf(ctx.db), loadCans(ctx)]);
  const parts = shelf.flatMap((p) => (isCoat(p.sheet) ? [] : [{ id: p.id, sheet: p.sheet }]));
  const own = mixSetting(view, parts, ctx.now_ms());
  return {
    own,
    layers: layerMixes(view, ctx.now_ms()),
    // What is sprayed next is what is mixed next.
    start: nextMixed(view),
    // Coats of what is not planned on the panel: whole, at a usual hand.
    plain: { way: houseWay("two-full"), coat: usualCoat(), gun: USUAL_GUN },
    panels: panels.map((p) => ({
      id: p.id,
      name: p.name,
      area_m2: polygonArea(p.shape.outline),
      part: { outline: p.shape.outline, rows: p.rows },
      productRevisionId: p.productRevisionId,
      // Of this panel those that want coats yet; of the others all they have.
      faces: p.id === view.panel.id ? own.faces.length : (p.sides ?? 1),
    })),
    parts,
    coats: shelf.flatMap((p) => (isCoat(p.sheet) ? [p.sheet] : [])),
    cans: cans.filter((c) => c.age.state !== "empty").map((c) => ({ id: c.id, name: c.name, batch: c.batch, words: c.age.words })),
  };
}
