import { redirect } from "react-router";
import type { Route } from "./+types/to-course.route";

/** A panel without a page's name opens at its course; nothing was looked up yet, so any letters may stand in its address. */
export const loader = ({ params: { jobId, panelId } }: Route.LoaderArgs) =>
  redirect(`/jobs/${encodeURIComponent(jobId)}/panels/${encodeURIComponent(panelId)}/course`);
