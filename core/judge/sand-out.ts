import { type Point, polygonArea } from "../kernel/geometry/geometry";
import { type Region, around, regionShare } from "../kernel/geometry/region";
import { leftShare } from "../models/defects/remedies";
import type { PanelBrief } from "../panel/brief";
import { type EntryOf, pointsOf } from "../record/entry";
import { OPTION_FIGURES } from "./option-figures";

/** A mark's outline as it was drawn; else a rectangle of its size about its place. */
function drawnOrSized({ at, trace, length_m, width_m }: EntryOf<"defect">["body"]): Point[] {
  if (trace) return pointsOf(trace.at);
  const { undrawn_m } = OPTION_FIGURES.sandOut;
  const [half_x, half_y] = [(length_m ?? undrawn_m) / 2, (width_m ?? undrawn_m) / 2];
  return [
    [at.x_m - half_x, at.y_m - half_y],
    [at.x_m + half_x, at.y_m - half_y],
    [at.x_m + half_x, at.y_m + half_y],
    [at.x_m - half_x, at.y_m + half_y],
  ];
}

/** What is taken back to sound clear where that is what mends a mark: its outline and so far beyond it on every side; empty where nothing asks for it. */
export function sandOutOf({ shape }: Pick<PanelBrief, "shape">, open: readonly EntryOf<"defect">[]): { region: Region; area_m2: number } {
  const region = open
    .filter((d) => leftShare(d.body.kind, "sandOut") < 1)
    .map((d) => around(drawnOrSized(d.body), OPTION_FIGURES.sandOut.beyond_m));
  return { region, area_m2: region.length > 0 ? regionShare(shape.outline, region) * polygonArea(shape.outline) : 0 };
}
