import { coatVolumes } from "../models/ways/way-volumes";
import { coatGun } from "../models/ways/coat-gun";
import { plannedCoat } from "../models/ways/way";
import { coatsOf, facesOf } from "../panel/coats-on";
import type { Side } from "../record/kinds";
import { coatTime_s } from "./coat-time";
import { type CoatsAsked, coatsAhead } from "./coats-ahead";
import type { MixCoat } from "./mix-over";
import { handGun } from "./next-coat";
import { USUAL_DEAD_M3, USUAL_WASTE } from "./usual-waste";

/** Ready-to-spray material of coats to come: through the gun, and with waste and what stays in cup and gun. */
export interface Litres {
  sprayed_m3: number;
  toMix_m3: number;
}

export const withWaste = (sprayed_m3: number): Litres => ({
  sprayed_m3,
  toMix_m3: sprayed_m3 > 0 ? sprayed_m3 * (1 + USUAL_WASTE) + USUAL_DEAD_M3 : 0,
});

/** The faces of a panel that want coats yet, back before front. */
export const facesToCome = ({ brief, facts }: Pick<CoatsAsked, "brief" | "facts">): Side[] =>
  facesOf(brief).filter((side) => coatsOf(facts, side).length < brief.coatsPlanned);

/** The coats to come of a face, by the strokes of the gun in the hand, also where the flow model does not reach. @throws RangeError */
export function coatsToMix(asked: CoatsAsked, side: Side): MixCoat[] {
  const { brief, facts, way } = asked;
  const hand = handGun(asked);
  const ahead = coatsAhead(asked, side);
  if (ahead)
    return ahead.map(({ number, gun, reducer, volume_m3, time_s, dry_m }) => ({
      number,
      gun,
      more: reducer - hand.reducer,
      volume_m3,
      time_s,
      dry_m,
    }));
  const on = coatsOf(facts, side).length;
  return coatVolumes(way, { outline: brief.shape.outline, rows: brief.rows, gun: hand.settings, coats: brief.coatsPlanned }).flatMap(
    (v, i) =>
      i < on
        ? []
        : [
            {
              number: i + 1,
              gun: coatGun(hand.settings, plannedCoat(way, i + 1)),
              more: 0,
              volume_m3: v.volume_m3,
              time_s: coatTime_s(facts, v),
              dry_m: null,
            },
          ],
  );
}

/** What goes through the gun for all coats to come on both faces. @throws RangeError */
const strokesToCome_m3 = (asked: CoatsAsked): number =>
  facesToCome(asked).reduce((a, side) => a + coatsToMix(asked, side).reduce((b, c) => b + c.volume_m3, 0), 0);

/** What is to be mixed for all coats to come on both faces: the one figure of course, plan and mix. @throws RangeError */
export const litresToCome = (asked: CoatsAsked): Litres => withWaste(strokesToCome_m3(asked));

/** The same of several panels out of one pot: one cup and one gun keep what stays in them. @throws RangeError */
export const litresTogether = (all: readonly CoatsAsked[]): Litres => withWaste(all.reduce((a, asked) => a + strokesToCome_m3(asked), 0));

/** The same for all coats of all its faces once more, from the first on. @throws RangeError */
export function litresAgain(asked: CoatsAsked): Litres {
  const { brief, way } = asked;
  const { settings: gun } = handGun(asked);
  const face = coatVolumes(way, { outline: brief.shape.outline, rows: brief.rows, gun, coats: brief.coatsPlanned }).reduce(
    (a, v) => a + v.volume_m3,
    0,
  );
  return withWaste(facesOf(brief).length * face);
}
