import { data } from "react-router";
import { z } from "zod";
import { VEHICLE_KINDS } from "#core/vehicle/vehicles";
import { addVehicleParts, placePanel } from "#server/commands/vehicle";
import { serverContext } from "#server/running";
import { loadVehicle } from "#server/views/vehicle-view";
import { answerForm, textOf, versionIn } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { acting } from "~/kit/form/in-words.server";
import { formOf } from "~/kit/http/body.server";
import { counted } from "~/kit/words/when";
import type { Route } from "./+types/vehicle.route";
import { VehicleDesk } from "./vehicle.desk";

export const meta: Route.MetaFunction = () => [{ title: "Vehicle · Yakamoz" }];

export async function loader({ params: { jobId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const view = await loadVehicle(ctx, jobId);
  if (!view) throw data("This job is not in the file.", { status: 404 });
  return { view, formKey: ctx.newId() };
}

const key = z.string().max(80);
const list = z.union([key.transform((one) => [one]), z.array(key).max(60)]).default([]);
const addForm = z.object({ vehicle: z.enum(VEHICLE_KINDS), place: list });
const placeForm = z.object({ panelId: z.string().min(1).max(80), place: key });

export const action = acting(async ({ request, params: { jobId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  switch (textOf(form, "intent")) {
    case "add":
      return answerForm(form, addForm, async ({ vehicle, place }) => {
        const n = await addVehicleParts(ctx, { jobId, vehicle, placeIds: place, clientKey: textOf(form, "formKey") || null });
        return { message: `${counted(n, "part", "parts")} added; their sizes are usual ones` };
      });
    case "place":
      return answerForm(form, placeForm, async (v) => ({
        message: `${await placePanel(ctx, { ...v, jobId, expected: versionIn(form) })} placed`,
      }));
    default:
      throw data("Not understood", { status: 400 });
  }
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function Vehicle({ loaderData }: Route.ComponentProps) {
  return <VehicleDesk loaderData={loaderData} />;
}
