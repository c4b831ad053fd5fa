import type { PathSet } from "#core/coat/path-ahead";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { ROW_BOUNDS } from "#core/models/bounds";
import { GUN_LIMITS } from "~/kit/form/gun-limits";
import { initial } from "~/kit/form/initial";
import { readTyped } from "~/kit/form/read-typed";

/** The fields of a path as they begin. */
export const pathTexts = ({ rows, overlap, handSpeed_m_s }: PathSet, units: UnitPreferences) => ({
  lie: rows.turned ? "upright" : "across",
  overlap: initial("share", overlap, units),
  speed: initial("speed", handSpeed_m_s, units),
  first: initial("length", rows.first_m, units),
  overrun: initial("length", rows.overrun_m, units),
  even: rows.even,
  staggered: rows.staggered,
  endsFirst: rows.endsFirst,
});

/** A path as it is typed; ticks come as such, or as the texts that a form sends. */
export const readPath = (typed: Record<string, unknown>, units: UnitPreferences) =>
  readTyped(typed, units, (r): PathSet => {
    const tick = (name: string) => typed[name] === true || typed[name] === "true";
    return {
      overlap: r.quantity("overlap", "share", GUN_LIMITS.overlap),
      handSpeed_m_s: r.quantity("speed", "speed", GUN_LIMITS.handSpeed),
      rows: {
        turned: r.oneOf("lie", ["across", "upright"]) === "upright",
        first_m: r.quantity("first", "length", ROW_BOUNDS.first_m),
        overrun_m: r.quantity("overrun", "length", ROW_BOUNDS.overrun_m),
        even: tick("even"),
        staggered: tick("staggered"),
        endsFirst: tick("endsFirst"),
      },
    };
  });
