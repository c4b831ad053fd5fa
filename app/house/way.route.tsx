import { acting } from "~/kit/form/in-words.server";
import { Link, data, redirect } from "react-router";
import { HOUSE_WAYS } from "#core/models/ways/house-ways";
import type { HouseWay } from "#core/models/ways/way";
import { archiveWay, saveWay } from "#server/commands/ways";
import { listClears } from "#server/repos/product-repo";
import { getOwnWay } from "#server/repos/way-repo";
import { loadRunCalibration } from "#server/views/calibration-view";
import { serverContext } from "#server/running";
import { answerForm, textOf, versionIn } from "~/kit/form/answer";
import { checkedBy } from "~/kit/form/fields";
import { guardedAction } from "~/kit/form/guarded-action";
import { formOf } from "~/kit/http/body.server";
import { formPrefs } from "~/kit/http/prefs.server";
import { PageHeader } from "~/kit/shell/page-header";
import { WayDesk } from "./way.desk";
import { readWay, wayShown } from "./way.form";
import type { Route } from "./+types/way.route";

export const meta: Route.MetaFunction = () => [{ title: "House way · Yakamoz" }];

export async function loader({ params: { wayId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const own = await getOwnWay(ctx.db, wayId);
  const way = own ?? HOUSE_WAYS.find((w) => w.id === wayId);
  if (!way) throw data("This way is not in House.", { status: 404 });
  const products = (await listClears(ctx.db)).map((p) => ({ id: p.id, sheet: p.sheet }));
  return { way, version: own?.version ?? null, products, calibration: await loadRunCalibration(ctx), formKey: ctx.newId() };
}

export const action = acting(async ({ request, params: { wayId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units } = await formPrefs(request, form);
  const intent = textOf(form, "intent");
  if (intent === "away") {
    await archiveWay(ctx, wayId, true);
    return redirect("/house/ways");
  }
  const version = versionIn(form);
  const kept = { id: "" };
  const answer = await answerForm(
    form,
    checkedBy((typed) => readWay(typed, units)),
    async (body) => {
      const id = version === null || intent === "copy" ? null : wayId;
      kept.id = await saveWay(ctx, { id, version, body, clientKey: textOf(form, "formKey") || null });
      return { message: `${body.name} kept` };
    },
    (there: HouseWay) => wayShown(there, units),
  );
  return kept.id && kept.id !== wayId ? redirect(`/house/ways/${kept.id}`) : answer;
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

/** One house way: looked at, copied, changed; what a change does is seen at once. */
export default function Way({ loaderData: { way, version, products, calibration, formKey }, actionData }: Route.ComponentProps) {
  return (
    <>
      <PageHeader title={way.name} note={version === null ? "A way of the trade: a change makes a copy of it" : "A way of this shop"}>
        <Link className="press" to="/house/ways">
          All ways
        </Link>
      </PageHeader>
      <main className="max-w-[1180px] px-4 py-6 sm:px-6">
        <WayDesk key={way.id} {...{ way, version, products, calibration, formKey }} said={actionData} />
      </main>
    </>
  );
}
