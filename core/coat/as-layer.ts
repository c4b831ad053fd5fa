import { type LayerGun, layerSpec, usualReducer } from "../models/prep/layers";
import { dryingIn } from "../models/product/humid-flash";
import type { ProductSheet } from "../models/product/sheet";
import { houseWay, usualCoat } from "../models/ways/house-ways";
import type { HouseWay } from "../models/ways/way";
import { isAllOn } from "../panel/coats-on";
import type { PanelBrief } from "../panel/brief";
import { type Build, sumCoats } from "../panel/builds";
import type { PanelFacts } from "../panel/derive-panel";
import type { LayerState } from "../panel/layers";
import type { CoatsAsked } from "./coats-ahead";

/** The gun that a layer starts with: its usual one, where the sheet does not ask for another. */
function gunOf({ layer, sheet }: Pick<LayerState, "layer" | "sheet">): LayerGun {
  const { gun } = layerSpec(layer);
  const asked = sheet.gun;
  return {
    ...gun,
    pressure_Pa: asked?.pressure_Pa ?? gun.pressure_Pa,
    distance_m: asked?.distance_m ?? gun.distance_m,
    fan_m: asked?.fan_m ?? null,
  };
}

/** So many whole coats of itself, as every layer below the clear is sprayed. */
const wayOf = (coats: number, { trigger }: Pick<HouseWay, "trigger">): HouseWay => ({
  ...houseWay("two-full"),
  id: "layer",
  name: "layer",
  coats: Array.from({ length: coats }, () => ({ ...usualCoat(), role: "" })),
  trigger,
});

/** The sheet of a layer, as it dries in the air that was read last. */
export const sheetNow = ({ sheet }: Pick<LayerState, "sheet">, { climate }: Pick<PanelFacts, "climate">): ProductSheet =>
  dryingIn(sheet, climate?.body.relativeHumidity ?? null);

/**
 * A layer below the clear as its coats are asked for: the panel as if this layer were its clear. Whatever answers for a coat of clear (next coat, wait,
 * film, litres, time, pot, course) answers for it through this, and by its own sheet, pots, gun and coats.
 */
export function asLayer<A extends Omit<CoatsAsked, "now_ms">>(asked: A, layer: LayerState): A {
  const { facts, brief, way } = asked;
  const coats = layer.front;
  const build: Build[] =
    coats.length > 0
      ? [{ coats, predicted: sumCoats(coats.map((c) => c.predicted)), thinning: [], taken_m: 0, from_seq: coats[0]!.entry.seq }]
      : [];
  const sheet = sheetNow(layer, facts);
  return {
    ...asked,
    brief: { ...brief, coatsPlanned: layer.coats },
    sheet,
    way: wayOf(layer.coats, way),
    facts: {
      ...facts,
      coats,
      backCoats: layer.back,
      builds: build,
      mix: layer.pots.at(-1)?.entry ?? null,
      pots: layer.pots,
      // The gun in the hand for the clear, and its heat and work, are none of this layer's.
      gunSet: null,
      coatElsewhere: layer.elsewhere,
      baking: null,
      bakes: [],
      oven: null,
      predictedClear: null,
      expectedClear: null,
    },
    start: { gun: gunOf(layer), reducer: usualReducer(layer.layer, sheet) },
    shop: undefined,
    shopFilm: undefined,
  };
}

/** The planned layer that is sprayed next: the first from below up that wants coats yet; null: none does. */
export const nextLayer = ({ below }: Pick<PanelFacts, "below">, { sides }: Pick<PanelBrief, "sides">): LayerState | null =>
  below.find((l) => l.planned && !isLayerOn(l, { sides })) ?? null;

/** All its coats are on, on both faces where there are two. */
export const isLayerOn = ({ front, back, coats }: LayerState, { sides }: Pick<PanelBrief, "sides">): boolean =>
  isAllOn({ coats: front, backCoats: back }, { sides, coatsPlanned: coats });
