import { DEFECT_KINDS } from "#core/models/defects/kinds";
import { type EntryOf, pointsOf } from "#core/record/entry";
import { showFilm } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { DefectMark } from "./panel-drawing";

/** Defects of a panel as its drawing shows them. */
export const defectMarks = (defects: readonly EntryOf<"defect">[], units: UnitPreferences): DefectMark[] =>
  defects.map(({ id, body }) => ({
    id,
    kind: body.kind,
    at: [body.at.x_m, body.at.y_m],
    label: [
      body.count > 1 ? `${body.count} ×` : null,
      DEFECT_KINDS[body.kind].name.toLowerCase(),
      body.height_m ? showFilm(body.height_m, units).text : null,
    ]
      .filter(Boolean)
      .join(" "),
    length_m: body.length_m,
    trace: body.trace && { as: body.trace.as, at: pointsOf(body.trace.at) },
  }));
