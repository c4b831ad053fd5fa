import { deviceProgram } from "#server/http/device-program";
import { isDemo } from "#server/looking";
import { serverContext } from "#server/running";
import { rowsForDevice } from "#server/views/rows-view";
import { requestContext } from "~/kit/http/request-context.server";
import type { Route } from "./+types/rows.do";

const count = (text: string | null): number | null => (text !== null && /^\d{1,15}$/.test(text) ? Number(text) : null);

/** What is new of the rows that a device keeps, who stands at it, and the program that reads them there. */
export async function loader({ request, context }: Route.LoaderArgs) {
  const program = deviceProgram();
  // The invented shop is looked at, not worked in: nothing of it stays on a device.
  if (program === null || isDemo()) return new Response(null, { status: 204 });
  const ctx = await serverContext();
  const asked = new URL(request.url).searchParams;
  const { known } = context.get(requestContext);
  const changes = await rowsForDevice(ctx, { epoch: asked.get("epoch"), since: count(asked.get("since")) });
  const { person, device, secure } = known;
  const who =
    known.asked && person && device
      ? { person: { id: person.id, name: person.name, role: person.role }, device: { id: device.id, name: device.name }, secure }
      : null;
  return Response.json({ ...changes, program, who, now_ms: ctx.now_ms() }, { headers: { "Cache-Control": "no-store" } });
}
