import { coatsAsked } from "#core/coat/asked";
import { litresTogether } from "#core/coat/litres";
import { nextCoat } from "#core/coat/next-coat";
import { potLifeNow } from "#core/coat/pot-life";
import type { SetOtherwise } from "#core/coat/set-otherwise";
import { tiltHeld } from "#core/panel/wet-build";
import type { BodyInputOf, EntryKind } from "#core/record/bodies";
import type { PartHeld, Side } from "#core/record/kinds";
import type { ServerContext } from "../context";
import { answeredBefore } from "../repos/sent-form-repo";
import { type PanelView, loadPanelView } from "../views/panel-view";
import { answeredAs } from "./answered-as";
import { coatAsPlanned } from "./booth";
import { layerAsPlanned } from "./layers";
import { type EntryInput, appendEntries } from "./record-entry";
import { Refusal } from "./refusal";
import { run } from "./run";

/** What is done at once to one or several panels of a job, at the step that all of them are at. */
export interface Together {
  jobId: string;
  /** The panel it is done from first. */
  panelIds: readonly string[];
  /** Name of the step in their courses. */
  step: string;
  by: string;
  clientKey: string | null;
  /** In which words it is answered, by the panels as they stood before it; sent again, in the same. */
  said: (views: readonly PanelView[]) => string;
}
export interface Done {
  entryIds: string[];
  said: string;
}

interface Doing extends Together {
  /** What the form asked beside panels and step. */
  asked: unknown;
}
type Entry = { [K in EntryKind]: Pick<EntryInput<K>, "kind" | "body"> }[EntryKind];

/**
 * Carries one thing out at every panel, each by its own owner: all of it or nothing, once for a key.
 * @param build what is stored of a panel; null: nothing
 * @returns the entries made, and the words
 * @throws Refusal where the step is not what is open at one of them
 */
async function together(
  ctx: ServerContext,
  { jobId, panelIds, step, by, clientKey, said: say, asked }: Doing,
  build: (view: PanelView, all: readonly PanelView[]) => Entry | null,
): Promise<Done> {
  const form = { key: clientKey, what: `together of ${jobId}`, content: { panelIds, step, asked } };
  const again = await answeredBefore<string[]>(ctx.db, form);
  if (again) return { entryIds: again.result, said: await answeredAs(ctx, clientKey, "Stored before") };
  const views = await Promise.all(panelIds.map((id) => viewAt(ctx, jobId, id)));
  for (const view of views) refuseUnlessOpen(view, step, views.length > 1);
  const said = say(views);
  const entryIds = await run(ctx, { ...form, said }, async (running) => {
    const made: string[] = [];
    for (const view of views) {
      const entry = build(view, views);
      const { expectedVersion, panel } = view;
      if (entry) made.push(...(await appendEntries(ctx, running, panel.id, [{ ...entry, panelId: panel.id, by, expectedVersion }])));
    }
    return made;
  });
  return { entryIds, said };
}

async function viewAt(ctx: ServerContext, jobId: string, panelId: string): Promise<PanelView> {
  const view = await loadPanelView(ctx, jobId, panelId);
  if (!view) throw new Refusal(null, "A panel of these is no longer there", 404);
  return view;
}

function refuseUnlessOpen({ standing, panel }: PanelView, step: string, several: boolean): void {
  if (standing.open.includes(step)) return;
  throw new Refusal(
    null,
    `${several ? `${panel.name}: this` : "This"} is not the step there any more: another window was first, or an entry was taken out. Nothing was stored; look again.`,
    409,
  );
}

/** The next coat of each, as planned but for what was set otherwise. */
export const coatTogether = (ctx: ServerContext, { otherwise, ...t }: Together & { otherwise: SetOtherwise }) =>
  together(ctx, { ...t, asked: { coat: otherwise } }, (view): Entry => {
    const { layer } = view.standing.action ?? { layer: null };
    return layer
      ? { kind: "colourCoat", body: layerAsPlanned(ctx, view, layer, otherwise) }
      : { kind: "coat", body: coatAsPlanned(ctx, view, otherwise) };
  });

/** What was looked at before the gun is filled. */
export const prepareTogether = (ctx: ServerContext, { ticks, ...t }: Together & Pick<BodyInputOf<"preflight">, "ticks">) =>
  together(ctx, { ...t, asked: { ticks } }, () => ({ kind: "preflight", body: { ticks } }));

/** Heat on. */
export const heatTogether = (ctx: ServerContext, t: Together) =>
  together(ctx, { ...t, asked: "heat on" }, () => ({ kind: "bakeStart", body: { air_K: null } }));

/** Heat off: what the part had, and for how long. */
export const bakedTogether = (ctx: ServerContext, { bake, ...t }: Together & { bake: BodyInputOf<"bake"> }) =>
  together(ctx, { ...t, asked: { bake } }, () => ({ kind: "bake", body: bake }));

/** Turned over, or hung. */
export const turnTogether = (ctx: ServerContext, { how, side, ...t }: Together & { how: PartHeld; side: Side }) =>
  together(ctx, { ...t, asked: { how, side } }, ({ panel }) => ({ kind: "turn", body: { how, side, tilt_rad: tiltHeld(how, panel) } }));

/** Looked over, and nothing was found. */
export const cleanTogether = (ctx: ServerContext, t: Together) =>
  together(ctx, { ...t, asked: "looked over" }, () => ({ kind: "lookedOver", body: {} }));

/**
 * One pot of clear for all of them, for the coat that is next: as much as their coats to come take, or as somebody says.
 * @param volume_m3 null: as planned @throws Refusal where they are not sprayed with the same clear
 */
export const mixTogether = (ctx: ServerContext, { volume_m3, ...t }: Together & { volume_m3: number | null }) =>
  together(ctx, { ...t, asked: { volume_m3 } }, (view, all): Entry | null => {
    if (view !== all[0]) return null; // one pot, kept with the panel that it was mixed from
    const { sheet } = view.product;
    const other = all.find((v) => v.product.sheet.name !== sheet.name);
    if (other) throw new Refusal(null, `${other.panel.name} is sprayed with ${other.product.sheet.name}: it wants a pot of its own`);
    const asked = all.map((v) => coatsAsked(v, ctx.now_ms()));
    return {
      kind: "mix",
      body: {
        volume_m3: volume_m3 ?? litresTogether(asked).toMix_m3,
        reducer: Math.max(0, nextCoat(asked[0]!).reducer),
        potLife_s: potLifeNow(asked[0]!),
        mattingShare: view.state.matteMix?.body.share ?? null,
        settles_s: sheet.settles_s,
        panels: all.map((v) => v.panel.id),
      },
    };
  });
