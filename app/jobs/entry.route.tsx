import { acting } from "~/kit/form/in-words.server";
import { format } from "date-fns";
import { data, redirect } from "react-router";
import { placeInWords } from "#core/kernel/geometry/place-in-words";
import { listPanels } from "#server/repos/panel-repo";
import { moveEntry } from "#server/commands/move-entry";
import { entryToPutRight, putRight } from "#server/commands/put-right";
import { Refusal } from "#server/commands/refusal";
import type { ServerContext } from "#server/context";
import { serverContext } from "#server/running";
import { answerForm, textOf } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { formOf } from "~/kit/http/body.server";
import { panelOr404, sheetOr404 } from "~/kit/http/panel.server";
import { formPrefs } from "~/kit/http/prefs.server";
import { backTo, nameOf } from "./entry.words";
import { putRightForm } from "./entry.form";
import { viewInRegion } from "~/kit/words/region";
import type { Route } from "./+types/entry.route";
import { PutRightDesk } from "./entry.desk";

export const meta: Route.MetaFunction = () => [{ title: "Put right · Yakamoz" }];

/** A minute as a browser's field has it. */
const AS_TYPED = "yyyy-MM-dd'T'HH:mm";

const entryOr = (status: number, ctx: ServerContext, { panelId, entryId }: Route.LoaderArgs["params"]) =>
  entryToPutRight(ctx, panelId, entryId).catch((error: unknown) => {
    throw error instanceof Refusal ? data(error.message, { status }) : error;
  });

export async function loader({ request, params }: Route.LoaderArgs) {
  const { jobId, panelId } = params;
  const ctx = await serverContext();
  const { job, panel, state } = viewInRegion(await panelOr404(ctx, jobId, panelId));
  const entry = await entryOr(404, ctx, params);
  const from = new URL(request.url).searchParams.get("from") ?? "";
  const coat = state.coats.findIndex((c) => c.entry.id === entry.id) + 1;
  return {
    entry,
    what: nameOf(entry, coat),
    of: `${job.vehicle}, ${panel.name.toLowerCase()}`,
    where: entry.kind === "reading" ? placeInWords([entry.body.at.x_m, entry.body.at.y_m], panel.shape) : null,
    at: format(entry.at_ms, AS_TYPED),
    panels: (await listPanels(ctx.db, jobId)).map(({ id, name }) => ({ id, name })),
    panelId,
    from,
    back: backTo(params, from),
  };
}

export const action = acting(async ({ request, params }: Route.ActionArgs) => {
  const { panelId, entryId } = params;
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units, by } = await formPrefs(request, form);
  const entry = await entryOr(409, ctx, params);
  const on = textOf(form, "panel") || panelId;
  const answer = await answerForm(form, putRightForm(entry.kind, units, await sheetOr404(ctx, panelId)), async ({ body, at_ms }) => {
    const unmoved = textOf(form, "at") === format(entry.at_ms, AS_TYPED);
    const as = { panelId, entryId, body, at_ms: unmoved ? entry.at_ms : at_ms, by };
    if (on === panelId) await putRight(ctx, as);
    else await moveEntry(ctx, { ...as, toPanelId: on });
  });
  return "ok" in answer && answer.ok ? redirect(backTo({ ...params, panelId: on }, textOf(form, "back"))) : answer;
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function PutRight({ loaderData }: Route.ComponentProps) {
  return <PutRightDesk loaderData={loaderData} />;
}
