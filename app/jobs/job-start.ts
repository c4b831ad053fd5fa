import type { UnitPreferences } from "#core/kernel/units/quantities";
import { FINISHES } from "#core/models/ways/terms";
import { SUBSTRATES } from "#core/panel/brief";
import type { Panel } from "#server/repos/panel-repo";
import { panelStartOf } from "./panel-fields";
import type { Job } from "#server/repos/job-repo";
import { briefStart } from "./brief-fields";

/** What a job is about as its form starts. */
export const jobStart = ({ vehicle, colourName, colourCss, way, finish, brief }: Job) => ({
  vehicle,
  colourName,
  colourCss,
  wayId: way.id,
  finish: finish as string,
  ...briefStart(brief),
});

/** What stands there now of a job that another window has changed, choices in words. */
export const jobShown = (there: Job) => ({
  ...jobStart(there),
  wayId: { value: there.way.id, said: there.way.name },
  finish: { value: there.finish, said: FINISHES[there.finish] },
});

/** The same of a panel. */
export const panelShown = (there: Panel, units: UnitPreferences) => ({
  ...panelStartOf(there, units),
  substrate: { value: there.substrate, said: SUBSTRATES[there.substrate].name },
  productRevisionId: { value: there.productRevisionId, said: "another product or revision" },
});
