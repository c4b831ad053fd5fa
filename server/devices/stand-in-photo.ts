import sharp from "sharp";
import { type RenderedPicture, TUBE_SETUP } from "#stand-ins/camera";
import { Refusal } from "../commands/refusal";
import type { ServerContext } from "../context";
import { jobOfPanel } from "../repos/panel-repo";
import { seedOf } from "#core/kernel/stats/seed-of";
import { requireStandIns } from "./stand-ins-allowed";

/** Size of the stand-in camera's picture and of the panel it sees. */
const CAMERA = { width: 640, height: 440, scale_m_px: 0.1e-3, leastNibs: 4, more: 9 } as const;

/** What the stand-in camera sees of a panel: nibs by the panel's own hidden truth, the same at every look. @throws Refusal for no panel */
export async function standInPhoto(ctx: ServerContext, panelId: string): Promise<{ png: Buffer; width_m: number }> {
  await requireStandIns(ctx);
  const { width, height, scale_m_px } = CAMERA;
  const png = await pictureOnce(ctx, panelId, "nibs", async () => {
    const seed = seedOf(panelId, 11);
    return (await ctx.inThread("photographNibs", { seed, width, height, scale_m_px, nibs: CAMERA.leastNibs + (seed % CAMERA.more) }))
      .picture;
  });
  return { png, width_m: width * scale_m_px };
}

/** Slope of the stand-in's panels, rms: a textured neighbour, and the own panel a share of it by the panel's hidden truth. */
const NEIGHBOUR_RAD = 0.9e-3;
const TUBE_WIDTH_PX = 760;

/** A light tube as the stand-in camera sees it in the panel or in its neighbour, with the distances it was taken at. @throws Refusal for no panel */
export async function standInTube(
  ctx: ServerContext,
  panelId: string,
  of: "own" | "neighbour",
): Promise<{ png: Buffer; setup: typeof TUBE_SETUP }> {
  await requireStandIns(ctx);
  const png = await pictureOnce(ctx, panelId, of, async () => {
    const seed = seedOf(`${panelId} ${of}`, 13);
    const slope_rad = of === "neighbour" ? NEIGHBOUR_RAD : NEIGHBOUR_RAD * (0.45 + 0.15 * (seed % 9));
    return (await ctx.inThread("photographTube", { seed, slope_rad, width: TUBE_WIDTH_PX })).picture;
  });
  return { png, setup: TUBE_SETUP };
}

/** A picture that never changes is rendered once, however many ask for it at the same time. */
async function pictureOnce(ctx: ServerContext, panelId: string, what: string, render: () => Promise<RenderedPicture>): Promise<Buffer> {
  if ((await jobOfPanel(ctx.db, panelId)) === null) throw new Refusal(null, "This panel is no longer there", 404);
  const key = `${panelId} ${what}`;
  const known = ctx.pictureMemo.get(key);
  if (known) return known;
  const made = render().then(pngOf);
  ctx.pictureMemo.set(key, made);
  made.catch(() => ctx.pictureMemo.delete(key));
  return made;
}

const pngOf = ({ rgba, width, height }: RenderedPicture): Promise<Buffer> =>
  sharp(Buffer.from(rgba), { raw: { width, height, channels: 4 } })
    .png()
    .toBuffer();
