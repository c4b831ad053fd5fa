import QRCode from "qrcode";
import { requireRight } from "#server/access/actor";
import { RIGHTS, ROLES, rightsOf } from "#server/access/rights";
import { addBridge, endDevice, unlockDevice } from "#server/commands/devices";
import { addPerson } from "#server/commands/people";
import { listDevices } from "#server/repos/device-repo";
import { listPeople } from "#server/repos/person-repo";
import { network, pairing, shopContext } from "#server/running";
import type { ServerContext } from "#server/context";
import { answerForm, textOf } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { acting } from "~/kit/form/in-words.server";
import { formOf } from "~/kit/http/body.server";
import { requestContext } from "~/kit/http/request-context.server";
import { agoWords } from "~/kit/words/ago-words";
import { addPersonForm, bridgeForm, deviceForm } from "./access.form";
import { PeopleDesk } from "./people.desk";
import type { Route } from "./+types/people.route";

export const meta: Route.MetaFunction = () => [{ title: "People and devices · Yakamoz" }];

export async function loader({ request, context }: Route.LoaderArgs) {
  const { known } = context.get(requestContext);
  const ctx = await shopContext();
  const now_ms = ctx.now_ms();
  const [people, devices] = await Promise.all([listPeople(ctx.db), listDevices(ctx.db)]);
  const waiting = pairing().waiting();
  const [link = new URL(request.url).origin] = network()?.links().open ?? [];
  const codeLink = waiting && `${link}/pair?code=${waiting.code}`;
  return {
    formKey: ctx.newId(),
    asked: known.asked,
    people: people.map(({ id, name, role }) => ({ id, name, role })),
    devices: devices.map((d) => ({
      id: d.id,
      name: d.name,
      bridge: d.kind === "bridge",
      here: d.id === known.device?.id,
      locked: d.locked_at_ms !== null,
      who: people.find((p) => p.id === d.person_id)?.name ?? null,
      seen: agoWords(d.seen_ms, now_ms),
    })),
    code: waiting && {
      ...waiting,
      link: `${link}/pair`,
      svg: await QRCode.toString(codeLink!, { type: "svg", margin: 1, errorCorrectionLevel: "M" }),
    },
    roles: ROLES.map((role) => ({ role, rights: rightsOf(role).map((right) => RIGHTS[right]) })),
    now_ms,
  };
}

export const action = acting(async ({ request }: Route.ActionArgs) => {
  const ctx = await shopContext();
  requireRight(ctx, "people");
  const form = await formOf(request);
  switch (textOf(form, "intent")) {
    case "add":
      return answerForm(form, addPersonForm, async ({ formKey, ...given }) => {
        await addPerson(ctx, { ...given, clientKey: formKey ?? null });
        return { message: `${given.name.trim()} may come in` };
      });
    case "end":
      return answerForm(form, deviceForm, async ({ id }) => {
        await endDevice(ctx, id);
        return { message: "This device may not come in any more" };
      });
    case "unlock":
      return answerForm(form, deviceForm, async ({ id }) => {
        await unlockDevice(ctx, id);
        return { message: "It may try again" };
      });
    case "bridge":
      return bridgeKey(ctx, form);
    default:
      return answerForm(form, bridgeForm.partial(), () => {
        pairing().start();
        return Promise.resolve();
      });
  }
});

/** The key of a new bridge is shown once, on the page that asked for it. */
async function bridgeKey(ctx: ServerContext, form: FormData) {
  const made: { key?: string } = {};
  const answer = await answerForm(form, bridgeForm, async ({ name }) => {
    made.key = await addBridge(ctx, name);
  });
  return "ok" in answer ? { ...answer, ...made } : answer;
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function People({ loaderData, actionData }: Route.ComponentProps) {
  return <PeopleDesk {...loaderData} answer={actionData} />;
}
