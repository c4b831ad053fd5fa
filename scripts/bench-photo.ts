import { readdirSync } from "node:fs";
import sharp from "sharp";
import { photographNibs } from "#stand-ins/camera";
import { PORT, emptyShop, inBrowser, report } from "./bench-kit";

const SIZE = { width: 4000, height: 3000 } as const;
const RUNS = 5;

/** A picture of twelve megapixels counted in a worker of Chromium, and how soon a count that is cancelled is gone. */
export async function benchPhoto(): Promise<void> {
  const { folder, db } = await emptyShop();
  await db.destroy();
  const { picture, nibs } = photographNibs({ seed: 5, ...SIZE, scale_m_px: 1e-4, nibs: 40 });
  const png = await sharp(Buffer.from(picture.rgba), { raw: { ...SIZE, channels: 4 } })
    .png()
    .toBuffer();
  await inBrowser(folder, async (page) => {
    await page.route("**/bench.png", (route) => route.fulfill({ body: png, contentType: "image/png" }));
    await page.goto(`http://127.0.0.1:${PORT}/`);
    const asset = readdirSync("build/client/assets").find((f) => f.startsWith("compute.worker"));
    const { times, found, said } = await page.evaluate(
      async ({ url, runs }) => {
        const bitmap = await createImageBitmap(await (await fetch("/bench.png")).blob());
        const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
        const drawing = canvas.getContext("2d")!;
        drawing.drawImage(bitmap, 0, 0);
        const { data: rgba, width, height } = drawing.getImageData(0, 0, bitmap.width, bitmap.height);
        const times: number[] = [];
        let found = 0;
        let said = 0;
        for (let id = 0; id < runs; id++) {
          const worker = new Worker(url, { type: "module" });
          const start = performance.now();
          await new Promise<void>((resolve) => {
            worker.onmessage = (e: MessageEvent<{ progress?: number; output?: { found?: unknown[] } }>) => {
              if (e.data.progress !== undefined) return void said++;
              found = e.data.output?.found?.length ?? 0;
              resolve();
            };
            worker.postMessage({ id, op: "findInclusions", input: { rgba, width, height, scale_m_px: 1e-4 } });
          });
          times.push(performance.now() - start);
          worker.terminate();
        }
        return { times, found, said };
      },
      { url: `/assets/${asset}`, runs: RUNS },
    );
    report("nibs in a picture of 12 megapixels, in a worker of Chromium", times);
    console.log(`${found} marked of ${nibs.length} there; progress said ${Math.round(said / RUNS)} times a run`);
  });
}
