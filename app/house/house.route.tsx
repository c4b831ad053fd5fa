import { acting } from "~/kit/form/in-words.server";
import { z } from "zod";
import { may } from "#server/access/rights";
import { houseForm } from "./house.form";
import { LEARNT, LEARNT_KEYS, houseTexts } from "./house.texts";
import { changeShop, houseVersion, saveHouse } from "#server/commands/house";
import { keeper, serverContext, shopCopies } from "#server/running";
import { sizeWords } from "~/kit/words/size-words";
import { keepingFault } from "#server/storage/keeper";
import { agoWords } from "~/kit/words/ago-words";
import { wayById } from "#server/commands/ways";
import { Refusal } from "#server/commands/refusal";
import { type ShopSettings, getShop, shopRegion } from "#server/repos/shop-repo";
import { listWays } from "#server/repos/way-repo";
import { loadLearnt, stepsToTakeOver } from "#server/views/learnt-view";
import { answerForm, versionIn } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { formPrefs } from "~/kit/http/prefs.server";
import { REGIONS } from "~/kit/words/region";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/house.route";
import { HouseDesk } from "./house.desk";

export const meta: Route.MetaFunction = () => [{ title: "House · Yakamoz" }];

export async function loader() {
  const ctx = await serverContext();
  const [learnt, ways, shop] = await Promise.all([loadLearnt(ctx), listWays(ctx.db), getShop(ctx.db)]);
  const kept = keeper();
  const [last] = await shopCopies();
  const backup = kept && {
    last: last ? `${agoWords(last.at_ms, ctx.now_ms())}, ${sizeWords(last.bytes)}` : null,
    fault: keepingFault(kept.keeping()),
  };
  const rates = may(ctx.actor.role, "costs") ? shop.rates : null;
  return { rates, version: houseVersion(shop), learnt, ways: ways.map(({ id, name }) => ({ id, name })), backup };
}

export const action = acting(async ({ request }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const shop = await getShop(ctx.db);
  const form = await formOf(request);
  const intent = form.get("intent");
  if (intent === "learn" || intent === "forget")
    return answerForm(form, z.object({ what: z.enum(LEARNT_KEYS) }), async ({ what }) => {
      const learnt = (await loadLearnt(ctx))[what];
      if (intent === "learn" && !learnt.enough) throw new Refusal(null, learnt.words);
      const factor = intent === "learn" ? { factor: learnt.factor, u_log: learnt.u_log, n: learnt.n } : null;
      await changeShop(ctx, (now) => ({ ...now, [LEARNT[what].setting]: factor }));
      return { message: factor ? `${LEARNT[what].name}: forecasts now use this shop's own factor` : "Forecasts use the model as it is" };
    });
  if (intent === "standIns" || intent === "noStandIns")
    return answerForm(form, z.object({}), async () => {
      await changeShop(ctx, (now) => ({ ...now, standIns: intent === "standIns" }));
      return { message: intent === "standIns" ? "Simulated devices are on" : "Simulated devices are off" };
    });
  if (intent === "learnSteps" || intent === "forgetSteps")
    return answerForm(form, z.object({}), async () => {
      const learntSteps = intent === "learnSteps" ? stepsToTakeOver((await loadLearnt(ctx)).steps) : {};
      await changeShop(ctx, (now) => ({ ...now, learntSteps }));
      return { message: intent === "learnSteps" ? "Plans now use what these steps take off here" : "Plans use the defaults again" };
    });
  const { units } = await formPrefs(request, form, shop.units);
  const ways = await listWays(ctx.db);
  return answerForm(
    form,
    houseForm(units),
    async ({ floor, airChanges, labourPerHour, rejected, waitingPerDay, region, ...rest }) => {
      await wayById(ctx.db, rest.wayId);
      const rates = { labourPerHour, rejected, waitingPerDay };
      const settings = { ...rest, region: region ?? shop.region, floor_m: floor, airChanges_1_h: airChanges, rates, units };
      await saveHouse(ctx, settings, versionIn(form));
      return { message: "Saved. These units are now the shop's." };
    },
    (there: ShopSettings) => ({
      ...houseTexts(there, shopRegion(there), units),
      wayId: { value: there.wayId, said: ways.find((w) => w.id === there.wayId)?.name ?? there.wayId },
      region: { value: shopRegion(there), said: REGIONS[shopRegion(there)].name },
    }),
  );
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function House({ loaderData, actionData }: Route.ComponentProps) {
  return <HouseDesk loaderData={loaderData} actionData={actionData} />;
}
