import { coatsAsked } from "#core/coat/asked";
import { type EqualFrom, equalFrom } from "#core/coat/equal-finish";
import type { RunCalibration } from "#core/models/flow/run-calibration";
import type { ProductSheet } from "#core/models/product/sheet";
import type { BodyOf } from "#core/record/bodies";
import { coatSettings } from "../commands/guns";
import type { ServerContext } from "../context";
import { loadRunCalibration } from "./calibration-view";
import { loadGuns } from "./guns-view";
import type { PanelView } from "./panel-view";

/** A nozzle for clear where nobody says: common practice. */
const USUAL_NOZZLE_M = 1.3e-3;

/** What the gun for the next coat is set anew from. */
export interface DialView {
  from: EqualFrom;
  /** Cup time of the mix by its sheet; null where it has none. */
  cup: NonNullable<ProductSheet["viscosity"]> | null;
  nozzle_m: number;
  guns: { id: string; name: string; settings: BodyOf<"coat">["settings"] }[];
  /** What this shop's own runs say of a chance; null as long as there are too few. */
  calibration: RunCalibration | null;
  /** The newest entry that all of it was worked out on. */
  version: string;
}

/** The version of the ledger that a gun is set anew upon. */
export const dialVersion = ({ expectedVersion }: Pick<PanelView, "expectedVersion">): string => expectedVersion ?? "empty";

/** Null where no coat comes next, or its settings lie beyond the models. */
export async function loadDial(ctx: ServerContext, view: PanelView): Promise<DialView | null> {
  const from = equalFrom(coatsAsked(view, ctx.now_ms()));
  if (!from) return null;
  const [{ guns }, calibration] = await Promise.all([loadGuns(ctx), loadRunCalibration(ctx)]);
  const inHand = guns.find((g) => g.id === view.state.gunSet?.body.gunId);
  return {
    from,
    cup: view.product.sheet.viscosity ?? null,
    nozzle_m: inHand?.body.nozzle_m ?? USUAL_NOZZLE_M,
    guns: guns.filter((g) => g !== inHand).map(({ id, body }) => ({ id, name: body.name, settings: coatSettings(body) })),
    calibration,
    version: dialVersion(view),
  };
}
