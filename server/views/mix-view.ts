import { coatsAsked } from "#core/coat/asked";
import { coatsToMix, facesToCome } from "#core/coat/litres";
import type { MixFace } from "#core/coat/mix-over";
import { handGun } from "#core/coat/next-coat";
import { windowAhead } from "#core/coat/window-ahead";
import { TEXTURE_LIMITS } from "#core/models/flow/constants";
import { type HardenerToday, hardenersToday } from "#core/models/flow/hardener-today";
import type { FlowConditions } from "#core/models/flow/simulate-coats";
import { boundTo } from "#core/models/product/bound-to";
import type { GunSettings } from "#core/models/spray/deposit";
import type { PartSheet } from "#core/models/product/sheet";
import type { PanelView } from "./panel-view";

export interface MixSetting {
  conditions: FlowConditions;
  /** What the flow model says of each hardener today. */
  judged: HardenerToday[];
  /** The gun in the hand, and the reducer of the mix as it stands, else the least of the sheet. */
  gun: GunSettings;
  reducer: number;
  /** Faces with their coats to come; with all on, one coat more of the front. */
  faces: MixFace[];
}

/** What a mix of a panel's own clear is asked from: the coats to come as their owner has them, and what the flow model says of each hardener today. */
export function mixSetting(view: PanelView, parts: readonly { sheet: PartSheet }[], now_ms: number): MixSetting {
  const { sheet } = view.product;
  const asked = coatsAsked(view, now_ms);
  const { conditions, coats } = windowAhead(asked);
  const hand = handGun(asked);
  const hardeners = boundTo(sheet, parts, "hardener").map((h) => h.sheet);
  const sides = facesToCome(asked);
  const more = { ...asked, brief: { ...asked.brief, coatsPlanned: view.state.coats.length + 1 } };
  return {
    conditions,
    judged: hardenersToday(hardeners, { conditions, coats }, TEXTURE_LIMITS[view.job.finish]),
    gun: hand.settings,
    reducer: hand.reducer,
    faces:
      sides.length > 0
        ? sides.map((side) => ({ side, coats: coatsToMix(asked, side) }))
        : [{ side: "front", coats: coatsToMix(more, "front") }],
  };
}
