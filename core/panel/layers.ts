import { LAYER_KEYS, LAYER_NAMES, type LayerKey } from "../models/prep/layer-names";
import { type LayerFilm, layerSpec, usualFilm, usualReducer } from "../models/prep/layers";
import type { ProductSheet } from "../models/product/sheet";
import type { Deposit } from "../models/spray/deposit";
import type { EntryOf } from "../record/entry";
import type { Side } from "../record/kinds";
import type { CoatState } from "./builds";
import { type PotState, potsOf } from "./pots";
import { type SprayedIn, predictCoat } from "./predict-coat";

/** A coat below the clear, told as every coat is. */
export interface LayerCoat extends CoatState {
  layer: LayerKey;
  sheet: ProductSheet;
  /** Somebody said what it was sprayed with; else that too is taken as usual. */
  own: boolean;
  /** Its settings were told; else it is taken as is usual for the layer. */
  told: boolean;
}

/** One layer below the clear: as it is planned, and what of it is on. */
export interface LayerState {
  layer: LayerKey;
  /** Coats on each face; where nobody planned it as many as are on. */
  coats: number;
  planned: boolean;
  /** What it is sprayed with; as is usual for the layer where nobody said. */
  sheet: ProductSheet;
  own: boolean;
  front: LayerCoat[];
  back: LayerCoat[];
  /** The newest coat of this layer with the same product on another panel of the job, its settings told: the same gun is in the hand. */
  elsewhere: EntryOf<"coat"> | null;
  /** Pots of its product, oldest first. */
  pots: PotState[];
}

/** What tells under which air, and out of which pot, a coat was sprayed. */
export interface SprayLog {
  /** @returns what it was sprayed in: by the climate in force then, the hardener out of its pot */
  sprayedIn: (
    logged: EntryOf<"coat"> | EntryOf<"colourCoat">,
    o: { sheet: Pick<ProductSheet, "speed">; mixes: readonly EntryOf<"mix">[] },
  ) => SprayedIn;
}

/** The layers below the clear, from below up: those of the plan in force, and those that were logged without one. */
export function layersOf(
  plan: EntryOf<"layerPlan"> | null,
  logged: readonly EntryOf<"colourCoat">[],
  { sprayedIn, mixes, elsewhere = [] }: SprayLog & { mixes: readonly EntryOf<"mix">[]; elsewhere?: readonly EntryOf<"colourCoat">[] },
): LayerState[] {
  return LAYER_KEYS.flatMap((layer): LayerState[] => {
    const planned = plan?.body.layers.find((l) => l.layer === layer) ?? null;
    const entries = logged.filter((c) => c.body.coat === layer);
    if (!planned && entries.length === 0) return [];
    const own = planned?.sheet ?? entries.at(-1)?.body.sheet ?? null;
    const sheet = own ?? layerSpec(layer).sheet;
    const pots = mixes.filter((m) => m.body.product === sheet.name);
    const all = layerCoats(layer, entries, { sprayedIn, mixes: pots });
    const of = (side: Side) => all.filter((c) => c.entry.body.side === side);
    const [front, back] = [of("front"), of("back")];
    const there = elsewhere
      .filter((c) => c.body.coat === layer && sheetOfCoat(c.body).name === sheet.name)
      .map((logged) => ({ logged, entry: asCoat(logged, { sheet, number: 1 }) }));
    return [
      {
        layer,
        planned: planned !== null,
        coats: planned?.coats ?? Math.max(1, front.length, back.length),
        sheet,
        own: own !== null,
        front,
        back,
        elsewhere: there.findLast((c) => c.logged.body.settings !== null)?.entry ?? null,
        pots: potsOf(
          pots,
          [...all, ...there].map((c) => c.entry).sort((a, b) => a.seq - b.seq),
        ),
      },
    ];
  });
}

function layerCoats(
  layer: LayerKey,
  entries: readonly EntryOf<"colourCoat">[],
  { sprayedIn, mixes }: SprayLog & { mixes: readonly EntryOf<"mix">[] },
): LayerCoat[] {
  const placed = { front: 0, back: 0 };
  return entries.map((logged): LayerCoat => {
    const { sheet: own, settings, side } = logged.body;
    const sheet = sheetOfCoat(logged.body);
    const number = ++placed[side];
    const entry = asCoat(logged, { sheet, number });
    const sprayed = sprayedIn(logged, { sheet, mixes });
    const predicted = predictCoat(entry.body, sheet, sprayed);
    return {
      entry,
      loggedAs: number,
      sprayed,
      layer,
      sheet,
      own: own !== null,
      told: settings !== null,
      predicted: settings ? predicted : asUsual(predicted, sheet),
    };
  });
}

/** What a coat below the clear was sprayed with; as is usual for its layer where nobody said. */
export const sheetOfCoat = ({ coat, sheet }: EntryOf<"colourCoat">["body"]): ProductSheet => sheet ?? layerSpec(coat).sheet;

/** As a coat of clear is told. */
export function asCoat(
  logged: EntryOf<"colourCoat">,
  { sheet = sheetOfCoat(logged.body), number = 1 }: { sheet?: ProductSheet; number?: number } = {},
): EntryOf<"coat"> {
  const { coat: layer, settings, reducer, side, tilt_rad, zone, duration_s, potId, volume_m3 } = logged.body;
  return {
    ...logged,
    kind: "coat",
    body: {
      side,
      tilt_rad,
      zone,
      duration_s,
      potId,
      volume_m3,
      number,
      role: LAYER_NAMES[layer],
      settings: settings ?? { ...layerSpec(layer).gun, fluidFrom: "turns" as const, fan_m: null },
      reducer: reducer ?? usualReducer(layer, sheet),
      wetReading_m: null,
    },
  };
}

/** A coat of which nobody told the settings lays what its sheet says. */
function asUsual(predicted: Deposit, sheet: ProductSheet): Deposit {
  const { film_m, u_m } = usualFilm(sheet);
  return { ...predicted, dry_m: film_m, u_dry_m: u_m };
}

/** Film that a layer's coats on the front lay, each by its settings or as usual. */
export const layerFilms = (layers: readonly LayerState[]): LayerFilm[] =>
  layers.flatMap(({ layer, front }) =>
    front
      .filter((c) => c.entry.body.zone === "whole")
      .map(({ told, predicted }) => ({
        layer,
        film_m: predicted.dry_m,
        u_m: predicted.u_dry_m,
        how: told ? ("forecast" as const) : ("usual" as const),
      })),
  );
