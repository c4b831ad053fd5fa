import { data } from "react-router";
import { serverContext } from "#server/context";
import { loadFilmHistory, loadPanelView } from "#server/views/panel-view";
import { FilmTimeDesk } from "~/film/film-time-desk";
import { InspectTabs } from "~/panel/inspect-tabs";
import type { Route } from "./+types/film-time";
import { usePanel } from "./layout";

export async function loader({ params: { jobId, panelId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const view = await loadPanelView(ctx, jobId, panelId);
  if (!view) throw data("This panel is not in the file.", { status: 404 });
  return { moments: await loadFilmHistory(ctx, view) };
}

export default function FilmTimePage({ loaderData: { moments } }: Route.ComponentProps) {
  const { base } = usePanel();
  return (
    <>
      <InspectTabs base={base} />
      <FilmTimeDesk moments={moments} />
    </>
  );
}
