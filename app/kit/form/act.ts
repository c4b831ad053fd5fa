import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { ServerContext } from "#server/context";
import type { PanelView } from "#server/views/panel-view";
import type { answerForm } from "./answer";

/** The panel that something is done at, looked at only where that is wanted: what needs no account of the film is stored without one. */
export interface ActAt {
  jobId: string;
  panelId: string;
  look: () => Promise<PanelView>;
}
/** In whose units and name a form was sent. */
export interface Sender {
  units: UnitPreferences;
  by: string;
}
export type ActAnswer = Awaited<ReturnType<typeof answerForm>>;
/** What a page's forms do: the station's page and the course, which unfolds its steps, carry them out by the same one. Null: this form is not its own. */
export type Act = (ctx: ServerContext, at: ActAt, form: FormData, sender: Sender) => Promise<ActAnswer | null>;
