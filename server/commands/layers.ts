import { type ColourEdge, LAYER_NAMES, type LayerKey } from "#core/models/prep/layer-names";
import { layerSpec } from "#core/models/prep/layers";
import { type ProductSheet, isCoat } from "#core/models/product/sheet";
import { asLayer } from "#core/coat/as-layer";
import { coatsAsked } from "#core/coat/asked";
import { nextCoat } from "#core/coat/next-coat";
import { type SetOtherwise, setOtherwise } from "#core/coat/set-otherwise";
import { layerOf } from "#core/panel/layer-coats";
import { outOfPot } from "#core/panel/pots";
import type { BodyInputOf, BodyOf } from "#core/record/bodies";
import type { ServerContext } from "../context";
import type { PanelView } from "../views/panel-view";
import { newestRevision } from "../repos/product-repo";
import { entryBefore, recordEntry } from "./record-entry";
import { Refusal } from "./refusal";

interface PlannedLayer {
  layer: LayerKey;
  coats: number;
  /** Of the shelf; null: as is usual for the layer. */
  productId: string | null;
}

/**
 * Keeps what goes on below the clear, with each product's sheet as it stands now.
 * @param upon the plan that the form showed; null: none @throws Refusal where another window planned meanwhile, or a product is gone
 */
export async function planLayers(
  ctx: ServerContext,
  view: PanelView,
  o: {
    layers: readonly PlannedLayer[];
    shade: string;
    shadeRight: boolean | null;
    edge?: ColourEdge | null;
    upon: string | null;
    by: string;
    clientKey: string | null;
  },
): Promise<string> {
  const { shade, shadeRight, edge = null } = o;
  const asked = { layers: o.layers, shade, shadeRight, edge };
  const again = await entryBefore(ctx, view.panel.id, o.clientKey, asked);
  if (again) return again;
  const there = view.state.layerPlan?.id ?? null;
  if (there !== o.upon)
    throw new Refusal(null, "What goes below was planned in another window meanwhile. Nothing was overwritten; look again.");
  const layers = await Promise.all(
    o.layers.map(async ({ layer, coats, productId }) => ({ layer, coats, sheet: await sheetFor(ctx, layer, productId) })),
  );
  return recordEntry(ctx, {
    panelId: view.panel.id,
    kind: "layerPlan",
    body: { layers, shade, shadeRight, edge },
    by: o.by,
    clientKey: o.clientKey,
    asked,
    supersedes: there,
  });
}

async function sheetFor(ctx: ServerContext, layer: LayerKey, productId: string | null): Promise<ProductSheet | null> {
  if (productId === null) return null;
  const sheet = (await newestRevision(ctx.db, productId))?.sheet;
  if (!sheet || !isCoat(sheet)) throw new Refusal(layer, "This product is no longer on the shelf");
  if (!layerSpec(layer).kinds.includes(sheet.kind)) throw new Refusal(layer, `A ${sheet.kind} is no ${LAYER_NAMES[layer]}`);
  return sheet;
}

/**
 * Logs a coat below the clear, by its settings or as is usual for the layer, with the sheet, face, tilt and pot that it has now.
 * @param shown the coat that the form said it logs; null: it said none @throws Refusal where that coat was logged meanwhile
 */
export async function logLayerCoat(
  ctx: ServerContext,
  view: PanelView,
  o: {
    layer: LayerKey;
    settings: BodyOf<"coat">["settings"] | null;
    reducer: number | null;
    zone?: BodyOf<"coat">["zone"] | undefined;
    by: string;
    clientKey: string | null;
    shown?: number | null;
  },
): Promise<string> {
  const { layer, settings, reducer, zone = "whole", shown = null } = o;
  const asked = { layer, settings, reducer, zone, shown };
  const again = await entryBefore(ctx, view.panel.id, o.clientKey, asked);
  if (again) return again;
  const number = nextOfLayer(ctx, view, layer)?.number;
  if (shown !== null && number !== undefined && shown !== number)
    throw new Refusal(
      null,
      `Coat ${number} of the ${LAYER_NAMES[layer]} comes next here: another window was first. Nothing was stored; look again.`,
    );
  return recordEntry(ctx, {
    panelId: view.panel.id,
    kind: "colourCoat",
    body: layerBody(ctx, view, { coat: layer, settings, reducer, zone }),
    by: o.by,
    clientKey: o.clientKey,
    asked,
  });
}

/** The next coat of a layer by its owner; undefined: the panel has no such layer. */
function nextOfLayer(ctx: ServerContext, view: PanelView, layer: LayerKey) {
  const state = layerOf(view.state.below, layer);
  return state && nextCoat(asLayer(coatsAsked(view, ctx.now_ms()), state));
}

/** The next coat of a layer as its owner plans it, but for what was set otherwise. */
export function layerAsPlanned(
  ctx: ServerContext,
  view: PanelView,
  layer: LayerKey,
  otherwise: SetOtherwise = {},
): BodyInputOf<"colourCoat"> {
  const next = nextOfLayer(ctx, view, layer);
  return layerBody(ctx, view, {
    coat: layer,
    settings: next ? setOtherwise(next.settings, otherwise) : null,
    reducer: next?.reducer ?? null,
    zone: next?.zone ?? "whole",
  });
}

/** A coat of a layer with the sheet, face, tilt and pot that it has now. */
function layerBody(
  ctx: ServerContext,
  view: PanelView,
  coat: Pick<BodyOf<"colourCoat">, "coat" | "settings" | "reducer" | "zone">,
): BodyInputOf<"colourCoat"> {
  const { settings, zone } = coat;
  const state = layerOf(view.state.below, coat.coat);
  const now = state && {
    sheet: state.own ? state.sheet : null,
    side: state.planned ? nextOfLayer(ctx, view, coat.coat)!.side : ("front" as const),
    ...outOfPot(state.pots, ctx.now_ms(), { brief: view.panel, way: view.job.way, sprayed: settings && { settings, zone, number: 1 } }),
  };
  return { ...coat, ...now, tilt_rad: view.state.turned?.body.tilt_rad ?? null };
}
