import type { HoldingFault } from "#core/panel/fault-holds";
import type { HOLDS } from "#core/models/defects/holds";
import type { DefectKind } from "#core/models/defects/kinds";
import { placeInWords } from "#core/kernel/geometry/place-in-words";
import type { PanelShape } from "#core/kernel/geometry/shapes";
import { inUnits } from "#core/kernel/units/in-units";
import type { UnitPreferences } from "#core/kernel/units/quantities";

/** Kinds that hold work back. */
type Holding = { [K in DefectKind]: (typeof HOLDS)[K] extends null ? never : K }[DefectKind];

/** What comes first, and why. */
const FIRST: Record<Holding, string> = {
  softFilm:
    "neither paper nor more clear before a thumbnail leaves no print. Warmth and time; what was mixed with old or short hardener never gets hard, and is stripped",
  peeling: "first back to sound clear and 125 to 150 mm beyond it. Paper tears it on, and what is laid over it lifts with it",
  edgeLift: "first back to sound clear and 125 to 150 mm beyond it. Paper tears it on, and what is laid over it lifts with it",
  wrinkling: "first off to what is sound, then a barrier: what lies below lifts again under new clear",
  pinhole: "first back to the filler below and filled: sanding opens them, and the filler drinks the next clear as well",
  microFoam: "it lies through the whole film: sanding opens the next bubbles",
  pop: "solvent is still below, and holes open deeper than the sanding goes. Warmth and time first, then flat until no hole is left",
  dieBack: "it goes on as long as solvent leaves: polished too soon it comes again",
  blush: "water is below the surface: first let it dry, warm",
  scratches: "they go on swelling for weeks: polished too soon they come again",
  burn: "nearly through: the next touch of paper is colour. It is sprayed again",
  cutThrough: "the clear is through: no more work there. New base and clear",
  halo: "the edge of colour shows through any clear: base first",
  notCovered: "it shows through any clear: base first",
  colourOff: "it is off under any clear: base first",
};

const wordsOf = ({ kind }: HoldingFault): string => FIRST[kind as Holding];

/** "Peeling at the front edge: first back to sound clear …". */
export function holdWords(fault: HoldingFault, shape: Pick<PanelShape, "outline" | "sides">, units: UnitPreferences): string {
  const where = fault.where === "panel" ? "" : ` at the ${placeInWords(fault.at, shape)}`;
  return inUnits(`${fault.name}${where}: ${wordsOf(fault)}.`, units);
}
