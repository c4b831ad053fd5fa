import { asLayer, nextLayer } from "#core/coat/as-layer";
import { coatsAsked } from "#core/coat/asked";
import type { CoatsAsked } from "#core/coat/coats-ahead";
import { coatsToMix, facesToCome } from "#core/coat/litres";
import type { MixCoat, MixFace } from "#core/coat/mix-over";
import { handGun } from "#core/coat/next-coat";
import { windowAhead } from "#core/coat/window-ahead";
import { TEXTURE_LIMITS } from "#core/models/flow/constants";
import { type HardenerToday, hardenersToday } from "#core/models/flow/hardener-today";
import type { FlowConditions } from "#core/models/flow/simulate-coats";
import { LAYER_NAMES } from "#core/models/prep/layer-names";
import { boundTo } from "#core/models/product/bound-to";
import type { GunSettings } from "#core/models/spray/deposit";
import type { PartSheet } from "#core/models/product/sheet";
import type { HouseWay } from "#core/models/ways/way";
import type { Side } from "#core/record/kinds";
import type { PanelView } from "./panel-view";

export interface MixSetting {
  /** What it is on this panel: its clear, or the layers below it that it is planned for. */
  what: string;
  conditions: FlowConditions;
  /** What the flow model says of each hardener today; of what lies below the clear nothing. */
  judged: HardenerToday[] | null;
  /** The gun in the hand, the way of its coats, and the reducer of the mix as it stands, else what it begins with. */
  gun: GunSettings;
  way: HouseWay;
  coatsPlanned: number;
  reducer: number;
  /** Faces with their coats to come; with all on, one coat more of the front. */
  faces: MixFace[];
}

/** What a mix of a panel's own clear is asked from: the coats to come as their owner has them, and what the flow model says of each hardener today. */
export function mixSetting(view: PanelView, parts: readonly { sheet: PartSheet }[], now_ms: number): MixSetting {
  const asked = coatsAsked(view, now_ms);
  const { conditions, coats } = windowAhead(asked);
  const hardeners = boundTo(view.product.sheet, parts, "hardener").map((h) => h.sheet);
  return {
    ...settingOf([asked], "this panel's clear"),
    conditions,
    judged: hardenersToday(hardeners, { conditions, coats, shop: view.shopFactors }, TEXTURE_LIMITS[view.job.finish]),
  };
}

/** The same of every product that is planned below the clear, by its name: of one that builds several layers their coats together. */
export function layerMixes(view: PanelView, now_ms: number): Record<string, MixSetting> {
  const asked = coatsAsked(view, now_ms);
  const planned = view.state.below.filter((l) => l.planned && l.own);
  const names = [...new Set(planned.map((l) => l.sheet.name))];
  return Object.fromEntries(
    names.map((name) => {
      const layers = planned.filter((l) => l.sheet.name === name);
      const what = layers.map((l) => LAYER_NAMES[l.layer]).join(" and ");
      const all = layers.map((l) => asLayer(asked, l));
      return [name, { ...settingOf(all, what), conditions: windowAhead(all[0]!).conditions, judged: null }];
    }),
  );
}

/** The product that is sprayed next: of a layer below the clear while one is to come, else the clear. */
export function nextMixed({ state, panel, product }: PanelView): string {
  const next = nextLayer(state, panel);
  return next?.own ? next.sheet.name : product.sheet.name;
}

/** @param all what it is mixed for, one after the other out of the same pot */
function settingOf(all: readonly CoatsAsked[], what: string): Omit<MixSetting, "conditions" | "judged"> {
  const toCome = all.filter((a) => facesToCome(a).length > 0);
  const first = toCome[0] ?? all[0]!;
  const hand = handGun(first);
  const sides = (["back", "front"] as const).filter((side) => toCome.some((a) => facesToCome(a).includes(side)));
  const faces = sides.map((side) => ({ side, coats: inARow(toCome, side) }));
  // It is mixed for the coat that is next; what a later one has more goes into a second pot.
  const ofNext = faces[0]?.coats[0]?.more ?? 0;
  const common = {
    what,
    gun: hand.settings,
    way: first.way,
    coatsPlanned: all.reduce((a, b) => a + b.brief.coatsPlanned, 0),
    reducer: Math.max(0, hand.reducer + ofNext),
  };
  if (toCome.length === 0) {
    const more = { ...first, brief: { ...first.brief, coatsPlanned: first.facts.coats.length + 1 } };
    return { ...common, faces: [{ side: "front", coats: coatsToMix(more, "front") }] };
  }
  return { ...common, faces: faces.map((f) => ({ ...f, coats: f.coats.map((c) => ({ ...c, more: c.more - ofNext })) })) };
}

/** Coats to come of a face, of one layer after the other, counted through. */
function inARow(all: readonly CoatsAsked[], side: Side): MixCoat[] {
  const coats = all.flatMap((a) => (facesToCome(a).includes(side) ? coatsToMix(a, side) : []));
  const first = coats[0]?.number ?? 1;
  return coats.map((c, i) => ({ ...c, number: first + i }));
}
