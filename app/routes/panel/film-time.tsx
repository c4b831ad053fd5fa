import { serverContext } from "#server/context";
import { loadFilmHistory } from "#server/views/panel-view";
import { FilmTimeDesk } from "~/film/film-time-desk";
import { InspectTabs } from "~/panel/inspect-tabs";
import { panelOr404 } from "~/lib/panel.server";
import type { Route } from "./+types/film-time";
import { usePanel } from "./layout";

export async function loader({ params: { jobId, panelId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const view = await panelOr404(ctx, jobId, panelId);
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
