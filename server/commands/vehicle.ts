import { panelShape } from "#core/kernel/geometry/shapes";
import { USUALLY_HANGS } from "#core/panel/usual-hang";
import { VEHICLES, type VehicleKind, type VehiclePlace, placeKey, placeOfKey, placesOf } from "#core/vehicle/vehicles";
import type { ServerContext } from "../context";
import { getJob } from "../repos/job-repo";
import { listPanels, setPlace, setPositions } from "../repos/panel-repo";
import { placesVersion } from "../views/vehicle-view";
import { type NewPanel, addPanelIn } from "./jobs";
import { Refusal, refuseOther } from "./refusal";
import { run } from "./run";

const UPRIGHT_RAD = Math.PI / 2;

/** A part of usual size for a place, sprayed as the job's panel before it is. */
const panelFor = (vehicle: VehicleKind, { id, name, kind, size_m: [width_m, height_m] }: VehiclePlace, like: NewPanel): NewPanel => ({
  name,
  place: placeKey(vehicle, id),
  shape: panelShape(kind, { width_m, height_m }),
  tilt_rad: USUALLY_HANGS[kind] === "vertical" ? UPRIGHT_RAD : 0,
  substrate: like.substrate,
  productRevisionId: like.productRevisionId,
  coatsPlanned: like.coatsPlanned,
});

/** Panels for several places of a vehicle in one go, as the job's last panel is sprayed. Sent twice, they are made once. @throws Refusal where a place is taken */
export async function addVehicleParts(
  ctx: ServerContext,
  { jobId, vehicle, placeIds, clientKey }: { jobId: string; vehicle: VehicleKind; placeIds: readonly string[]; clientKey: string | null },
): Promise<number> {
  return run(ctx, { key: clientKey, what: `vehicle of ${jobId}`, content: { vehicle, placeIds } }, async ({ db, tell }) => {
    const panels = await listPanels(db, jobId);
    const like = panels.at(-1);
    if (!(await getJob(db, jobId)) || !like) throw new Refusal(null, "This job is no longer there", 404);
    if (placeIds.length === 0) throw new Refusal("place", "Tick a part to add");
    for (const id of placeIds) {
      const place = placesOf(VEHICLES[vehicle]).find((p) => p.id === id);
      if (!place) throw new Refusal("place", "This vehicle has no such part");
      const taken = panels.find((p) => p.place === placeKey(vehicle, id));
      if (taken) throw new Refusal("place", `${taken.name} lies there already`);
      await addPanelIn(ctx, db, jobId, panelFor(vehicle, place, like));
    }
    tell({ topic: "job", id: jobId });
    return placeIds.length;
  });
}

/** Says where a panel lies on its vehicle; empty: nowhere. @throws ChangedMeanwhile @throws Refusal where another lies there */
export async function placePanel(
  ctx: ServerContext,
  { jobId, panelId, place, expected }: { jobId: string; panelId: string; place: string; expected: string | null },
): Promise<string> {
  return run(ctx, null, async ({ db, tell }) => {
    const panels = await listPanels(db, jobId);
    refuseOther(expected, panels, placesVersion(panels));
    const panel = panels.find((p) => p.id === panelId);
    if (!panel) throw new Refusal(null, "This panel is no longer there", 404);
    if (place !== "" && !placeOfKey(place)) throw new Refusal("place", "There is no such place");
    const other = place !== "" && panels.find((p) => p.place === place && p.id !== panelId);
    if (other) throw new Refusal("place", `${other.name} lies there already`);
    await setPlace(db, panelId, place || null);
    tell({ topic: "job", id: jobId });
    return panel.name;
  });
}

/** The order in which a job's panels are sprayed, as every list of them has it; those not named come after. @throws ChangedMeanwhile */
export async function orderPanels(
  ctx: ServerContext,
  { jobId, order, expected }: { jobId: string; order: readonly string[]; expected: string | null },
): Promise<void> {
  await run(ctx, null, async ({ db, tell }) => {
    const panels = await listPanels(db, jobId);
    refuseOther(expected, panels, placesVersion(panels));
    const known = new Set(panels.map((p) => p.id));
    if (new Set(order).size !== order.length || order.some((id) => !known.has(id)))
      throw new Refusal("order", "A panel of this order is no longer there; look again");
    const named = new Set(order);
    await setPositions(db, [...order, ...panels.map((p) => p.id).filter((id) => !named.has(id))]);
    tell({ topic: "job", id: jobId });
  });
}
