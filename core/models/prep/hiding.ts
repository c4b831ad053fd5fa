import { requireInteger } from "../../kernel/guard";
import { groundShare } from "./layers";

/** What decides how many coats of base a panel takes. */
export interface HidingAsked {
  /** Coats that the sheet says. */
  coats: number;
  /** Ground coats of a near colour below it. */
  ground: number;
  /** The undercoat has the shade that the colour's formula asks for. */
  shadeRight: boolean | null;
  /** The undercoat was sanded, so that it shows through in places. */
  sanded: boolean;
}
export type HidingReason = "sheet" | "ground" | "shade" | "sanded";

/**
 * Coats of base until it covers: the sheet's; a ground coat below saves about half of them; the wrong undercoat shade, or a sanded one, costs one
 * more. Common practice: the right shade saves one to two coats, a coat more where the sealer was sanded. Coverage is judged by eye all the same.
 * @throws RangeError for fewer than one coat
 */
export function hidingCoats({ coats, ground, shadeRight, sanded }: HidingAsked): { coats: number; why: HidingReason[] } {
  requireInteger("coats", coats, { min: 1, max: 20 });
  requireInteger("ground", ground, { min: 0, max: 20 });
  const why: HidingReason[] = ["sheet"];
  if (ground > 0) why.push("ground");
  if (shadeRight === false) why.push("shade");
  if (sanded) why.push("sanded");
  return { coats: Math.max(1, Math.ceil(coats * (1 - groundShare(ground)))) + (shadeRight === false ? 1 : 0) + (sanded ? 1 : 0), why };
}
