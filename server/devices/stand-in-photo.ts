import sharp from "sharp";
import { type RenderedPicture, TUBE_SETUP, type TrueNib, photographNibs, photographTube } from "#stand-ins/camera";
import { seedOf } from "./seed-of";

/** Size of the stand-in camera's picture and of the panel it sees: small, so that the server is not held up. */
const CAMERA = { width: 640, height: 440, scale_m_px: 0.1e-3, leastNibs: 4, more: 9 } as const;

/** What the stand-in camera sees of a panel: nibs by the panel's own hidden truth, the same at every look. */
export async function standInPhoto(panelId: string): Promise<{ png: Buffer; nibs: TrueNib[]; width_m: number }> {
  const seed = seedOf(panelId, 11);
  const { width, height, scale_m_px } = CAMERA;
  const { picture, nibs } = photographNibs({ seed, width, height, scale_m_px, nibs: CAMERA.leastNibs + (seed % CAMERA.more) });
  return { png: await pngOf(picture), nibs, width_m: width * scale_m_px };
}

/** Slope of the stand-in's panels, rms: a textured neighbour, and the own panel a share of it by the panel's hidden truth. */
const NEIGHBOUR_RAD = 0.9e-3;
const TUBE_WIDTH_PX = 760;

/** A light tube as the stand-in camera sees it in the panel or in its neighbour, with the distances it was taken at. */
export async function standInTube(panelId: string, of: "own" | "neighbour"): Promise<{ png: Buffer; setup: typeof TUBE_SETUP }> {
  const seed = seedOf(`${panelId} ${of}`, 13);
  const slope_rad = of === "neighbour" ? NEIGHBOUR_RAD : NEIGHBOUR_RAD * (0.45 + 0.15 * (seed % 9));
  const { picture } = photographTube({ seed, slope_rad, width: TUBE_WIDTH_PX });
  return { png: await pngOf(picture), setup: TUBE_SETUP };
}

const pngOf = ({ rgba, width, height }: RenderedPicture): Promise<Buffer> =>
  sharp(Buffer.from(rgba), { raw: { width, height, channels: 4 } })
    .png()
    .toBuffer();
