import { coatsAsked } from "#core/coat/asked";
import { nextLayer } from "#core/coat/as-layer";
import { layerWait } from "#core/coat/layer-wait";
import { type LayerAhead, colourInAll_m3, layersAhead } from "#core/coat/layers-ahead";
import { type NextCoat, nextCoat } from "#core/coat/next-coat";
import { sprayedNow } from "#core/coat/setting";
import { inRange } from "#core/kernel/guard";
import { type GritChain, gritChain } from "#core/models/prep/grit-chain";
import { type HidingReason, hidingCoats } from "#core/models/prep/hiding";
import type { LayerKey } from "#core/models/prep/layer-names";
import { LAYERS, groundSaves } from "#core/models/prep/layers";
import { humidFactor } from "#core/models/product/humid-flash";
import { type AnySheet, type ProductSheet, isCoat } from "#core/models/product/sheet";
import { layerOf } from "#core/panel/layer-coats";
import type { SprayedIn } from "#core/panel/predict-coat";
import type { PanelView } from "#server/views/panel-view";

/** The coat below the clear that is sprayed next, as its owner has it. */
export interface NextLayerCoat {
  layer: LayerKey;
  of: number;
  coat: NextCoat;
  sheet: ProductSheet;
  own: boolean;
  sprayed: SprayedIn;
  /** Null: a setting lies beyond the model. */
  film: { dry_m: number; u_dry_m: number; wet_m: number; volume_m3: number; time_s: number } | null;
  /** Null: how it flows the model does not know. */
  runs: { chance: number; sagLocal_m: number } | null;
  /** Null: nobody could have sprayed with what was logged. */
  toMix_m3: number | null;
  potLife_s: number;
  /** How much longer it dries in this air than its sheet says. */
  damp: number;
}

/** A layer as its row shows it. */
export interface LayerRow {
  layer: LayerKey;
  product: string | null;
  productId: string | null;
  coats: number;
  planned: boolean;
  /** Null: nobody could have sprayed with what was logged. */
  toMix_m3: number | null;
}

export interface Layers {
  rows: LayerRow[];
  next: NextLayerCoat | null;
  /** Until the next coat below the clear, and until clear goes on; null: none is on. */
  wait: { next_ms: number; over_ms: number; left: boolean } | null;
  /** Coats of base until it covers, where a base is planned. */
  hiding: { coats: number; why: HidingReason[] } | null;
  /** What the ground coats save of the base; null: there are none, or no base. */
  ground: { saved_m3: number; left_m3: number } | null;
}

/** What the page of the layers below the clear shows. */
export function layersAt(view: PanelView, shelf: readonly { id: string; sheet: AnySheet }[], now_ms: number): Layers {
  const asked = coatsAsked(view, now_ms);
  const { state, panel } = view;
  const ahead = layersAhead(asked);
  const next = nextLayer(state, panel);
  const wait = layerWait(asked);
  const base = ahead.find((l) => l.layer === "base");
  const laid = layerOf(state.below, "ground");
  const ground = laid ? Math.max(laid.coats, laid.front.length) : 0;
  const { layerPlan } = state;
  // What covers: the base, or a topcoat that is the colour itself.
  const covers = state.coloured ? view.product.sheet : base?.state.planned ? base.state.sheet : null;
  return {
    rows: ahead.map(({ state: s, litres }) => ({
      layer: s.layer,
      product: s.own ? s.sheet.name : null,
      productId: s.own ? (shelf.find((p) => p.sheet.name === s.sheet.name)?.id ?? null) : null,
      coats: s.coats,
      planned: s.planned,
      toMix_m3: litres?.toMix_m3 ?? null,
    })),
    next:
      next &&
      nextShown(
        ahead.find((l) => l.layer === next.layer)!,
        view,
      ),
    wait: wait && { next_ms: wait.next_ms, over_ms: wait.over_ms, left: wait.next !== null },
    hiding:
      covers &&
      (inRange(() =>
        hidingCoats({ coats: covers.coats, ground, shadeRight: layerPlan?.body.shadeRight ?? null, sanded: sandedSince(view) }),
      ) ??
        null),
    ground: covers && ground > 0 ? (inRange(() => groundSaves(ground, colourInAll_m3(asked))) ?? null) : null,
  };
}

function nextShown({ state, asked, coats, flows, litres, potLife_s }: LayerAhead, view: PanelView): NextLayerCoat {
  const row = coats?.[0] ?? null;
  return {
    layer: state.layer,
    of: state.coats,
    coat: nextCoat(asked),
    sheet: asked.sheet,
    own: state.own,
    sprayed: sprayedNow(asked.facts, asked.sheet),
    film: row && { dry_m: row.dry_m, u_dry_m: row.u_dry_m, wet_m: row.wet_m, volume_m3: row.volume_m3, time_s: row.time_s },
    runs: row && flows ? { chance: row.runChance, sagLocal_m: row.sagLocal_m } : null,
    toMix_m3: litres?.toMix_m3 ?? null,
    potLife_s,
    damp: humidFactor(state.sheet, view.state.climate?.body.relativeHumidity ?? null),
  };
}

/** The undercoat was sanded after its newest coat. */
function sandedSince({ state }: PanelView): boolean {
  const under = state.colourCoats.findLast((c) => ["prime", "seal"].includes(LAYERS[c.body.coat].layer));
  return under !== undefined && state.under.some((u) => u.body.step === "sand" && u.seq > under.seq);
}

/** What the page of what lies below shows: the papers' chain, the layers, and what of the shelf they may be sprayed with. */
export function belowAt(view: PanelView, shelf: readonly { id: string; sheet: AnySheet }[], now_ms: number) {
  const chain: GritChain | null = inRange(() => gritChain(papersOf(view.state.under))) ?? null;
  return {
    chain,
    layers: layersAt(view, shelf, now_ms),
    products: shelf.flatMap(({ id, sheet }) => (isCoat(sheet) ? [{ id, name: sheet.name, kind: sheet.kind, coats: sheet.coats }] : [])),
  };
}

/** Papers that were sanded with below the base, in their order. */
const papersOf = (log: readonly { body: { step: string; grit: number | null } }[]): number[] =>
  log.flatMap((u) => (u.body.step === "sand" && u.body.grit !== null ? [u.body.grit] : []));
