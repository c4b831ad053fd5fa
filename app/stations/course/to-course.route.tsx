import { redirect } from "react-router";
import type { Route } from "./+types/to-course.route";

/** A panel without a page's name opens at its course. */
export const loader = ({ params: { jobId, panelId } }: Route.LoaderArgs) => redirect(`/jobs/${jobId}/panels/${panelId}/course`);
