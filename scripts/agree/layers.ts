import { asLayer, nextLayer } from "#core/coat/as-layer";
import { coatsAsked } from "#core/coat/asked";
import { nextCoat } from "#core/coat/next-coat";
import { seededRandom } from "#core/kernel/stats/random";
import { LAYER_KEYS, type LayerKey } from "#core/models/prep/layer-names";
import { LAYERS } from "#core/models/prep/layers";
import { layerOf } from "#core/panel/layer-coats";
import type { SheetInput } from "#core/models/product/sheet";
import type { BodyInputOf, EntryKind } from "#core/record/bodies";
import { logLayerCoat, planLayers } from "#server/commands/layers";
import type { ServerContext } from "#server/context";
import type { PanelView } from "#server/views/panel-view";
import type { Send } from "./ledgers";

interface Below {
  seed: number;
  product: (sheet: SheetInput) => Promise<{ productId: string }>;
  send: Send;
  view: (at?: ServerContext) => Promise<PanelView>;
  add: <K extends EntryKind>(what: K, body: BodyInputOf<K>) => Promise<string>;
  story: string[];
}

const SHARE_PLANNED = 0.35;
/** Of them so many have no clear on yet. */
const SHARE_LEFT = 0.6;
const by = "painter A";

/** What is planned, mixed and sprayed below the clear of a panel, in some order; a random stream of its own leaves the rest of its life as it was. */
export async function layBelow(
  ctx: ServerContext & { advance(ms: number): void },
  { seed, product, send, view, add, story }: Below,
): Promise<"clear next" | "to be gone on with"> {
  const random = seededRandom(900_001 + 17 * seed);
  const chance = (p: number) => random() < p;
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  if (!chance(SHARE_PLANNED)) return "to be gone on with";
  const planned = LAYER_KEYS.filter(() => chance(0.45));
  const sheetOf = (layer: LayerKey): SheetInput => ({
    ...LAYERS[layer].sheet,
    name: `${layer} of ${seed}`,
    carrier: pick(["water", "solvent", null]),
    speed: pick(["slow", "medium", "fast"]),
    volumeSolids: LAYERS[layer].sheet.volumeSolids * (0.9 + 0.2 * random()),
    gun: chance(0.4) ? { nozzle_m: null, pressure_Pa: 1.2e5 + 1e5 * random(), distance_m: 0.14 + 0.08 * random(), fan_m: null } : null,
    overcoat: chance(0.5) ? { min_s: 600 + 3000 * random(), max_s: 86_400 } : null,
  });
  const layers: { layer: LayerKey; coats: number; productId: string | null }[] = [];
  for (const layer of planned) {
    const productId = chance(0.6) ? (await product(sheetOf(layer))).productId : null;
    layers.push({ layer, coats: 1 + Math.floor(3 * random()), productId });
  }
  if (chance(0.5)) await add("climate", { air_K: 284 + 20 * random(), part_K: null, relativeHumidity: 0.3 + 0.6 * random() });
  if (layers.length > 0 && chance(0.85)) {
    story.push(`planned below: ${layers.map((l) => `${l.layer} × ${l.coats}`).join(", ")}`);
    const shadeRight = pick([true, false, null]);
    await send(async (at) => planLayers(at, await view(at), { layers, shade: "", shadeRight, upon: null, by, clientKey: null }));
  }
  const coats = Math.floor(6 * random());
  for (let i = 0; i < coats; i++) {
    ctx.advance(60_000 * pick([2, 10, 25]));
    const now = await view();
    const next = nextLayer(now.state, now.panel);
    const layer = next && chance(0.85) ? next.layer : pick(LAYER_KEYS);
    const state = layerOf(now.state.below, layer);
    if (state?.own && chance(0.4))
      await add("mix", {
        volume_m3: 3e-4,
        reducer: 0.1 * Math.floor(4 * random()),
        potLife_s: 7200,
        product: state.sheet.name,
        speed: pick(["slow", "medium", null]),
      });
    const offered = state ? nextCoat(asLayer(coatsAsked(await view(), ctx.now_ms()), state)) : null;
    const told = offered !== null && chance(0.7);
    story.push(`${layer} on${told ? "" : ", as usual"}`);
    const coat = {
      layer,
      settings: told ? { ...offered.settings, handSpeed_m_s: offered.settings.handSpeed_m_s * (0.85 + 0.3 * random()) } : null,
      reducer: told ? offered.reducer : null,
      by,
      clientKey: null,
    };
    await send(async (at) => logLayerCoat(at, await view(at), coat));
  }
  return chance(SHARE_LEFT) ? "clear next" : "to be gone on with";
}
