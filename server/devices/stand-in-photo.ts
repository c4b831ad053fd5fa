import sharp from "sharp";
import { type TrueNib, photographNibs } from "#stand-ins/camera";

/** Size of the stand-in camera's picture and of the panel it sees: small, so that the server is not held up. */
const CAMERA = { width: 640, height: 440, scale_m_px: 0.1e-3, leastNibs: 4, more: 9 } as const;

/** What the stand-in camera sees of a panel: nibs by the panel's own hidden truth, the same at every look. */
export async function standInPhoto(panelId: string): Promise<{ png: Buffer; nibs: TrueNib[]; width_m: number }> {
  const seed = [...panelId].reduce((a, c) => (Math.imul(a, 31) + c.charCodeAt(0)) | 0, 11) >>> 0;
  const { width, height, scale_m_px } = CAMERA;
  const { picture, nibs } = photographNibs({ seed, width, height, scale_m_px, nibs: CAMERA.leastNibs + (seed % CAMERA.more) });
  const png = await sharp(Buffer.from(picture.rgba), { raw: { width, height, channels: 4 } })
    .png()
    .toBuffer();
  return { png, nibs, width_m: width * scale_m_px };
}
