import { acting } from "~/kit/form/in-words.server";
import { z } from "zod";
import { type LineProfile, lineProfileBody } from "#core/models/devices/line-profile";
import { forgetLineProfile, keepLineProfile } from "#server/commands/line-profiles";
import { serverContext } from "#server/running";
import { getShop } from "#server/repos/shop-repo";
import { answerForm, textOf } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { formOf } from "~/kit/http/body.server";
import { jsonOf } from "~/kit/http/json-lines";
import { later, useLater } from "~/kit/root/later";
import { PageHeader } from "~/kit/shell/page-header";
import type { Route } from "./+types/devices.route";

export const meta: Route.MetaFunction = () => [{ title: "Devices · Yakamoz" }];

export async function loader() {
  const { lineProfiles } = await getShop((await serverContext()).db);
  return { profiles: lineProfiles };
}

/** A profile as the page's drawing of it says it: one field, as it is no form of plain texts. */
const keepForm = z.object({ profile: z.string().max(4000).transform(jsonOf).pipe(lineProfileBody) });

export const action = acting(async ({ request }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  if (textOf(form, "intent") === "forget")
    return answerForm(form, z.object({ name: z.string() }), async ({ name }) => {
      await forgetLineProfile(ctx, name);
      return { message: `${name} is not read any more` };
    });
  return answerForm(form, keepForm, async ({ profile }: { profile: LineProfile }) => {
    await keepLineProfile(ctx, profile);
    return { message: `${profile.name} is read from now on` };
  });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
/** With the browser's serial ports: no other page needs any of it. */
const devicesDesk = later(() => import("./devices.desk"));

export default function Devices({ loaderData, actionData }: Route.ComponentProps) {
  const desk = useLater(devicesDesk, true, true);
  return (
    <>
      <PageHeader title="Devices" note="Gauges, scales and probes on a serial port" />
      <main className="max-w-[860px] space-y-8 px-4 py-6 sm:px-6">{desk && <desk.DevicesDesk {...loaderData} answer={actionData} />}</main>
    </>
  );
}
