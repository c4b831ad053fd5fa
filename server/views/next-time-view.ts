import type { SprayedPanel } from "#core/panel/next-time";
import type { ServerContext } from "../context";
import { listSprayed } from "../repos/summary-repo";

/** So many of the newest panels are looked at. */
const PANELS_MOST = 80;

/** The shop's sprayed panels with their settings and results, oldest first. */
export const loadSprayed = (ctx: ServerContext): Promise<SprayedPanel[]> => listSprayed(ctx.db, PANELS_MOST);
