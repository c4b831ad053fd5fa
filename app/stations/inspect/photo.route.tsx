import { acting } from "~/kit/form/in-words.server";
import { Suspense, lazy } from "react";
import { keepPhoto } from "#server/commands/photos";
import { recordEntry } from "#server/commands/record-entry";
import { serverContext } from "#server/running";
import { answerForm, textOf } from "~/kit/form/answer";
import { nibCountForm } from "./inspect.form";
import { guardedAction } from "~/kit/form/guarded-action";
import { readPrefs } from "~/kit/http/prefs.server";
import { InspectTabs } from "./tabs";
import { panelOr404 } from "~/kit/http/panel.server";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/photo.route";
import { usePanel } from "~/kit/panel/use-panel";

export const action = acting(async ({ request, params: { jobId, panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  await panelOr404(ctx, jobId, panelId);
  const form = await formOf(request);
  const { by } = await readPrefs(request);
  return answerForm(form, nibCountForm, async ({ count, largest_m, x_m, y_m, trace, simulated }) => {
    const file = form.get("photos");
    const photoId =
      file instanceof File ? await keepPhoto(ctx, { name: file.name || "panel", bytes: new Uint8Array(await file.arrayBuffer()) }) : null;
    const body = {
      kind: "nib" as const,
      at: { x_m, y_m },
      length_m: largest_m,
      width_m: null,
      height_m: null,
      measured: largest_m !== null,
      count,
      photoId,
      note: "counted in a photograph",
      trace,
    };
    return {
      entryId: await recordEntry(ctx, { panelId, kind: "defect", body, by, simulated, clientKey: textOf(form, "formKey") || null }),
      message: `${count} ${count === 1 ? "nib" : "nibs"} placed`,
    };
  });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

// The desk follows the document: the page is read before its tools have come.
const NibCountDesk = lazy(() => import("./photo.desk").then((m) => ({ default: m.NibCountDesk })));

export default function PhotoPage() {
  const { base } = usePanel();
  return (
    <>
      <InspectTabs base={base} />
      <Suspense>
        <NibCountDesk />
      </Suspense>
    </>
  );
}
