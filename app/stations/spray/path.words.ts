import type { PathSet } from "#core/coat/path-ahead";
import type { PathView } from "#core/coat/path-view";
import { show, showSpan } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Working } from "~/kit/ui/figure";
import { line, withU } from "~/kit/words/lines";

/** A path in a line, as the ledger keeps it. */
export function pathSaid({ rows, overlap, handSpeed_m_s }: PathSet, units: UnitPreferences): string {
  const figure = (kind: "length" | "speed" | "share", si: number) => {
    const s = show(kind, si, units);
    return `${s.text} ${s.unit}`;
  };
  return [
    `Path taken. Rows ${rows.turned ? "up and down" : "across"}, ${figure("share", overlap)} overlap, ${figure("speed", handSpeed_m_s)}`,
    `first row ${figure("length", rows.first_m)} in, ${figure("length", rows.overrun_m)} past the edge`,
    ...(rows.even ? ["last row as the first"] : []),
    ...(rows.staggered ? ["every other coat between the rows"] : []),
    ...(rows.endsFirst ? ["both ends first"] : []),
  ].join("; ");
}

/** How a path's film and litres came about. */
export const pathWorking = (view: PathView, units: UnitPreferences): Working => ({
  title: "Film of this path",
  formula:
    "The gun goes along the rows moment by moment; what lands is spread by its fan, dries, thickens and slides by the flow model, coat after coat with the waits of the coat plan. " +
    "What misses the part is lost. Litres: length of all rows with their overrun, over the hand's speed, times what the needle gives.",
  inputs: [
    withU("film where rows meet rows", "film", view.middle_m, view.u_middle_m, units),
    line("film, mean of the part", "film", view.mean_m, units),
    { name: "evenness, standard deviation", shown: `${Math.round(100 * view.cv)} %` },
    line("fan", "length", view.coats[0]!.fan_m, units),
    ...view.coats.map((c) => {
      const v = show("volume", c.volume_m3, units);
      return { name: `coat ${c.number}`, shown: `${c.passes.length} rows, ${v.text} ${v.unit}, ${showSpan(c.time_s)}` };
    }),
    { name: "of the solids land", shown: `${Math.round(100 * view.landedShare)} %` },
  ],
  sources: ["orchard-flow", "common-practice", "yakamoz-default"],
  changesMost: "What the gun really gives: a timed cup. Then the distance at which it is held.",
});
