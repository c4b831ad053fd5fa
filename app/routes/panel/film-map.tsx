import { Link } from "react-router";
import { addSpot } from "#server/commands/spot-plan";
import { serverContext } from "#server/context";
import { FilmMapDesk } from "~/film/film-map-desk";
import { answerForm } from "~/forms/answer";
import { addSpotForm } from "~/forms/inspect-forms";
import { guardedAction } from "~/lib/guarded-action";
import { formPrefs } from "~/lib/prefs.server";
import { InspectTabs } from "~/panel/inspect-tabs";
import { panelOr404 } from "~/lib/panel.server";
import type { Route } from "./+types/film-map";
import { usePanel } from "./layout";

export async function action({ request, params: { jobId, panelId } }: Route.ActionArgs) {
  const ctx = await serverContext();
  const view = await panelOr404(ctx, jobId, panelId);
  const form = await request.formData();
  const { by } = await formPrefs(request, form);
  return answerForm(form, addSpotForm, async (at) => {
    const name = await addSpot(ctx, view, { ...at, by });
    return { message: `Place ${name} is on the walk` };
  });
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function FilmMapPage() {
  const { view, base } = usePanel();
  const read = view.state.observations.some((o) => o.layer === "after");
  return (
    <>
      <InspectTabs base={base} />
      {read ? (
        <FilmMapDesk />
      ) : (
        <section className="max-w-[60ch] space-y-4">
          <h2 className="text-[31px] leading-[1.12] font-semibold tracking-tight">Nothing is read after clear yet, so there is no map.</h2>
          <p className="text-ink2">
            Three spots are the least; six give a wide map, more make it sharp. The stand-in gauge reads a spot at a press.
          </p>
          <Link to={`${base}/inspect`} className="press" data-kind="main">
            Read the film
          </Link>
        </section>
      )}
    </>
  );
}
