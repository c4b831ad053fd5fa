import { type CoatSprayed, outOfPot } from "#core/panel/pots";
import type { BodyInputOf } from "#core/record/bodies";
import { coatsOn } from "#core/panel/coats-on";
import { nextAsked } from "#core/coat/asked";
import { nextCoat } from "#core/coat/next-coat";
import { type SetOtherwise, setOtherwise } from "#core/coat/set-otherwise";
import type { ServerContext } from "../context";
import { type PanelView, loadPanelView } from "../views/panel-view";
import { entryBefore, recordEntry } from "./record-entry";
import { Refusal } from "./refusal";

interface BoothInput {
  jobId: string;
  panelId: string;
  number: number;
  by: string;
  clientKey: string;
  /** In which words it is answered, as it stood before it. */
  said?: string | undefined;
}

const askedOf = (what: "start" | "stop", { panelId, number }: BoothInput) => ({ what, panelId, number });

/** Writes down that a coat has been started. Sending it twice starts it once. */
export async function startCoat(ctx: ServerContext, input: BoothInput): Promise<string> {
  const asked = askedOf("start", input);
  const again = await entryBefore(ctx, input.panelId, input.clientKey, asked);
  if (again) return again;
  const view = await loadPanelView(ctx, input.jobId, input.panelId);
  if (!view) throw new Refusal(null, "This panel is no longer there", 404);
  if (view.state.spraying) throw new Refusal(null, `Coat ${coatsOn(view.state) + 1} is running already`);
  if (input.number !== coatsOn(view.state) + 1) throw new Refusal(null, "Another window was first; look again");
  return recordEntry(ctx, {
    panelId: input.panelId,
    kind: "coatStart",
    body: { number: nextCoat(nextAsked(view)).loggedAs },
    by: input.by,
    clientKey: input.clientKey,
    asked,
    said: input.said,
  });
}

/** Stops a coat: it is logged as sprayed until now, with the gun of the coat before (or a usual one, by the house way), and its flash starts. */
export async function stopCoat(ctx: ServerContext, input: BoothInput): Promise<string> {
  const asked = askedOf("stop", input);
  const again = await entryBefore(ctx, input.panelId, input.clientKey, asked);
  if (again) return again;
  const view = await loadPanelView(ctx, input.jobId, input.panelId);
  if (!view) throw new Refusal(null, "This panel is no longer there", 404);
  const { spraying } = view.state;
  if (!spraying || input.number !== coatsOn(view.state) + 1) throw new Refusal(null, "This coat is not running any more");
  return recordEntry(ctx, {
    panelId: input.panelId,
    kind: "coat",
    body: { ...coatAsPlanned(ctx, view), duration_s: Math.max(0, (ctx.now_ms() - spraying.at_ms) / 1000) },
    by: input.by,
    clientKey: input.clientKey,
    asked,
    said: input.said,
  });
}

/** The next coat of a panel as its owner plans it, but for what was set otherwise; on the face, in the place and out of the pot that it has now. */
export function coatAsPlanned(ctx: ServerContext, view: PanelView, otherwise: SetOtherwise = {}): BodyInputOf<"coat"> {
  const { loggedAs, role, side, zone, reducer, settings: planned } = nextCoat(nextAsked(view));
  const settings = setOtherwise(planned, otherwise);
  return {
    ...{ number: loggedAs, role, settings, reducer, side, zone },
    tilt_rad: view.state.turned?.body.tilt_rad ?? null,
    ...potNow(ctx, view, { settings, zone, number: loggedAs }),
    wetReading_m: null,
  };
}

interface LogCoat {
  body: BodyInputOf<"coat">;
  by: string;
  clientKey: string | null;
  shown?: number | null;
  said?: string | undefined;
}

/**
 * Logs a coat with its settings as typed; it gets the next number that no coat was logged as.
 * @param shown the coat that the form said it logs; null: it said none @param said in which words it is answered
 * @throws Refusal where that coat was logged meanwhile, from another window: asked, not counted twice
 */
export async function logCoat(ctx: ServerContext, view: PanelView, { body, by, clientKey, shown = null, said }: LogCoat): Promise<string> {
  const again = await entryBefore(ctx, view.panel.id, clientKey, body);
  if (again) return again;
  const { loggedAs, number, side, role, zone: planned } = nextCoat(nextAsked(view));
  if (shown !== null && shown !== number)
    throw new Refusal(
      null,
      shown < number
        ? `Coat ${shown} was logged already, from another window. If this is coat ${number}, log it once more; nothing was stored now.`
        : `Coat ${number} comes next here: an earlier coat was taken out meanwhile. Look again; nothing was stored.`,
    );
  const zone = body.zone ?? (role === body.role ? planned : "whole"); // sprayed otherwise than planned: over the whole part
  const tilt_rad = view.state.turned?.body.tilt_rad ?? null;
  return recordEntry(ctx, {
    panelId: view.panel.id,
    kind: "coat",
    body: { side, zone, tilt_rad, ...potNow(ctx, view, { settings: body.settings, zone, number: loggedAs }), ...body, number: loggedAs },
    by,
    clientKey,
    asked: body,
    said,
    expectedVersion: view.expectedVersion,
  });
}

const potNow = (ctx: ServerContext, { state, panel, job }: PanelView, sprayed: CoatSprayed) =>
  outOfPot(state.pots, ctx.now_ms(), { brief: panel, way: job.way, sprayed });
