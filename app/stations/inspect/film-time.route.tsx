import { serverContext } from "#server/running";
import { loadFilmHistory } from "#server/views/panel-view";
import { FilmTimeDesk } from "./film-time.desk";
import { InspectTabs } from "./tabs";
import { panelOr404 } from "~/kit/http/panel.server";
import type { Route } from "./+types/film-time.route";
import { usePanel } from "~/kit/panel/use-panel";

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
