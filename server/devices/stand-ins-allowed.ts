import { Refusal } from "../commands/refusal";
import type { Db } from "../db/open";
import { getShop } from "../repos/shop-repo";

/** Asked before anything of a stand-in is shown or stored: nothing simulated comes to a panel of a shop that has not switched them on. @throws Refusal */
export async function requireStandIns({ db }: { db: Db }): Promise<void> {
  if (!(await getShop(db)).standIns) throw new Refusal(null, "Simulated devices are off in this shop. House switches them on.", 403);
}
