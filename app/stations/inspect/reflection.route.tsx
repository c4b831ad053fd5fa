import { acting } from "~/kit/form/in-words.server";
import { z } from "zod";
import { recordEntry } from "#server/commands/record-entry";
import { serverContext } from "#server/running";
import { answerForm, textOf } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { formOf } from "~/kit/http/body.server";
import { readPrefs } from "~/kit/http/prefs.server";
import { usePanel } from "~/kit/panel/use-panel";
import type { Route } from "./+types/reflection.route";
import { ReflectionDesk } from "./reflection.desk";
import { InspectTabs } from "./tabs";

const slope = z.coerce.number().positive().max(0.1);
const keptForm = z.object({ own_rad: slope, beside_rad: slope, simulated: z.enum(["yes", ""]).default("") });

/** Keeps what two pictures of a light tube said: the verdict goes by it. */
export const action = acting(async ({ request, params: { panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { by } = await readPrefs(request);
  return answerForm(form, keptForm, async ({ simulated, ...body }) => ({
    entryId: await recordEntry(ctx, {
      panelId,
      kind: "reflection",
      body,
      by,
      simulated: simulated === "yes",
      clientKey: textOf(form, "formKey") || null,
    }),
    message: "Kept for the verdict",
  }));
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function ReflectionPage() {
  const { base } = usePanel();
  return (
    <>
      <InspectTabs base={base} />
      <ReflectionDesk />
    </>
  );
}
