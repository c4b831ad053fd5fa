import { acting } from "~/kit/form/in-words.server";
import { data } from "react-router";
import { z } from "zod";
import { archiveGun, saveGun, takeUpGun } from "#server/commands/guns";
import { recordEntry } from "#server/commands/record-entry";
import { serverContext } from "#server/running";
import { loadGuns } from "#server/views/guns-view";
import type { GunBody } from "#core/models/spray/gun";
import { answerForm, textOf, versionIn } from "~/kit/form/answer";
import { checkedBy } from "~/kit/form/fields";
import { gunShown, readGun } from "./gun.form";
import { guardedAction } from "~/kit/form/guarded-action";
import { formPrefs } from "~/kit/http/prefs.server";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/gun.route";
import { GunPageDesk } from "./gun-page.desk";

export async function loader() {
  const ctx = await serverContext();
  return { ...(await loadGuns(ctx)), formKey: ctx.newId() };
}

export const action = acting(async ({ request, params: { panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units, by } = await formPrefs(request, form);
  const clientKey = textOf(form, "formKey") || null;
  const gunId = textOf(form, "gunId") || null;
  switch (textOf(form, "intent")) {
    case "keep":
      return answerForm(
        form,
        checkedBy((typed) => readGun(typed, units)),
        async (body) => {
          await saveGun(ctx, { id: gunId, version: versionIn(form), body, clientKey });
          return { message: `${body.name} kept` };
        },
        (there: GunBody) => gunShown(there, units),
      );
    case "use":
      return answerForm(form, z.object({ gunId: z.string().min(1, "Keep the gun first") }), async (v) => ({
        entryId: await takeUpGun(ctx, { panelId, gunId: v.gunId, by, clientKey: null }),
        message: "Taken up; the next coat starts from it",
      }));
    case "use-worked":
      return answerForm(form, z.object({ entryId: z.string().min(1) }), async (v) => {
        const worked = (await loadGuns(ctx)).worked.find((w) => w.entryId === v.entryId);
        if (!worked) throw data("These settings are no longer there", { status: 404 });
        const body = { name: `as on ${worked.where}`.slice(0, 60), gunId: null, settings: worked.settings };
        return {
          entryId: await recordEntry(ctx, { panelId, kind: "gunSet", body, by }),
          message: "Taken up; the next coat starts from it",
        };
      });
    case "away":
      return answerForm(form, z.object({ gunId: z.string().min(1) }), async (v) => {
        await archiveGun(ctx, v.gunId, true);
        return { message: "Put away" };
      });
    default:
      throw data("Not understood", { status: 400 });
  }
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function GunPage({ loaderData }: Route.ComponentProps) {
  return <GunPageDesk loaderData={loaderData} />;
}
