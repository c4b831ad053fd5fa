import { acting } from "~/kit/form/in-words.server";
import { addSpotForm } from "../../kit/readings/reading.form";
import { addSpot } from "#server/commands/spot-plan";
import { serverContext } from "#server/running";
import { later, useLater } from "~/kit/root/later";
import { answerForm } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { formPrefs } from "~/kit/http/prefs.server";
import { MapToCome, NothingRead } from "./map-to-come";
import { InspectTabs } from "./tabs";
import { panelOr404 } from "~/kit/http/panel.server";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/film-map.route";
import { usePanel } from "~/kit/panel/use-panel";

export const action = acting(async ({ request, params: { jobId, panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const view = await panelOr404(ctx, jobId, panelId);
  const form = await formOf(request);
  const { by } = await formPrefs(request, form);
  return answerForm(form, addSpotForm, async (at) => {
    const name = await addSpot(ctx, view, { ...at, by });
    return { message: `Place ${name} is on the walk` };
  });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

/** With the models its question is asked by: nothing of it stands before they are here. */
const mapDesk = later(() => import("./film-map.desk"));

export default function FilmMapPage() {
  const { view, base } = usePanel();
  const read = view.state.film.mean !== null;
  const desk = useLater(mapDesk, read, true);
  return (
    <>
      <InspectTabs base={base} />
      {read ? desk ? <desk.FilmMapDesk /> : <MapToCome /> : <NothingRead base={base} />}
    </>
  );
}
