import type { ServerContext } from "../context";
import { type Gun, listGuns } from "../repos/gun-repo";
import { listWorked } from "../repos/summary-repo";
import type { Worked } from "../summary/panel-summary";

const MOST = 6;

/** Settings of a last coat on a panel that came out without a run or peel, and which panel that was. */
export type WorkedSettings = Worked & { where: string };

/** The shop's guns, and settings that worked on the newest panels read after clear. */
export async function loadGuns(ctx: ServerContext): Promise<{ guns: Gun[]; worked: WorkedSettings[] }> {
  const [guns, worked] = await Promise.all([listGuns(ctx.db), listWorked(ctx.db, MOST)]);
  return { guns, worked };
}
