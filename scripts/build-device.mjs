// What runs on a device itself: the program for when the server does not answer, what opens it cold, and the service worker that keeps both.
import { existsSync, readFileSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { gzipSync } from "node:zlib";
import { build } from "vite";
import { getManifest, injectManifest } from "workbox-build";

const CLIENT = "build/client";

// A window asks for a page by its own file, which names what it needs; links that prefetch ask for that file alone, and
// the server's pages have it. It would be a third of what the list of routes weighs.
const manifest = readdirSync(`${CLIENT}/assets`).find((f) => /^manifest-.*\.js$/.test(f));
const list = readFileSync(`${CLIENT}/assets/${manifest}`, "utf8");
const [, before, json, after] = /^(window\.__reactRouterManifest=)(.*?)(;?\s*)$/s.exec(list);
const known = JSON.parse(json);
for (const route of Object.values(known.routes)) route.imports = [];
for (const part of ["device", "cold", "service-worker"]) {
  process.env.DEVICE_PART = part;
  await build({ configFile: "vite.device.config.ts" });
}
writeFileSync(`${CLIENT}/assets/${manifest}`, before + JSON.stringify(known) + after);
const made = `${CLIENT}/service-worker.js`;
const raw = `${CLIENT}/service-worker.raw.js`;
if (!existsSync(made)) throw new Error("the service worker was not built");
writeFileSync(raw, readFileSync(made));
const kept = {
  globPatterns: ["assets/**/*.{js,css,woff2,wasm,svg}"],
  dontCacheBustURLsMatching: /-[\w-]{7,}\.\w+$/,
  maximumFileSizeToCacheInBytes: 8e6,
};
const { count, size, warnings } = await injectManifest({ ...kept, swSrc: raw, swDest: made, globDirectory: CLIENT });
rmSync(raw);
for (const warning of warnings) console.warn(warning);
// Where there is no service worker, a device fetches them one by one.
const { manifestEntries } = await getManifest({ ...kept, globDirectory: CLIENT });
writeFileSync(`${CLIENT}/kept-files.json`, JSON.stringify(manifestEntries.map((e) => `/${e.url}`)));
const zipped = (file) => Math.round(gzipSync(readFileSync(file)).length / 1000);
console.log(`on devices: ${count} files, ${(size / 1e6).toFixed(1)} MB; service worker ${zipped(made)} kB gzipped`);
